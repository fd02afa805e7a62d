import type { FormerJobs, JobDetail } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, makePart, newId, openTestApp, readingBody, type TestApp, testClock } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const load = async (jobId: string) => (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
const former = async (jobId: string) => (await request(test.app).get(`/api/jobs/${jobId}/former`)).body as FormerJobs;

async function handOver(jobId: string, handedOverAt: string): Promise<void> {
  const { job } = await load(jobId);
  await request(test.app)
    .post(`/api/jobs/${jobId}/hand-over`)
    .send({
      ...{ id: newId(), version: job.version, handedOverAt, warrantyMonths: 6, spentMinutes: null, note: null },
      ...{ isReopened: false, clockId: testClock, personId: null },
    })
    .expect(200);
}
async function intake(jobId: string, more: object): Promise<void> {
  const { job } = await load(jobId);
  const { deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, complaint, symptoms, symptomNote } = job;
  const { priceLimitMinor, dueOn, customerName, customerContact, ownersWords, intakeDetails } = job;
  const values = {
    ...{ deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, complaint, symptoms, symptomNote },
    ...{ priceLimitMinor, dueOn, customerName, customerContact, ownersWords, intakeDetails, ...more },
  };
  await request(test.app)
    .patch(`/api/jobs/${jobId}/intake`)
    .send({ writeId: newId(), version: job.version, values })
    .expect(200);
}
const comeBack = (comebackOf: string, id = newId()) =>
  request(test.app)
    .post("/api/jobs")
    .send({
      ...{
        id,
        deviceKind: "other",
        deviceMaker: null,
        deviceModel: null,
        complaint: "dead again",
        personId: null,
        comebackOf,
      },
    });
const tellKind = async (jobId: string, comebackOf: string | null, kind: string | null) => {
  const { job } = await load(jobId);
  return request(test.app)
    .put(`/api/jobs/${jobId}/comeback`)
    .send({ writeId: newId(), version: job.version, comebackOf, kind });
};

describe("a unit that comes back", () => {
  it("brings its device, its board as it stands, its customer and what its job said", async () => {
    const first = await makeJob(test.app, { deviceMaker: "Brambix", deviceModel: "Halden 24" });
    const part = await makePart(test.app, first, "C7");
    await request(test.app)
      .post(`/api/jobs/${first}/readings`)
      .send(readingBody(part, { value: 90 }))
      .expect(201);
    await intake(first, { deviceSerial: "BX-1", customerName: "Ione Varga", complaint: "will not start" });
    await comeBack(first).expect(409);
    await handOver(first, "2026-06-10T10:00:00.000Z");
    const id = newId();
    await comeBack(first, id).expect(201);
    const { job, positions, fittedParts } = await load(id);
    expect(job).toMatchObject({ deviceModel: "Halden 24", deviceSerial: "BX-1", customerName: "Ione Varga" });
    expect(job).toMatchObject({ comebackOf: first, comebackKind: null, complaint: "dead again" });
    expect(positions.map((one) => one.designator)).toEqual(["C7"]);
    expect(fittedParts).toMatchObject([{ origin: "found", removedAt: null }]);
    const { linked } = await former(id);
    expect(linked).toMatchObject({ id: first, complaint: "will not start", warrantyUntil: "2026-12-10" });
    expect(linked?.bad).toEqual(["C7 failed"]);
    expect(linked?.left.join(" ")).toContain("C7");
  });

  it("is told by serial or customer, and linked by hand; a job is no return of itself or of an open one", async () => {
    const first = await makeJob(test.app);
    await intake(first, { deviceSerial: "zz-9 " });
    await handOver(first, "2026-06-10T10:00:00.000Z");
    const second = await makeJob(test.app);
    expect((await former(second)).alike).toEqual([]);
    await intake(second, { deviceSerial: "ZZ-9" });
    expect((await former(second)).alike).toMatchObject([{ id: first, isSameSerial: true }]);
    expect((await tellKind(second, second, null)).status).toBe(409);
    expect((await tellKind(first, second, null)).status).toBe(409);
    expect((await tellKind(second, first, "handling")).status).toBe(200);
    expect((await load(second)).job).toMatchObject({ comebackOf: first, comebackKind: "handling" });
    expect((await former(second)).alike).toEqual([]);
    expect((await tellKind(second, null, "handling")).status).toBe(200);
    expect((await load(second)).job).toMatchObject({ comebackOf: null, comebackKind: null });
  });

  it("goes on with its warranty where the same fault is back, by the days that it was in the shop", async () => {
    const until = async (kind: string | null) => {
      const first = await makeJob(test.app);
      await handOver(first, "2026-10-01T10:00:00.000Z");
      const id = newId();
      test.setNow(new Date("2026-11-23T12:00:00Z"));
      await comeBack(first, id).expect(201);
      await tellKind(id, first, kind);
      const { job } = await load(id);
      const answer = await request(test.app)
        .post(`/api/jobs/${id}/hand-over`)
        .send({
          ...{ id: newId(), version: job.version, handedOverAt: "2026-12-03T12:00:00.000Z", warrantyMonths: 1 },
          ...{ spentMinutes: null, note: null, isReopened: false, clockId: testClock, personId: null },
        })
        .expect(200);
      return (answer.body as { warrantyUntil: string }).warrantyUntil;
    };
    // The first ran until 1 April: ten days in the shop lengthen it.
    expect(await until("same_fault")).toBe("2027-04-11");
    expect(await until("handling")).toBe("2027-01-03");
    expect(await until(null)).toBe("2027-01-03");
  });
});

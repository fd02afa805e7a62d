import type { JobDetail, ReportDocument, ReportVersion } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { pdfPageSize, readPdf } from "../../testing/readPdf";
import { makeJob, makePart, newId, openTestApp, readingBody, type TestApp, testClock } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const handOver = (jobId: string, version: number, isReopened = false) =>
  request(test.app)
    .post(`/api/jobs/${jobId}/hand-over`)
    .send({
      ...{ id: newId(), version, handedOverAt: "2026-11-23T12:00:00.000Z", warrantyMonths: 6, spentMinutes: 40 },
      ...{ note: null, isReopened, clockId: testClock, personId: null },
    });
const versionsOf = async (jobId: string) =>
  (await request(test.app).get(`/api/jobs/${jobId}/reports`).expect(200)).body as ReportVersion[];
const file = async (path: string) => {
  const answer = await request(test.app).get(path).responseType("blob").expect(200);
  expect(answer.headers["content-type"]).toContain("application/pdf");
  return answer.body as Buffer;
};

describe("reports of a job", () => {
  it("are kept as they were handed over, and a later version says what differs", async () => {
    const jobId = await makeJob(test.app);
    const part = await makePart(test.app, jobId);
    await request(test.app).post(`/api/jobs/${jobId}/readings`).send(readingBody(part)).expect(201);
    const { job } = (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
    await handOver(jobId, job.version).expect(200);
    const [first] = await versionsOf(jobId);
    expect(first).toMatchObject({ number: 1, difference: null });
    const path = `/api/jobs/${jobId}/reports/${first?.id}`;
    const before = await file(`${path}/file?audience=record`);
    const { text, pages } = await readPdf(before);
    expect(text).toContain("Warranty until 23 May 2027");
    expect(text).toMatch(/\d+ (mΩ|Ω)/);
    expect(text).toContain("μF");
    expect(text).toContain(`page 1 of ${pages.length}`);

    await handOver(jobId, job.version + 1, true).expect(200);
    const act = { kind: "mechanical", subjectId: null, word: null, note: "Earth lug of R. Ålund straightened, ≤ 2 mm" };
    await request(test.app)
      .post(`/api/jobs/${jobId}/acts`)
      .send({ ...act, id: newId(), at: "2026-11-23T12:00:00.000Z", clockId: testClock, personId: null })
      .expect(201);
    await handOver(jobId, job.version + 2).expect(200);
    const [second, again] = await versionsOf(jobId);
    expect(again).toMatchObject({ id: first?.id, number: 1 });
    expect(second?.difference?.customer).toEqual({ added: [act.note], gone: ["Nothing was changed on the unit."] });
    expect(second?.difference?.record.added).toContainEqual(expect.stringContaining("Opened again"));
    // The first is what it was, byte for byte.
    expect((await file(`${path}/file?audience=record`)).equals(before)).toBe(true);
    const anew = await readPdf(await file(`/api/jobs/${jobId}/reports/${second?.id}/file?audience=customer`));
    expect(anew.text).toContain("Earth lug of R. Ålund straightened, ≤ 2 mm");
    expect(anew.pages).toHaveLength(1);
  });

  it("say of an open job that it is not finished, on the paper that is asked for", async () => {
    const jobId = await makeJob(test.app);
    const { body } = await request(test.app).get(`/api/jobs/${jobId}/report?audience=customer`).expect(200);
    const words = JSON.stringify((body as ReportDocument).blocks);
    expect((body as ReportDocument).notices).toEqual(["The repair is not finished: this is how it stands."]);
    expect(words).toContain("Nothing was tested.");
    expect(words).not.toMatch(/within its limits|safe/i);
    const letter = await file(`/api/jobs/${jobId}/report/file?audience=customer&paper=letter`);
    expect(await pdfPageSize(letter)).toEqual([612, 792]);
    expect(await pdfPageSize(await file(`/api/jobs/${jobId}/report/file?audience=customer`))).toEqual([595, 842]);
    expect(await versionsOf(jobId)).toEqual([]);
  });

  it("are refused for nobody's job, for another's version and for no audience", async () => {
    const jobId = await makeJob(test.app);
    const other = await makeJob(test.app);
    await handOver(jobId, 1).expect(200);
    const [own] = await versionsOf(jobId);
    for (const path of [
      `${newId()}/report`,
      `${newId()}/report/file`,
      `${other}/reports/${own?.id}`,
      `${other}/reports/${own?.id}/file`,
    ]) {
      await request(test.app).get(`/api/jobs/${path}?audience=record`).expect(404);
    }
    await request(test.app).get(`/api/jobs/${jobId}/report`).expect(422);
    await request(test.app).get(`/api/jobs/${jobId}/report?audience=everybody`).expect(422);
  });
});

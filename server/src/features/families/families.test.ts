import { editableValues, type Family, type JobDetail } from "@pale-cap/contract";
import { netValues } from "@pale-cap/core/testing";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const get = async <T>(path: string) => (await request(test.app).get(path).expect(200)).body as T;
const more = (jobId: string, units: readonly object[], id = newId()) =>
  request(test.app).post(`/api/jobs/${jobId}/family/units`).send({ id, familyName: "four displays", units });

describe("identical units", () => {
  it("are jobs of their own with the same board and no readings; one's finding is a line on the others", async () => {
    const first = await makeJob(test.app, { deviceModel: "Halden 24" });
    const part = await makePart(test.app, first, "C21");
    await request(test.app)
      .post(`/api/jobs/${first}/readings`)
      .send(readingBody(part, { value: 2.4 }))
      .expect(201);
    const units = [
      { id: newId(), serial: "A2" },
      { id: newId(), serial: null },
    ];
    const answer = await more(first, units).expect(201);
    expect((answer.body as Family).units).toHaveLength(3);
    const second = await get<JobDetail>(`/api/jobs/${units[0]?.id}`);
    expect(second.job).toMatchObject({ deviceModel: "Halden 24", deviceSerial: "A2", complaint: null });
    expect(second.positions.map((one) => one.designator)).toEqual(["C21"]);
    expect(second.positions[0]?.netId).toBe(second.nets[0]?.id);
    expect(second.positions[0]?.id).not.toBe(part.positionId);
    expect(second.fittedParts).toHaveLength(1);
    expect(second.readings).toEqual([]);
    const family = await get<Family>(`/api/jobs/${units[0]?.id}/family`);
    expect(family.findings).toMatchObject([
      { code: "part_bad", subject: "C21", own: "not_checked", ownPositionId: second.positions[0]?.id },
    ]);
    expect((await get<Family>(`/api/jobs/${first}/family`)).findings).toEqual([]);
  });

  it("hold all boards of the unit, and a rail behind another board's rail stays behind that board's copy", async () => {
    const first = await makeJob(test.app);
    const supply = await makePart(test.app, first, "C1");
    const host = newId();
    await request(test.app).post(`/api/jobs/${first}/boards`).send({ id: host, name: "Host" }).expect(201);
    const network = { arrangement: "parallel", behindNetId: supply.netId, chokeHenrys: null, chokeOhms: null };
    const net = { id: newId(), table: "net", operation: "insert", version: null, values: { ...netValues, network } };
    await request(test.app)
      .post(`/api/jobs/${first}/board-edits`)
      .send({ id: newId(), boardId: host, changes: [net] })
      .expect(200);
    const unit = { id: newId(), serial: null };
    await more(first, [unit]).expect(201);
    const copy = await get<JobDetail>(`/api/jobs/${unit.id}`);
    const netOf = (place: number) =>
      copy.nets.find((one) => one.boardId === copy.boards.find((board) => board.place === place)?.id);
    expect(netOf(2)?.network?.behindNetId).toBe(netOf(1)?.id);
    expect([netOf(1)?.id, netOf(2)?.id]).not.toContain(supply.netId);
  });

  it("follow the place, not the name it has on one of them", async () => {
    const first = await makeJob(test.app);
    const part = await makePart(test.app, first, "C9");
    const unit = { id: newId(), serial: null };
    await more(first, [unit]).expect(201);
    const copy = await get<JobDetail>(`/api/jobs/${unit.id}`);
    const place = copy.positions[0];
    const { id, version } = place as NonNullable<typeof place>;
    const values = { ...editableValues("position", place ?? {}), designator: "C90" };
    await request(test.app)
      .post(`/api/jobs/${unit.id}/board-edits`)
      .send({
        id: newId(),
        changes: [{ table: "position", operation: "update", id, version, values }],
      })
      .expect(200);
    await request(test.app)
      .post(`/api/jobs/${first}/readings`)
      .send(readingBody(part, { value: 3 }))
      .expect(201);
    const family = await get<Family>(`/api/jobs/${unit.id}/family`);
    expect(family.findings[0]).toMatchObject({ subject: "C9", own: "not_checked", ownPositionId: id });
  });

  it("are made once for a retry, join the family that stands, and need a job to start from", async () => {
    const first = await makeJob(test.app);
    const id = newId();
    const units = [{ id: newId(), serial: "B" }];
    await more(first, units, id).expect(201);
    await more(first, units, id).expect(200);
    const answer = await more(units[0]?.id as string, [{ id: newId(), serial: "C" }]).expect(201);
    expect((answer.body as Family).units.map((one) => one.serial)).toEqual([null, "B", "C"]);
    await more(newId(), units).expect(404);
    await more(first, []).expect(422);
  });
});

describe("closed jobs alike", () => {
  it("tell minutes and parts of the same kind only, and only once they are closed", async () => {
    const asks = await makeJob(test.app, { deviceKind: "instrument" });
    const close = async (deviceKind: string, spentMinutes: number | null) => {
      const jobId = await makeJob(test.app, { deviceKind });
      const body = { id: newId(), handedOverAt: "2026-11-23T11:00:00Z", warrantyMonths: 6, spentMinutes, note: null };
      await request(test.app)
        .post(`/api/jobs/${jobId}/hand-over`)
        .send({ ...body, version: 1, clockId: null, personId: null, isReopened: false })
        .expect(200);
    };
    await close("instrument", 35);
    await close("instrument", null);
    await close("console", 90);
    const found = await get<readonly { spentMinutes: number | null }[]>(`/api/jobs/${asks}/closed-jobs-alike`);
    expect(found.map((one) => one.spentMinutes).sort()).toEqual([35, null]);
  });
});

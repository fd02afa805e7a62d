import {
  type BoardTypeLine,
  type BoardTypeOfJob,
  editableValues,
  type JobDetail,
  type Problem,
} from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, makePart, newId, openTestApp, type TestApp } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const get = async <T>(path: string) => (await request(test.app).get(path).expect(200)).body as T;
const save = (jobId: string, more: object, id = newId()) =>
  request(test.app)
    .post(`/api/jobs/${jobId}/board-type`)
    .send({ id, boardTypeId: null, name: null, ...more });
const take = (jobId: string, revisionId: string | undefined) =>
  request(test.app).post(`/api/jobs/${jobId}/board-type/use`).send({ id: newId(), revisionId });
const types = () => get<BoardTypeLine[]>("/api/board-types");

describe("a board type", () => {
  it("is kept from one board, fills the next, and says what differs there", async () => {
    const first = await makeJob(test.app);
    await makePart(test.app, first, "C14");
    const saved = await save(first, { name: "Halden power board" }).expect(201);
    expect(saved.body).toMatchObject({ revisionNumber: 1, latestNumber: 1, differences: [] });
    const line = (await types()).find((one) => one.name === "Halden power board");
    expect(line?.partCount).toBe(1);

    const second = await makeJob(test.app);
    await take(second, line?.revisionId).expect(200);
    const copy = await get<JobDetail>(`/api/jobs/${second}`);
    expect(copy.positions.map((one) => one.designator)).toEqual(["C14"]);
    expect(copy.positions[0]?.netId).toBe(copy.nets[0]?.id);
    // What one customer was promised is no property of the board.
    expect(copy.nets[0]).toMatchObject({ name: "12 V", fullLoadAmps: null });

    const part = copy.fittedParts[0] as JobDetail["fittedParts"][number];
    const { id, version } = part;
    const values = { ...editableValues("fittedPart", part), ratedVolts: 25 };
    const change = { table: "fittedPart", operation: "update", id, version, values };
    await request(test.app)
      .post(`/api/jobs/${second}/board-edits`)
      .send({ id: newId(), changes: [change] })
      .expect(200);
    const compared = await get<BoardTypeOfJob>(`/api/jobs/${second}/board-type`);
    expect(compared.differences).toEqual([
      { code: "differs", designator: "C14", fields: [{ field: "ratedVolts", onType: 16, here: 25 }] },
    ]);
  });

  it("keeps its revisions: a board remembers the one it came from", async () => {
    const first = await makeJob(test.app);
    await makePart(test.app, first, "C1");
    const { boardTypeId } = (await save(first, { name: "Duo board" }).expect(201)).body as BoardTypeOfJob;
    const line = (await types()).find((one) => one.boardTypeId === boardTypeId);
    const second = await makeJob(test.app);
    await take(second, line?.revisionId).expect(200);
    await makePart(test.app, first, "C2");
    await save(first, { boardTypeId }).expect(201);
    expect(await get<BoardTypeOfJob>(`/api/jobs/${second}/board-type`)).toMatchObject({
      revisionNumber: 1,
      latestNumber: 2,
      differences: [],
    });
    expect((await types()).filter((one) => one.boardTypeId === boardTypeId)).toMatchObject([
      { revisionNumber: 2, partCount: 2 },
    ]);
  });

  it("is not made of nothing, not without a name, not twice by a retry, and not laid over parts", async () => {
    const empty = await makeJob(test.app);
    expect(((await save(empty, { name: "Nothing" }).expect(409)).body as Problem).detail).toContain("empty board");
    const full = await makeJob(test.app);
    await makePart(test.app, full, "C1");
    expect(((await save(full, {}).expect(422)).body as Problem).errors[0]?.path).toBe("name");
    const id = newId();
    await save(full, { name: "Once" }, id).expect(201);
    await save(full, { name: "Once" }, id).expect(200);
    const lines = (await types()).filter((one) => one.name === "Once");
    expect(lines).toHaveLength(1);
    expect(((await take(full, lines[0]?.revisionId).expect(409)).body as Problem).detail).toContain("already");
    await take(empty, newId()).expect(409);
    expect(await get(`/api/jobs/${empty}/board-type`)).toBeNull();
  });
});

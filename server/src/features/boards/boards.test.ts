import { editableValues, type JobDetail, type Problem } from "@pale-cap/contract";
import { netValues, partValues, positionValues } from "@pale-cap/core/testing";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type MadePart, makeJob, makePart, newId, openTestApp, type TestApp } from "../../testing/testApp";

let test: TestApp;
let jobId: string;
let part: MadePart;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());
beforeEach(async () => {
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
});

const send = (changes: readonly object[], id = newId()) =>
  request(test.app).post(`/api/jobs/${jobId}/board-edits`).send({ id, changes });
const load = async () => (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
const addBoard = (body: object) => request(test.app).post(`/api/jobs/${jobId}/boards`).send(body);
const behindOf = (id: string, version: number, behindNetId: string) => ({
  ...{ table: "net", operation: "update", id, version },
  values: { ...netValues, network: { arrangement: "parallel", behindNetId, chokeHenrys: null, chokeOhms: null } },
});
const position = (values: object, more: object = {}) => ({
  table: "position",
  operation: "insert",
  id: newId(),
  version: null,
  values: { ...positionValues, netId: part.netId, ...values },
  ...more,
});

describe("board edits", () => {
  it("change a row from its version and raise it", async () => {
    const values = { ...netValues, nominalVolts: 12.6 };
    await send([{ table: "net", operation: "update", id: part.netId, version: 1, values }]).expect(200);
    expect((await load()).nets[0]).toMatchObject({ nominalVolts: 12.6, version: 2 });
  });

  it("take back the rows that the job was loaded with, as they are", async () => {
    const { nets, positions, boards } = await load();
    const rows = [
      { table: "net" as const, rows: nets },
      { table: "position" as const, rows: positions },
      { table: "board" as const, rows: boards },
    ];
    const changes = rows.flatMap(({ table, rows: loaded }) =>
      loaded.map((row) => {
        const { id, version } = row;
        return { table, operation: "update", id, version, values: editableValues(table, row) };
      }),
    );
    await send(changes).expect(200);
  });

  it("are all or nothing: a stale row in a batch leaves the others untouched and names itself", async () => {
    const answer = await send([
      position({ designator: "C2" }),
      { table: "net", operation: "update", id: part.netId, version: 7, values: netValues },
    ]).expect(409);
    expect(answer.body).toMatchObject({ code: "stale_version", current: { version: 1 } });
    expect((await load()).positions).toHaveLength(1);
  });

  it("refuse a designator that is taken, whatever its case, and give it free when its place is deleted", async () => {
    const clash = await send([position({ designator: "c1" })]).expect(409);
    expect((clash.body as Problem).errors).toEqual([
      { path: "changes[0].values.designator", code: "already_on_board" },
    ]);
    await send([{ table: "position", operation: "delete", id: part.positionId, version: 1, values: null }]).expect(200);
    await send([position({ designator: "c1" })]).expect(200);
    const back = { table: "position", operation: "restore", id: part.positionId, version: 2, values: null };
    expect((await send([back]).expect(409)).body.code).toBe("conflict");
  });

  it("bring a deleted place back with its part", async () => {
    await send([{ table: "position", operation: "delete", id: part.positionId, version: 1, values: null }]).expect(200);
    expect((await load()).positions).toEqual([]);
    await send([{ table: "position", operation: "restore", id: part.positionId, version: 2, values: null }]).expect(
      200,
    );
    const detail = await load();
    expect(detail.positions[0]).toMatchObject({ designator: "C1", version: 3 });
    expect(detail.fittedParts[0]?.id).toBe(part.partId);
  });

  it("do a retried batch once", async () => {
    const change = position({ designator: "C9" });
    const id = newId();
    await send([change], id).expect(200);
    await send([change], id).expect(200);
    expect((await load()).positions).toHaveLength(2);
  });

  it("fill any board of the unit, each with designators and rails of its own", async () => {
    const host = newId();
    await addBoard({ id: host, name: "Host" }).expect(201);
    const net = { id: newId(), table: "net", operation: "insert", version: null, values: netValues };
    const onHost = (changes: readonly object[], boardId = host) =>
      request(test.app).post(`/api/jobs/${jobId}/board-edits`).send({ id: newId(), boardId, changes });
    // The same name as on the first board, on a rail of its own.
    await onHost([net, position({ designator: "C1", netId: net.id })]).expect(200);
    await onHost([position({ designator: "C2", netId: part.netId })]).expect(409);
    await onHost([position({ designator: "C3", netId: null })], newId()).expect(409);
    const { boards, nets, positions } = await load();
    expect(boards.map((one) => [one.name, one.place])).toEqual([
      [null, 1],
      ["Host", 2],
    ]);
    expect(
      positions
        .filter((one) => one.designator === "C1")
        .map((one) => one.boardId)
        .sort(),
    ).toEqual(boards.map((one) => one.id).sort());
    expect(nets.find((one) => one.id === net.id)?.boardId).toBe(host);
    // A place stays on its board: a rail of the other is refused, whatever board is named.
    const stored = positions.find((one) => one.boardId === host);
    const moved = { ...editableValues("position", stored ?? {}), netId: part.netId };
    const update = { table: "position", operation: "update", id: stored?.id, version: 1, values: moved };
    await onHost([update], boards[0]?.id).expect(409);
    // A host's rail hangs behind the supply's: its promise counts once.
    await send([{ ...behindOf(net.id, 1, part.netId) }]).expect(200);
  });

  it("leave a board only where nothing is on it, and never the last one", async () => {
    const [first] = (await load()).boards;
    const remove = (boardId: string | undefined, version = 1) =>
      request(test.app).delete(`/api/jobs/${jobId}/boards/${boardId}`).send({ writeId: newId(), version });
    await remove(first?.id).expect(409);
    const host = newId();
    await addBoard({ id: host, name: "Host" }).expect(201);
    await remove(first?.id).expect(409);
    await remove(host, 2).expect(409);
    await remove(host).expect(200);
    expect((await load()).boards.map((one) => one.id)).toEqual([first?.id]);
    await addBoard({ id: newId(), name: " " }).expect(422);
  });

  it("stay on their own board", async () => {
    const otherJob = await makeJob(test.app);
    const other = await makePart(test.app, otherJob);
    await send([position({ designator: "C2", netId: other.netId })]).expect(409);
    await send([{ table: "net", operation: "update", id: other.netId, version: 1, values: netValues }]).expect(404);
    const stray = { ...partValues, positionId: other.positionId };
    await send([{ table: "fittedPart", operation: "update", id: other.partId, version: 1, values: stray }]).expect(409);
    await send([{ table: "fittedPart", operation: "insert", id: newId(), version: null, values: stray }]).expect(409);
  });

  it("do not put a second part where one sits", async () => {
    const values = { ...partValues, positionId: part.positionId };
    await send([{ table: "fittedPart", operation: "insert", id: newId(), version: null, values }]).expect(409);
  });

  it.each([
    [{ xMetres: -1 }, "changes[0].values.xMetres"],
    [{ designator: "" }, "changes[0].values.designator"],
    [{ kind: "flux capacitor" }, "changes[0].values.kind"],
    [{ colour: "blue" }, "changes[0].values"],
  ])("refuse %o at its path", async (values, path) => {
    const answer = await send([position({ designator: "C5", ...values })]).expect(422);
    expect((answer.body as Problem).errors.map((one) => one.path)).toContain(path);
  });

  it("refuse unit slips: a 10 F can, a 5 kV rail", async () => {
    const values = { ...partValues, positionId: part.positionId, capacitanceFarads: 10 };
    await send([{ table: "fittedPart", operation: "update", id: part.partId, version: 1, values }]).expect(422);
    const net = { ...netValues, nominalVolts: 5000 };
    await send([{ table: "net", operation: "update", id: part.netId, version: 1, values: net }]).expect(422);
    expect((await load()).fittedParts[0]?.version).toBe(1);
  });
});

describe("a rail that is filtered from another", () => {
  const behind = (id: string, version: number, behindNetId: string | null) => ({
    ...{ table: "net", operation: "update", id, version },
    values: {
      ...netValues,
      network: { arrangement: "parallel", behindNetId, chokeHenrys: null, chokeOhms: null },
    },
  });
  const more = async () => {
    const id = newId();
    await send([{ table: "net", operation: "insert", id, version: null, values: { ...netValues, name: id } }]).expect(
      200,
    );
    return id;
  };

  it("is never behind itself, nor in a circle, whichever batch would close it", async () => {
    const [second, third] = [await more(), await more()];
    const itself = (await send([behind(part.netId, 1, part.netId)]).expect(409)).body as Problem;
    expect(itself.errors[0]).toEqual({
      path: "changes[0].values.network.behindNetId",
      code: "leads_back",
    });
    await send([behind(part.netId, 1, second), behind(second, 1, third)]).expect(200);
    await send([behind(third, 1, part.netId)]).expect(409);
    // One batch may turn two of them round.
    await send([behind(part.netId, 2, null), behind(third, 1, part.netId)]).expect(200);
    const { nets } = await load();
    expect(nets.find((net) => net.id === third)?.network?.behindNetId).toBe(part.netId);
  });

  it("is filtered from one of its own unit only", async () => {
    const other = await makePart(test.app, await makeJob(test.app));
    const refused = (await send([behind(part.netId, 1, other.netId)]).expect(409)).body as Problem;
    expect(refused.errors[0]?.code).toBe("not_on_board");
  });
});

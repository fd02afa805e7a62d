import type { JobDetail, OrderBasis, Problem, StockItemDetail } from "@pale-cap/contract";
import { seededRandom } from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { generateCatalogue } from "../../database/demo/generateCatalogue";
import { makeHeap, heapValues as values } from "../../testing/stock";
import { type MadePart, makeJob, makePart, newId, openTestApp, type TestApp, testClock } from "../../testing/testApp";

const [part, otherPart] = generateCatalogue(seededRandom(3));
const at = "2026-11-23T11:00:00.000Z";
let test: TestApp;

beforeAll(async () => {
  test = await openTestApp();
  await test.inScope(({ rows }) => rows.catalogueParts.insertAll([part as object, otherPart as object]));
});
afterAll(() => test.close());

const heap = (count: number, more: object = {}) => makeHeap(test.app, { cataloguePartId: part?.id, count, ...more });
const look = async (id: string) =>
  (await request(test.app).get(`/api/stock/${id}`).expect(200)).body as StockItemDetail;
const sums = async (id: string) => {
  const { count, reserved, free } = await look(id);
  return [count, reserved, free];
};
const move = (id: string, kind: string, pieces: number) =>
  request(test.app).post(`/api/stock/${id}/movements`).send({ id: newId(), kind, pieces, note: null, personId: null });

interface Place {
  readonly jobId: string;
  readonly made: MadePart;
  version: number;
}
async function place(): Promise<Place> {
  const jobId = await makeJob(test.app);
  return { jobId, made: await makePart(test.app, jobId), version: 0 };
}
const overrides = {
  ...{ diameterMaxMetres: null, heightMaxMetres: null, pitchMetres: null, esrMaxOhms: null },
  ...{ rippleAmpsRms: null, ambientCelsius: null },
};
async function choose(one: Place, more: object): Promise<{ readonly status: number; readonly body: unknown }> {
  const answer = await request(test.app)
    .put(`/api/jobs/${one.jobId}/plans/${one.made.positionId}`)
    .send({ writeId: newId(), version: one.version, cataloguePartId: part?.id, overrides, ...more });
  if (answer.status === 200) one.version += 1;
  return answer;
}
const tick = ({ jobId, made }: Place, step: string, isDone: boolean, fittedPartId: string | null = null) =>
  request(test.app)
    .post(`/api/jobs/${jobId}/ticks`)
    .send({
      ...{ id: newId(), step, isDone, at, clockId: testClock, personId: null },
      items: [{ id: newId(), positionId: made.positionId, fittedPartId, stripeDegrees: null }],
    });
const load = async ({ jobId }: Place) => (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;

describe("a heap of parts", () => {
  it("counts what moved, and takes nothing below zero", async () => {
    const id = await heap(3);
    await move(id, "scrapped", 4).expect(409);
    await move(id, "scrapped", 1).expect(201);
    await move(id, "counted", 5).expect(201);
    await move(id, "received", 2).expect(201);
    expect(await sums(id)).toEqual([7, 0, 7]);
    expect((await look(id)).movements.map((one) => [one.kind, one.countDelta])).toEqual([
      ["received", 2],
      ["counted", 3],
      ["scrapped", -1],
      ["received", 3],
    ]);
    await move(id, "fitted", 1).expect(422);
    await move(id, "received", 0).expect(409);
    await move(newId(), "received", 1).expect(404);
  });
  it("is a part of the catalogue or has a marking of its own, never both and never neither", async () => {
    const marking = {
      ...{ capacitanceFarads: 1e-3, ratedVolts: 25, temperatureClassCelsius: 105, capacitorClass: "lowz" },
      ...{ diameterMetres: 0.01, heightMetres: 0.02, pitchMetres: 0.005, series: "Tern" },
    };
    const body = (more: object) => ({
      id: newId(),
      cataloguePartId: null,
      marking,
      values,
      count: 1,
      personId: null,
      ...more,
    });
    const send = (more: object) => request(test.app).post("/api/stock").send(body(more));
    const own = newId();
    await send({ id: own }).expect(201);
    // What nobody reads off a loose part is not known of it.
    expect((await look(own)).marking).toEqual({
      ...marking,
      ...{ maker: null, orderCode: null, esrOhms: null, rippleAmpsRms: null, ratedLifeHours: null, priceMinor: null },
    });
    await send({ cataloguePartId: part?.id }).expect(422);
    await send({ marking: null }).expect(422);
    const unknown = await send({ marking: null, cataloguePartId: newId() }).expect(409);
    expect((unknown.body as Problem).detail).toContain("not in the catalogue any more");
  });
  it("is edited from its version, and keeps what was read of a loose part", async () => {
    const id = await heap(1);
    const edit = (version: number, setAsideReason: string | null) =>
      request(test.app)
        .patch(`/api/stock/${id}`)
        .send({ writeId: newId(), version, values: { ...values, drawer: "C9" }, setAsideReason });
    await edit(1, "sleeves came off").expect(200);
    await edit(1, null).expect(409);
    const act = {
      value: 0.02,
      volts: null,
      seconds: null,
      riseKelvin: null,
      frequencyHertz: 1e5,
      note: null,
      personId: null,
    };
    await request(test.app)
      .post(`/api/stock/${id}/acts`)
      .send({ id: newId(), kind: "esr_read", ...act })
      .expect(201);
    const { drawer, setAsideReason, acts } = await look(id);
    expect({ drawer, setAsideReason }).toEqual({ drawer: "C9", setAsideReason: "sleeves came off" });
    expect(acts).toMatchObject([{ kind: "esr_read", value: 0.02 }]);
  });
});

describe("a chosen part", () => {
  it("is promised one piece, which a change of mind gives back", async () => {
    const id = await heap(2);
    const one = await place();
    expect((await choose(one, { stockItemId: id })).status).toBe(200);
    expect(await sums(id)).toEqual([2, 1, 1]);
    // Another limit is another edit of the same choice.
    await choose(one, { overrides: { ...overrides, ambientCelsius: 50 } });
    expect(await sums(id)).toEqual([2, 1, 1]);
    await choose(one, { stockItemId: null });
    expect(await sums(id)).toEqual([2, 0, 2]);
    await choose(one, { stockItemId: id });
    await choose(one, { cataloguePartId: otherPart?.id });
    expect(await sums(id)).toEqual([2, 0, 2]);
    expect((await load(one)).plans[0]?.stockItemId).toBeNull();
    expect((await choose(one, { cataloguePartId: otherPart?.id, stockItemId: id })).status).toBe(409);
  });
  it("takes the last one only once, however many want it at the same time", async () => {
    const id = await heap(1);
    const many = await Promise.all(Array.from({ length: 6 }, place));
    const answers = await Promise.all(many.map((one) => choose(one, { stockItemId: id })));
    expect(answers.map((one) => one.status).sort()).toEqual([200, 409, 409, 409, 409, 409]);
    expect(await sums(id)).toEqual([1, 1, 0]);
    const winner = many.find((one) => one.version === 1) as Place;
    const number = (await load(winner)).job.number;
    const refused = answers.find((one) => one.status === 409)?.body as Problem;
    expect(refused.detail).toContain(`job ${String(number).padStart(4, "0")} C1`);
    await move(id, "counted", 0).expect(409);
    await move(id, "scrapped", 1).expect(409);
  });
  it("leaves its drawer when it is fitted and comes back when that is taken back", async () => {
    const id = await heap(2);
    const one = await place();
    await choose(one, { stockItemId: id });
    await tick(one, "removed", true).expect(201);
    const fitted = newId();
    await tick(one, "fitted", true, fitted).expect(201);
    expect(await sums(id)).toEqual([1, 0, 1]);
    expect((await choose(one, { stockItemId: null })).status).toBe(409);
    expect((await load(one)).fittedParts.find((row) => row.id === fitted)).toMatchObject({
      ...{ stockItemId: id, maker: part?.maker, orderCode: part?.orderCode, priceMinor: part?.priceMinor },
    });
    await tick(one, "fitted", false).expect(201);
    expect(await sums(id)).toEqual([2, 1, 1]);
    expect((await look(id)).movements.map((row) => row.kind)).toEqual(["put_back", "fitted", "reserved", "received"]);
  });
  it("is free again when its job is closed; what goes in later is still a fact", async () => {
    const id = await heap(1);
    const [one, other] = [await place(), await place()];
    await choose(one, { stockItemId: id });
    const { version } = (await load(one)).job;
    const closing = {
      ...{ isReopened: false, warrantyMonths: 6, note: null, spentMinutes: null, handedOverAt: at, personId: null },
      clockId: testClock,
    };
    const hand = (more: object) =>
      request(test.app)
        .post(`/api/jobs/${one.jobId}/hand-over`)
        .send({ id: newId(), ...closing, ...more });
    await hand({ version }).expect(200);
    expect(await sums(id)).toEqual([1, 0, 1]);
    expect((await choose(other, { stockItemId: id })).status).toBe(200);
    await hand({ version: version + 1, isReopened: true }).expect(200);
    await tick(one, "removed", true).expect(201);
    const fitted = newId();
    await tick(one, "fitted", true, fitted).expect(201);
    expect((await load(one)).fittedParts.find((row) => row.id === fitted)?.stockItemId).toBeNull();
    expect(await sums(id)).toEqual([1, 1, 0]);
  });
  it("does not come out of what is kept apart", async () => {
    const id = await heap(5);
    const edit = { writeId: newId(), version: 1, values, setAsideReason: "the lot failed its sample" };
    await request(test.app).patch(`/api/stock/${id}`).send(edit).expect(200);
    const one = await place();
    const refused = await choose(one, { stockItemId: id });
    expect(refused.status).toBe(409);
    expect((refused.body as Problem).detail).toContain("the lot failed its sample");
  });
  it("does not come out while it may hold charge: drained, and read low twice, it does", async () => {
    const id = await heap(5);
    const untold = { volts: null, seconds: null, riseKelvin: null, frequencyHertz: null, note: null, personId: null };
    const act = (kind: string, value: number, more: object = {}) =>
      request(test.app)
        .post(`/api/stock/${id}/acts`)
        .send({ id: newId(), kind, value, ...untold, ...more })
        .expect(201);
    await act("leakage_read", 1e-6, { volts: 25 });
    const one = await place();
    await act("drained", 1000);
    await act("volts_read", 0.4);
    const refused = await choose(one, { stockItemId: id });
    expect([refused.status, (refused.body as Problem).detail]).toEqual([409, expect.stringContaining("hold charge")]);
    expect((await sums(id))[1]).toBe(0);
    await act("volts_read", 0.4);
    expect((await choose(one, { stockItemId: id })).status).toBe(200);
  });
  it("comes out of the oldest drawer that has it free, and says where none has", async () => {
    const mine = generateCatalogue(seededRandom(3))[9];
    await test.inScope(({ rows }) => rows.catalogueParts.insert(mine as object));
    const first = await heap(1, { cataloguePartId: mine?.id });
    const second = await heap(1, { cataloguePartId: mine?.id });
    const chosen = { cataloguePartId: mine?.id, isFromDrawer: true };
    const places = [await place(), await place(), await place()] as const;
    for (const one of places.slice(0, 2)) expect((await choose(one, chosen)).status).toBe(200);
    expect([await sums(first), await sums(second)]).toEqual([
      [1, 1, 0],
      [1, 1, 0],
    ]);
    const refused = await choose(places[2], chosen);
    expect(refused.status).toBe(409);
    expect((await load(places[2])).plans).toEqual([]);
    // What could not be promised is what is to be ordered.
    expect((await choose(places[2], { cataloguePartId: mine?.id })).status).toBe(200);
    const basis = (await request(test.app).get("/api/orders/needs").expect(200)).body as OrderBasis;
    expect(basis.places.filter((one) => one.cataloguePartId === mine?.id).map((one) => one.jobId)).toEqual([
      places[2].jobId,
    ]);
    expect(basis.parts.find((one) => one.cataloguePartId === mine?.id)).toMatchObject({ free: 0, onOrder: 0 });
  });
});

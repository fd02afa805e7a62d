import { editableValues, type JobDetail, type Problem } from "@pale-cap/contract";
import { seededRandom } from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { generateCatalogue } from "../../database/demo/generateCatalogue";
import {
  type MadePart,
  makeJob,
  makePart,
  newId,
  openTestApp,
  readingBody,
  type TestApp,
  testClock,
} from "../../testing/testApp";

let test: TestApp;
let jobId: string;
let part: MadePart;
const [replacement] = generateCatalogue(seededRandom(3));
beforeAll(async () => {
  test = await openTestApp();
  await test.inScope(({ rows }) => rows.catalogueParts.insert(replacement as object));
});
afterAll(() => test.close());
beforeEach(async () => {
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
});

const overrides = {
  diameterMaxMetres: null,
  heightMaxMetres: null,
  pitchMetres: null,
  esrMaxOhms: null,
  rippleAmpsRms: null,
  ambientCelsius: null,
};
const load = async () => (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
const plan = (version: number, more: object = {}) =>
  request(test.app)
    .put(`/api/jobs/${jobId}/plans/${part.positionId}`)
    .send({ writeId: newId(), version, cataloguePartId: replacement?.id, overrides, ...more });
const tick = (step: string, isDone = true, fittedPartId: string | null = null, stripeDegrees: number | null = 90) =>
  request(test.app)
    .post(`/api/jobs/${jobId}/ticks`)
    .send({
      id: newId(),
      step,
      isDone,
      at: "2026-11-23T11:00:00.000Z",
      items: [{ id: newId(), positionId: part.positionId, fittedPartId, stripeDegrees }],
      clockId: testClock,
      personId: null,
    });

describe("plans", () => {
  it("are made from version 0 and edited from theirs", async () => {
    await plan(0).expect(200);
    await plan(1, { overrides: { ...overrides, ambientCelsius: 45 } }).expect(200);
    expect(((await plan(1).expect(409)).body as Problem).code).toBe("stale_version");
    expect((await load()).plans).toMatchObject([{ version: 2, overrides: { ambientCelsius: 45 }, reasons: {} }]);
    const byHand = { ...overrides, ambientCelsius: 45, leastRatedVolts: 6.3, esrMinOhms: 0.01 };
    await plan(2, { overrides: byHand, reasons: { leastRatedVolts: "the rail measured 5.0 V" } }).expect(200);
    await plan(3, { overrides: byHand, reasons: { part: "the only one in the house" } }).expect(200);
    // A reason stays until it is taken back, one by one.
    await plan(4, { overrides: byHand, reasons: { part: null } }).expect(200);
    expect((await load()).plans).toMatchObject([
      {
        ...{ version: 5, overrides: { leastRatedVolts: 6.3, esrMinOhms: 0.01, capacitanceMinFarads: null } },
        reasons: { leastRatedVolts: "the rail measured 5.0 V", part: null },
      },
    ]);
    await plan(5, { overrides: byHand, reasons: { part: "x".repeat(201) } }).expect(422);
    await plan(5, { overrides: byHand, reasons: { nonsense: "y" } }).expect(422);
  });
  it("refuse a part that is not in the catalogue", async () => {
    await plan(0, { cataloguePartId: newId() }).expect(409);
    expect((await load()).plans).toEqual([]);
  });
});

describe("a plan for another part", () => {
  it("keeps what is known of the old one and what was taken, of its own kind", async () => {
    const componentId = newId();
    const entry = {
      id: componentId,
      kind: "fuse",
      maker: "Vessin",
      typeNumber: "T3",
      ratings: {},
      priceMinor: 20,
    } as const;
    await test.inScope(({ rows }) => rows.catalogueComponents.insert(entry));
    const ratings = [
      { name: "ratedAmps", number: 3.15, word: null },
      { name: "speed", number: null, word: "time-lag" },
    ];
    const component = { kind: "fuse", ratings, componentId };
    await plan(0, { cataloguePartId: null, component }).expect(200);
    expect((await load()).plans).toMatchObject([{ component }]);
    // Another edit of the place leaves it.
    await plan(1, { cataloguePartId: null, reasons: { part: "as strong" } }).expect(200);
    expect((await load()).plans).toMatchObject([{ component, reasons: { part: "as strong" } }]);
    await plan(2, { cataloguePartId: null, component: { ...component, kind: "diode" } }).expect(409);
    await plan(2, { cataloguePartId: null, component: { ...component, componentId: newId() } }).expect(409);
    const wrong = { ...component, ratings: [{ name: "colour", number: 1, word: null }] };
    await plan(2, { cataloguePartId: null, component: wrong }).expect(422);
    await plan(2, { cataloguePartId: null, component: null }).expect(200);
    expect((await load()).plans).toMatchObject([{ component: null }]);
    const found = await request(test.app).get("/api/catalogue/components?kind=fuse").expect(200);
    expect(found.body).toMatchObject([{ typeNumber: "T3" }]);
    await request(test.app).get("/api/catalogue/components?kind=valve").expect(422);
  });
});

describe("a place of another kind", () => {
  const make = async (kind: string) => {
    const position = (await load()).positions.find((one) => one.id === part.positionId);
    const values = { ...editableValues("position", position as object), kind, designator: "X1" };
    part = { ...part, positionId: newId() };
    const changes = [{ table: "position", operation: "insert", id: part.positionId, version: null, values }];
    await request(test.app).post(`/api/jobs/${jobId}/board-edits`).send({ id: newId(), changes }).expect(200);
  };
  const own = async () => (await load()).fittedParts.filter((one) => one.positionId === part.positionId);
  it("goes out and in by what was said of it, and comes back", async () => {
    await make("choke");
    await plan(0, { cataloguePartId: null, otherPart: "the same type" }).expect(200);
    const fitted = newId();
    // What stands there comes out first.
    await tick("fitted", true, fitted).expect(409);
    await tick("removed").expect(201);
    expect(await own()).toMatchObject([{ origin: "found", capacitanceFarads: null, removedAt: expect.any(String) }]);
    await tick("removed").expect(409);
    await tick("fitted", true, fitted).expect(201);
    expect((await own()).find((one) => one.id === fitted)).toMatchObject({
      series: "the same type",
      origin: "replacement",
    });
    await tick("fitted", false).expect(201);
    await tick("removed", false).expect(201);
    expect((await own()).find((one) => one.origin === "found")?.removedAt).toBeNull();
  });
  it("takes type, maker and price of what was chosen, and nothing where nothing was said", async () => {
    await make("fuse");
    await tick("removed").expect(201);
    await tick("fitted", true, newId()).expect(409);
    const id = newId();
    const entry = { id, kind: "fuse", maker: "Vessin", typeNumber: "T4", ratings: {}, priceMinor: 25 } as const;
    await test.inScope(({ rows }) => rows.catalogueComponents.insert(entry));
    await plan(0, { cataloguePartId: null, component: { kind: "fuse", ratings: [], componentId: id } }).expect(200);
    const fitted = newId();
    await tick("fitted", true, fitted).expect(201);
    expect((await own()).find((one) => one.id === fitted)).toMatchObject({
      ...{ maker: "Vessin", series: "T4", orderCode: "T4", priceMinor: 25 },
    });
  });
});

describe("rework ticks", () => {
  it("take the old part out and put the planned one in, as a part of its own", async () => {
    await plan(0).expect(200);
    await tick("removed").expect(201);
    const fitted = newId();
    await tick("fitted", true, fitted).expect(201);
    const { fittedParts } = await load();
    expect(fittedParts.find((one) => one.id === part.partId)?.removedAt).toBe("2026-11-23T11:00:00.000Z");
    expect(fittedParts.find((one) => one.id === fitted)).toMatchObject({
      origin: "replacement",
      removedAt: null,
      capacitanceFarads: replacement?.capacitanceFarads,
      datasheetEsrOhms: replacement?.esrOhms,
      stripeDegrees: 90,
    });
  });
  it("confirm a polarity only over its record: the board's mark or what stands for it, the stripe as it was seen", async () => {
    const { positions } = await load();
    const position = positions.find((one) => one.id === part.positionId);
    const { id, version } = position as (typeof positions)[number];
    const values = editableValues("position", position ?? {});
    const change = { table: "position", operation: "update", id, version };
    const unmarked = [{ ...change, values: { ...values, boardNegativeDegrees: null } }];
    await request(test.app).post(`/api/jobs/${jobId}/board-edits`).send({ id: newId(), changes: unmarked }).expect(200);
    await plan(0).expect(200);
    await tick("removed").expect(201);
    const fitted = newId();
    await tick("fitted", true, fitted, null).expect(201);
    await tick("polarity_board_mark").expect(409);
    await tick("polarity_part_mark", true, null, null).expect(409);
    await tick("polarity_part_mark", true, null, 270).expect(201);
    expect((await load()).fittedParts.find((one) => one.id === fitted)?.stripeDegrees).toBe(270);
    await request(test.app)
      .post(`/api/jobs/${jobId}/acts`)
      .send({
        ...{ id: newId(), kind: "polarity_seen", subjectId: part.positionId, word: "photo", note: null },
        ...{ at: "2026-11-23T11:00:00.000Z", clockId: testClock, personId: null },
      })
      .expect(201);
    await tick("polarity_board_mark").expect(201);
    expect((await load()).ticks.map((one) => one.step)).toEqual([
      "removed",
      "fitted",
      "polarity_part_mark",
      "polarity_board_mark",
    ]);
  });
  it("cannot fit over a part, fit without a plan, or remove twice", async () => {
    await plan(0).expect(200);
    await tick("fitted", true, newId()).expect(409);
    await tick("removed").expect(201);
    await tick("removed").expect(409);
    await plan(1, { cataloguePartId: null }).expect(200);
    await tick("fitted", true, newId()).expect(409);
    expect((await load()).ticks).toHaveLength(1);
  });
  it("can be taken back, newest first, and leave a record", async () => {
    await plan(0).expect(200);
    await tick("removed").expect(201);
    await tick("fitted", true, newId()).expect(201);
    await tick("removed", false).expect(409);
    await tick("fitted", false).expect(201);
    await tick("removed", false).expect(201);
    const { fittedParts, ticks } = await load();
    expect(fittedParts.filter((one) => one.removedAt === null).map((one) => one.id)).toEqual([part.partId]);
    expect(ticks).toHaveLength(4);
  });
  it("do a group all or nothing", async () => {
    const second = await makePart(test.app, jobId, "C2");
    const items = [part.positionId, second.positionId].map((positionId) => ({
      id: newId(),
      positionId,
      fittedPartId: null,
      stripeDegrees: null,
    }));
    const body = {
      id: newId(),
      step: "removed",
      isDone: true,
      at: "2026-11-23T11:00:00.000Z",
      items,
      clockId: null,
      personId: null,
    };
    await tick("removed").expect(201);
    await request(test.app).post(`/api/jobs/${jobId}/ticks`).send(body).expect(409);
    const { fittedParts } = await load();
    expect(fittedParts.find((one) => one.id === second.partId)?.removedAt).toBeNull();
  });
});

describe("a part that lies there", () => {
  const own = {
    capacitanceFarads: 1e-3,
    ratedVolts: 25,
    temperatureClassCelsius: 105,
    capacitorClass: null,
    diameterMetres: 0.01,
    heightMetres: 0.02,
    isNonPolar: false,
    series: null,
    source: "drawer",
  };
  const ownPlan = (version: number, id: string) =>
    plan(version, { cataloguePartId: null, partInHand: { id, ownPart: own } });
  const partOf = async (id: string) => (await load()).fittedParts.find((one) => one.id === id);
  const read = (fittedPartId: string) =>
    request(test.app)
      .post(`/api/jobs/${jobId}/readings`)
      .send(readingBody(part, { fittedPartId, value: 0.041, circuitState: "out" }));

  it("is chosen without any catalogue, read before it goes in, and goes in with its readings", async () => {
    const id = newId();
    await ownPlan(0, id).expect(200);
    expect((await load()).plans).toMatchObject([{ cataloguePartId: null, partInHandId: id, round: 1 }]);
    expect(await partOf(id)).toMatchObject({
      origin: "replacement",
      source: "drawer",
      fittedAt: null,
      removedAt: null,
    });
    await read(id).expect(201);
    await tick("removed").expect(201);
    await tick("fitted", true, newId()).expect(409);
    await tick("fitted", true, id).expect(201);
    expect(await partOf(id)).toMatchObject({ fittedAt: "2026-11-23T11:00:00.000Z", stripeDegrees: 90 });
    await tick("fitted", false).expect(201);
    expect(await partOf(id)).toMatchObject({ fittedAt: null, removedAt: null });
  });
  it("is put aside with its readings when another is chosen, and is no part of the board meanwhile", async () => {
    const [first, second] = [newId(), newId()];
    await ownPlan(0, first).expect(200);
    await read(first).expect(201);
    await ownPlan(1, second).expect(200);
    expect(await partOf(first)).toMatchObject({ fittedAt: null, removedAt: expect.any(String) });
    await plan(2, { cataloguePartId: null, partInHand: null }).expect(200);
    expect(await partOf(second)).toMatchObject({ removedAt: expect.any(String) });
    expect((await load()).readings).toHaveLength(1);
    await tick("removed").expect(201);
    await tick("fitted", true, second).expect(409);
  });
  it("may be a piece of the catalogue part, and stays while its limits are edited", async () => {
    const id = newId();
    await plan(0, { partInHand: { id, ownPart: null } }).expect(200);
    await plan(1, { overrides: { ...overrides, ambientCelsius: 45 } }).expect(200);
    expect((await load()).plans).toMatchObject([{ partInHandId: id }]);
    expect(await partOf(id)).toMatchObject({ capacitanceFarads: replacement?.capacitanceFarads, source: null });
    const both = await plan(2, { partInHand: { id: newId(), ownPart: own } }).expect(422);
    expect((both.body as Problem).errors).toMatchObject([{ path: "partInHand", code: "own_or_catalogue" }]);
  });
});

describe("a second round", () => {
  const stillFaulty = (word = "still_faulty") =>
    request(test.app)
      .post(`/api/jobs/${jobId}/acts`)
      .send({
        ...{ id: newId(), kind: "still_faulty", subjectId: null, word, note: null },
        ...{ at: "2026-11-23T12:00:00.000Z", clockId: testClock, personId: null },
      });
  const standing = async () => (await load()).fittedParts.filter((one) => one.removedAt === null).map((one) => one.id);

  it("takes out what was new in the first, needs a choice of its own, and puts back what stood there", async () => {
    await plan(0).expect(200);
    await tick("removed").expect(201);
    const [first, second] = [newId(), newId()];
    await tick("fitted", true, first).expect(201);
    await tick("removed").expect(409);
    await stillFaulty().expect(201);
    await tick("removed").expect(201);
    expect(await standing()).toEqual([]);
    await tick("fitted", true, second).expect(409);
    await tick("removed", false).expect(201);
    expect(await standing()).toEqual([first]);
    await tick("removed").expect(201);
    await plan(1).expect(200);
    await tick("fitted", true, second).expect(201);
    expect(await standing()).toEqual([second]);
    expect((await load()).plans).toMatchObject([{ round: 2 }]);
  });
  it("was none when it is taken back", async () => {
    await plan(0).expect(200);
    await tick("removed").expect(201);
    await tick("fitted", true, newId()).expect(201);
    await stillFaulty().expect(201);
    await stillFaulty("taken_back").expect(201);
    await tick("removed").expect(409);
  });
});

import type { FamilyGrid, JobDetail } from "@pale-cap/contract";
import { familyGrid, seededRandom } from "@pale-cap/core";
import { sampleJob, samplePart, samplePosition, sampleReading } from "@pale-cap/core/testing";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { generateCatalogue } from "../../database/demo/generateCatalogue";
import type { CataloguePartRow } from "../../database/models/catalogueParts";
import { type MadePart, makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const get = async <T>(path: string) => (await request(test.app).get(path).expect(200)).body as T;
const post = (path: string, body: object) => request(test.app).post(path).send(body);
const grid = (jobId: string) => get<FamilyGrid>(`/api/jobs/${jobId}/family/grid`);

/** A study with one capacitor, and so many units like it. */
async function family(count: number): Promise<{ study: string; part: MadePart; units: readonly string[] }> {
  const study = await makeJob(test.app, { deviceModel: "Counter 2" });
  const part = await makePart(test.app, study, "C17");
  const units = Array.from({ length: count }, () => ({ id: newId(), serial: null }));
  await post(`/api/jobs/${study}/family/units`, { id: newId(), familyName: "counters", units }).expect(201);
  return { study, part, units: units.map((one) => one.id) };
}

async function readC17(jobId: string, value: number): Promise<void> {
  const { positions, fittedParts, nets } = await get<JobDetail>(`/api/jobs/${jobId}`);
  const part = {
    positionId: positions.find((one) => one.designator === "C17")?.id,
    partId: fittedParts[0]?.id,
    netId: nets[0]?.id,
  } as MadePart;
  await post(`/api/jobs/${jobId}/readings`, readingBody(part, { value, circuitState: "out" })).expect(201);
}

describe("units side by side", () => {
  it("stand place by place, and the one that reads apart from its brothers is told, whichever it is", async () => {
    const { study, units } = await family(3);
    const values = [0.05, 0.052, 0.21, 0.056];
    for (const [n, jobId] of [study, ...units].entries()) await readC17(jobId, values[n] as number);
    const { places, units: rows } = await grid(units[0] as string);
    expect(rows.map((one) => one.id)).toEqual([study, ...units]);
    const cells = places.find((one) => one.designator === "C17")?.cells ?? [];
    expect(cells.map((one) => one?.isApart)).toEqual([false, false, true, false]);
    expect(cells[2]?.brothersRatio).toBeCloseTo(0.21 / 0.054, 6);
    expect(cells.map((one) => one?.reading?.value)).toEqual(values);
  });

  it("say nothing of brothers where only one other was read, or another way", () => {
    const unit = (jobId: string, value: number, circuitState: "out" | "in_circuit") => ({
      ...{ jobId, number: 1, judgements: new Map(), lineageOf: () => "C1" },
      facts: sampleJob({
        positions: [samplePosition("C1")],
        fittedParts: [samplePart("C1")],
        readings: [sampleReading("C1", { value, circuitState })],
      }),
    });
    const cellsOf = (units: Parameters<typeof familyGrid>[0]) => familyGrid(units)[0]?.cells ?? [];
    expect(cellsOf([unit("a", 0.05, "out"), unit("b", 0.9, "out")])[1]).toMatchObject({
      brothersRatio: null,
      isApart: false,
    });
    const mixed = [unit("a", 0.05, "out"), unit("b", 0.05, "in_circuit"), unit("c", 0.9, "out")];
    expect(cellsOf(mixed)[2]).toMatchObject({ brothersRatio: null, isApart: false });
    const alike = [unit("a", 0.05, "out"), unit("b", 0.05, "out"), unit("c", 0.9, "out")];
    expect(cellsOf(alike)[2]).toMatchObject({ brothersRatio: 18, isApart: true });
  });

  it("follow a change of the study when they are asked to: board and choice, never polarity, readings or a closed unit", async () => {
    const { study, part, units } = await family(2);
    const [first = "", second = ""] = units;
    await readC17(first, 0.05);
    await test.inScope(async ({ rows }) => {
      const own = await rows.positions.first({ boardId: (await rows.boards.first({ jobId: first }))?.id ?? "" });
      await rows.positions.update({ boardNegativeDegrees: 270 }, { id: own?.id ?? "" });
      await rows.positions.update({ heatSource: "the sink", boardNegativeDegrees: 90 }, { id: part.positionId });
      await rows.replacementPlans.insert({ id: newId(), positionId: part.positionId, isLeftEmpty: true });
      await rows.jobs.update({ handedOverAt: new Date("2026-11-23T11:00:00Z") }, { id: second });
    });
    const before = await grid(study);
    expect(before.units[0]?.behind).toBeNull();
    expect(before.units[1]?.behind).toMatchObject({ places: ["C17"], choices: ["C17"], rails: [] });
    await post(`/api/jobs/${first}/family/follow`, { id: newId(), unitIds: [study] }).expect(409);
    await post(`/api/jobs/${study}/family/follow`, { id: newId(), unitIds: [newId()] }).expect(404);
    await post(`/api/jobs/${study}/family/follow`, { id: newId(), unitIds: [first, second] }).expect(200);
    const followed = await get<JobDetail>(`/api/jobs/${first}`);
    expect(followed.positions[0]).toMatchObject({ heatSource: "the sink", boardNegativeDegrees: 270 });
    expect(followed.plans).toMatchObject([{ isLeftEmpty: true }]);
    expect(followed.readings).toHaveLength(1);
    expect((await get<JobDetail>(`/api/jobs/${second}`)).positions[0]?.heatSource).toBeNull();
    expect((await grid(study)).units[1]?.behind).toMatchObject({ places: [], choices: [], rails: [] });
  });

  it("say what goes in, and what open units still need, against drawers and what is on its way", async () => {
    const [part, other] = generateCatalogue(seededRandom(3)) as [CataloguePartRow, CataloguePartRow];
    const { study, part: made, units } = await family(3);
    const [first = "", second = "", closed = ""] = units;
    const c17 = async (jobId: string) => (await get<JobDetail>(`/api/jobs/${jobId}`)).positions[0]?.id as string;
    const [heapId, orderId, supplierId] = [newId(), newId(), newId()];
    await test.inScope(async ({ rows }) => {
      await rows.catalogueParts.insertAll([part, other]);
      const chosen = { cataloguePartId: part.id };
      await rows.replacementPlans.insert({ id: newId(), positionId: made.positionId, ...chosen });
      await rows.replacementPlans.insert({ id: newId(), positionId: await c17(first), ...chosen });
      await rows.replacementPlans.insert({ id: newId(), positionId: await c17(second), isLeftEmpty: true });
      await rows.replacementPlans.insert({ id: newId(), positionId: await c17(closed), cataloguePartId: other.id });
      await rows.jobs.update({ handedOverAt: new Date("2026-11-23T11:00:00Z") }, { id: closed });
    });
    const values = {
      ...{ drawer: "B3", origin: "distributor", lot: null, dateCode: null },
      receivedOn: null,
      usedHours: null,
    };
    const heap = { id: heapId, cataloguePartId: part.id, marking: null, values: { ...values, note: null }, count: 3 };
    await post("/api/stock", { ...heap, personId: null }).expect(201);
    const supplier = { name: "Brackwater Parts", shippingMinor: 0, freeFromMinor: null, days: 2, isUsed: true };
    await post("/api/suppliers", { id: supplierId, values: supplier }).expect(201);
    const lines = [{ id: newId(), cataloguePartId: part.id, count: 5, unitMinor: 7 }];
    await post("/api/orders", { id: orderId, supplierId, note: null, personId: null, lines }).expect(201);
    const label = expect.stringContaining(`${part.maker} ${part.series}`);
    const found = await grid(study);
    expect(found.goesIn[0]).toEqual([label, label, "left empty", expect.stringContaining(other.maker)]);
    const need = { cataloguePartId: part.id, label, neededCount: 2, places: ["C17"], freeCount: 3, orderedCount: 5 };
    expect(found.needs).toEqual([need]);
    // What is in is needed no more, unless it came out again or lies beside its place.
    const fitted = { origin: "replacement" as const, cataloguePartId: part.id, version: 1, stripeDegrees: null };
    const now = new Date("2026-11-23T11:30:00Z");
    const put = async (jobId: string, more: object) => {
      const positionId = await c17(jobId);
      await test.inScope(async ({ rows }) => {
        await rows.fittedParts.update({ removedAt: now }, { positionId, origin: "found" });
        await rows.fittedParts.insert({ ...fitted, id: newId(), positionId, ...more });
      });
    };
    await put(study, { fittedAt: now, removedAt: null });
    await put(first, { fittedAt: now, removedAt: now });
    expect((await grid(study)).needs).toMatchObject([{ neededCount: 1 }]);
  });

  it("is a unit by itself without a family", async () => {
    const alone = await makeJob(test.app);
    await makePart(test.app, alone, "C1");
    const found = await grid(alone);
    expect([found.name, found.units.map((one) => one.id), found.units[0]?.behind]).toEqual([null, [alone], null]);
    expect(found.places.map((one) => one.designator)).toEqual(["C1"]);
    expect(await get(`/api/jobs/${alone}/family`)).toEqual({ name: null, units: [], findings: [] });
  });

  it("take a brother that is known to be good as the baseline of the others", async () => {
    const { study, units } = await family(1);
    await readC17(study, 0.05);
    await test.inScope(async ({ sql }) => {
      await sql(
        "UPDATE jobs SET intake_details = jsonb_set(intake_details, '{isKnownGood}', 'true') WHERE id = $1 RETURNING id",
        [study],
      );
    });
    const { baseline } = await get<JobDetail>(`/api/jobs/${units[0]}`);
    expect(baseline).toMatchObject([{ designator: "C17", typical: 0.05, isKnownGood: true }]);
    expect((await get<JobDetail>(`/api/jobs/${study}`)).baseline).toEqual([]);
  });
});

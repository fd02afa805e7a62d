import request from "supertest";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { HttpProblem } from "../http/problems";
import { catalogueEntry, makeHeap } from "../testing/stock";
import { makeJob, makePart, newId, openTestApp, type TestApp } from "../testing/testApp";
import { canTake, freeItemOf, moveStock, releaseJob, releaseOf, reserveFor, type StockMove } from "./stock";

let test: TestApp;
let itemId: string;
const places: string[] = [];
const jobs: string[] = [];

beforeAll(async () => {
  test = await openTestApp();
  for (const designator of ["C1", "C2", "C3"]) {
    const jobId = await makeJob(test.app);
    jobs.push(jobId);
    places.push((await makePart(test.app, jobId, designator)).positionId);
  }
  const marking = {
    ...{ capacitanceFarads: 1e-3, ratedVolts: 25, temperatureClassCelsius: 105, capacitorClass: "lowz" },
    ...{ diameterMetres: 0.01, heightMetres: 0.02, pitchMetres: 0.005, series: "Tern" },
  };
  itemId = await makeHeap(test.app, { marking, count: 4 });
});
afterAll(() => test.close());

/** What it said where it was refused; null where it moved. */
const moved = (move: Partial<StockMove>) =>
  test
    .inScope((scope) => moveStock(scope, { itemId, kind: "fitted", pieces: 1, ...move }))
    .then(
      () => null,
      (problem: HttpProblem) => problem.detail,
    );
const canBeTaken = (n: number) => test.inScope((scope) => canTake(scope, itemId, places[n] as string));

it("refuses what cannot be moved in the words of its case, and says to which places of which jobs the rest is promised", async () => {
  expect(await moved({ pieces: 0 })).toBe("So many pieces cannot be moved. Nothing was changed.");
  expect(await moved({ kind: "scrapped", pieces: 5 })).toBe("Only 4 lie there. Nothing was changed.");
  expect(await moved({ kind: "released", positionId: places[0] as string })).toBe(
    "None of it is promised to this place. Nothing was changed.",
  );
  expect(await moved({ itemId: newId() })).toBe("These parts are in no drawer any more.");
  await test.inScope((scope) => reserveFor(scope, itemId, places[1] as string));
  await test.inScope((scope) => reserveFor(scope, itemId, places[0] as string));
  expect(await moved({ kind: "scrapped", pieces: 3 })).toBe(
    "Only 2 of it are free: the rest is promised to job 0001 C1, job 0002 C2. Nothing was changed.",
  );
  await test.inScope((scope) => reserveFor(scope, itemId, places[2] as string));
  expect(await moved({ pieces: 2 })).toMatch(/^Only 1 of it is free: .* job 0002 C2, job 0003 C3\. Nothing/);
  expect(await moved({ kind: "scrapped" })).toBeNull();
  expect(await moved({})).toMatch(/^None of it is free: it is promised to job 0001 C1/);
});

it("lets a place take what is promised to it, and gives the promise back with the place or the whole job", async () => {
  // Three are left, each promised to one place.
  const elsewhere = (await makePart(test.app, await makeJob(test.app), "C8")).positionId;
  places.push(elsewhere);
  expect([await canBeTaken(0), await canBeTaken(3)]).toEqual([true, false]);
  await test.inScope((scope) => releaseOf(scope, places[2] as string));
  expect(await canBeTaken(3)).toBe(true);
  // Nothing is promised there any more: nothing more is given back.
  await test.inScope((scope) => releaseOf(scope, places[2] as string));
  await test.inScope((scope) => releaseJob(scope, jobs[1] as string));
  expect(await moved({ pieces: 2 })).toBeNull();
  expect([await canBeTaken(0), await canBeTaken(1), await canBeTaken(3)]).toEqual([true, false, false]);
  expect(await moved({ positionId: places[0] as string })).toBeNull();
  const kinds = await test.inScope(({ rows }) => rows.stockMovements.all({ itemId }, [["sequence", "ASC"]]));
  expect(kinds.map((one) => [one.kind, one.countDelta, one.reservedDelta])).toEqual([
    ["received", 4, 0],
    ["reserved", 0, 1],
    ["reserved", 0, 1],
    ["reserved", 0, 1],
    ["scrapped", -1, 0],
    ["released", 0, -1],
    ["released", 0, -1],
    ["fitted", -2, 0],
    ["fitted", -1, -1],
  ]);
});

it("takes the oldest heap that has a piece free, one that may hold charge only where no other has", async () => {
  const partId = newId();
  await test.inScope(({ rows }) => rows.catalogueParts.insert({ ...catalogueEntry, id: partId }));
  const heap = () => makeHeap(test.app, { cataloguePartId: partId });
  const [charged, taken, drained, apart] = [await heap(), await heap(), await heap(), await heap()];
  const act = { volts: null, seconds: null, riseKelvin: null, frequencyHertz: null, note: null, personId: null };
  const done = (id: string, kind: string, value: number) =>
    request(test.app)
      .post(`/api/stock/${id}/acts`)
      .send({ ...act, id: newId(), kind, value })
      .expect(201);
  await done(charged, "volts_read", 60);
  await done(drained, "volts_read", 60);
  const free = () => test.inScope((scope) => freeItemOf(scope, partId));
  expect(await free()).toBe(taken);
  await test.inScope((scope) => reserveFor(scope, taken, places[0] as string));
  expect(await free()).toBe(apart);
  await test.inScope(({ sql }) =>
    sql("UPDATE stock_items SET set_aside_reason = 'read low' WHERE id = $1 RETURNING id", [apart]),
  );
  expect(await free()).toBe(charged);
  await done(drained, "drained", 1000);
  for (const _ of [1, 2]) await done(drained, "volts_read", 0.4);
  expect(await free()).toBe(drained);
  expect(await test.inScope((scope) => freeItemOf(scope, newId()))).toBeNull();
});

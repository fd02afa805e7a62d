import { gzipSync } from "node:zlib";
import type { CataloguePage, CatalogueReach, ImportOutcome, Problem, ReachedParts } from "@pale-cap/contract";
import {
  type FileMapping,
  mapComponentHeader,
  mapHeader,
  readCatalogueRow,
  readComponentRow,
  seededRandom,
} from "@pale-cap/core";
import Papa from "papaparse";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { generateCatalogue } from "../../database/demo/generateCatalogue";
import { makeHeap } from "../../testing/stock";
import { newId, openTestApp, type TestApp } from "../../testing/testApp";

const entries = generateCatalogue(seededRandom(3))
  .slice(0, 40)
  .map(({ id: _, source: __, ...entry }) => entry);
let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const take = (rows: readonly object[], more: object = {}) =>
  request(test.app)
    .post("/api/catalogue/imports")
    .field("about", JSON.stringify({ id: newId(), source: "list.csv", rowCount: rows.length, personId: null, ...more }))
    .attach("catalogue", gzipSync(JSON.stringify(rows)), "rows.json.gz");
const takeOther = (rows: readonly object[]) =>
  request(test.app)
    .post("/api/catalogue/components/imports")
    .field("about", JSON.stringify({ id: newId(), source: "list.csv", rowCount: rows.length, personId: null }))
    .attach("catalogue", gzipSync(JSON.stringify(rows)), "rows.json.gz");
const search = async (query = "") =>
  (await request(test.app).get(`/api/catalogue${query}`).expect(200)).body as CataloguePage;

describe("taking a file in", () => {
  it("adds what is new, changes what differs, and says what", async () => {
    const first = (await take(entries).expect(201)).body as ImportOutcome;
    expect(first).toMatchObject({ addedCount: 40, changedCount: 0, sameCount: 0 });
    const [one, ...rest] = entries;
    const dearer = { ...one, priceMinor: (one?.priceMinor ?? 0) + 5, maker: one?.maker.toUpperCase() };
    const second = (await take([dearer, ...rest]).expect(201)).body as ImportOutcome;
    expect(second).toMatchObject({ addedCount: 0, changedCount: 1, sameCount: 39 });
    expect(second.changes).toMatchObject([
      {
        orderCode: one?.orderCode,
        fields: [{ name: "priceMinor", before: one?.priceMinor, after: (one?.priceMinor ?? 0) + 5 }],
      },
    ]);
    expect((await search()).totalCount).toBe(40);
  });
  it("stores nothing of a file with one impossible part, a doubled one or a false count", async () => {
    const fresh = { ...entries[0], orderCode: "NEW-1" } as (typeof entries)[number];
    const bad = [
      [fresh, { ...fresh, orderCode: "NEW-2", esrOhms: 0 }],
      [fresh, { ...fresh, orderCode: "NEW-2", capacitanceFarads: 1, ratedVolts: 400, diameterMetres: 0.005 }],
      [fresh, { ...fresh, orderCode: "NEW-2", priceMinor: 1.5 }],
      [fresh, { ...fresh, orderCode: "NEW-2", capacitorClass: "wet" }],
      [fresh, { ...fresh, orderCode: " new-1 " }],
      [fresh, { ...fresh, orderCode: "" }],
      [fresh, { ...fresh, orderCode: "NEW-2", printed: { frequencyHertz: "x" } }],
    ];
    for (const rows of bad) {
      const refused = await take(rows).expect(422);
      expect((refused.body as Problem).detail).toMatch(/Row 2|second time/);
    }
    await take([fresh], { rowCount: 2 }).expect(422);
    const text = await request(test.app)
      .post("/api/catalogue/imports")
      .field("about", JSON.stringify({ id: newId(), source: "x", rowCount: 1, personId: null }))
      .attach("catalogue", Buffer.from("maker,series"), "rows.csv");
    expect(text.status).toBe(422);
    await take([], { rowCount: 0 }).expect(422);
    expect((await search()).totalCount).toBe(40);
  });
  it("takes other parts by kind, maker and type, all or none, and says what a second file changes", async () => {
    const one = { kind: "fuse", maker: "Ostrel", typeNumber: "T4A", ratings: { ratedAmps: 4, speed: "slow" } };
    const fuse = { ...one, priceMinor: 30 };
    const bad = [
      { ...fuse, typeNumber: "T5A", ratings: { ratedAmps: 0 } },
      { ...fuse, typeNumber: "T5A", ratings: { onOhms: 1 } },
      { ...fuse, typeNumber: "T5A", ratings: { speed: 3 } },
      { ...fuse, kind: "y_capacitor", ratings: { safetyClass: "Y7" } },
      { ...fuse, typeNumber: " t4a " },
      { ...fuse, typeNumber: "=T5A" },
      { ...fuse, typeNumber: "T5A", priceMinor: -1 },
    ];
    for (const row of bad) await takeOther([fuse, row]).expect(422);
    expect((await takeOther([fuse]).expect(201)).body).toMatchObject({ addedCount: 1, changedCount: 0 });
    const dearer = { ...fuse, maker: "OSTREL", ratings: { ratedAmps: 4, speed: "quick" }, priceMinor: 35 };
    const again = (await takeOther([dearer]).expect(201)).body as ImportOutcome;
    expect(again).toMatchObject({ addedCount: 0, changedCount: 1, sameCount: 0 });
    expect(again.changes[0]?.fields).toEqual([
      { name: "speed", before: "slow", after: "quick" },
      { name: "priceMinor", before: 30, after: 35 },
    ]);
    const csv = (await request(test.app).get("/api/catalogue/components/export").expect(200)).text;
    const [headers = [], ...rows] = Papa.parse<string[]>(csv).data;
    const read = rows.map((cells) => readComponentRow(cells, headers.map(mapComponentHeader), 100));
    const back = read.flatMap((row) => ("entry" in row ? [row.entry] : []));
    expect(back).toHaveLength(1);
    expect((await takeOther(back).expect(201)).body).toMatchObject({ changedCount: 0, sameCount: 1 });
  });
  it("comes back out as a file that changes nothing when it is taken in again", async () => {
    const csv = (await request(test.app).get("/api/catalogue/export").expect(200)).text;
    const { data } = Papa.parse<string[]>(csv);
    const [headers = [], ...rows] = data;
    const mapping: FileMapping = { columns: headers.map(mapHeader), decimalMark: ".", minorPerUnit: 100 };
    const back = rows.map((cells) => {
      const read = readCatalogueRow(cells, mapping);
      if ("faults" in read) throw new Error(JSON.stringify(read.faults));
      return read.entry;
    });
    expect((await take(back).expect(201)).body).toMatchObject({ addedCount: 0, changedCount: 0, sameCount: 40 });
  });
});

describe("looking through it", () => {
  it("finds letters of a name, a value and volts, one class, and what lies in a drawer", async () => {
    const all = (await search()).rows;
    const sample = all[5] as (typeof all)[number];
    const farads = `${Number((sample.capacitanceFarads * 1e6).toPrecision(3))}u`;
    const byValue = await search(`?text=${farads}%20${sample.ratedVolts}V`);
    const alike = all.filter(
      (one) => one.capacitanceFarads === sample.capacitanceFarads && one.ratedVolts === sample.ratedVolts,
    );
    expect(byValue.foundCount).toBe(alike.length);
    expect((await search(`?text=${sample.orderCode.toLowerCase()}`)).rows.map((one) => one.id)).toContain(sample.id);
    expect((await search("?text=100%25")).foundCount).toBe(0);
    expect((await search(`?capacitorClass=polymer`)).foundCount).toBe(
      all.filter((one) => one.capacitorClass === "polymer").length,
    );
    expect((await search("?isInDrawer=true")).foundCount).toBe(0);
    await request(test.app).get("/api/catalogue?capacitorClass=wet").expect(422);
    expect((await search("?offset=39")).rows).toHaveLength(1);
  });
  it("reaches only what no limit turns down, and says how many there are in all", async () => {
    const all = (await search()).rows;
    const open: CatalogueReach = {
      ...{ leastFarads: null, mostFarads: null, leastVolts: null, leastClassCelsius: null, mostDiameterMetres: null },
      ...{ mostHeightMetres: null, mostEsrOhms: null, leastRippleAmps: null, isLowEsrOnly: false },
      ...{ rippleAmps: null, mostCount: 4000 },
    };
    const reach = async (limits: Partial<CatalogueReach>) => {
      const query = Object.entries({ ...open, ...limits }).map(([name, value]) => `${name}=${value ?? ""}`);
      return (
        await request(test.app)
          .get(`/api/catalogue/reach?${query.join("&")}`)
          .expect(200)
      ).body as ReachedParts;
    };
    expect(await reach({})).toMatchObject({ totalCount: 40, isCut: false });
    const middle = all[20] as (typeof all)[number];
    const limits: readonly [Partial<CatalogueReach>, (one: (typeof all)[number]) => boolean][] = [
      [{ leastFarads: middle.capacitanceFarads }, (one) => one.capacitanceFarads >= middle.capacitanceFarads],
      [{ mostFarads: middle.capacitanceFarads }, (one) => one.capacitanceFarads <= middle.capacitanceFarads],
      [{ leastVolts: 10 }, (one) => one.ratedVolts >= 10],
      [{ leastClassCelsius: 106 }, (one) => one.temperatureClassCelsius >= 106],
      [{ mostDiameterMetres: middle.diameterMetres }, (one) => one.diameterMetres <= middle.diameterMetres],
      [{ mostHeightMetres: middle.heightMetres }, (one) => one.heightMetres <= middle.heightMetres],
      [{ mostEsrOhms: middle.esrOhms }, (one) => one.esrOhms <= middle.esrOhms],
      [{ leastRippleAmps: middle.rippleAmpsRms }, (one) => one.rippleAmpsRms >= middle.rippleAmpsRms],
      [{ isLowEsrOnly: true }, (one) => one.capacitorClass !== "gp"],
    ];
    for (const [limit, holds] of limits) {
      const found = (await reach(limit)).parts.map((one) => one.id).sort();
      expect(found).toEqual(
        all
          .filter(holds)
          .map((one) => one.id)
          .sort(),
      );
    }
  });
  it("sends the longest lived, the cheapest and what lies in a drawer where more are within reach", async () => {
    const all = (await search()).rows;
    await test.inScope(async ({ rows }) => {
      const dull = all.map(({ stockCount: _, ...part }, n) => ({
        ...part,
        id: newId(),
        orderCode: `D${n}`,
        priceMinor: 999,
      }));
      for (let n = 0; n < 8; n++) {
        await rows.catalogueParts.insertAll(
          dull.map((one, at) => ({ ...one, id: newId(), orderCode: `D${n} ${at}`, ratedLifeHours: 500 })),
        );
      }
    });
    const [dull] = await test.inScope(({ rows }) => rows.catalogueParts.all({ orderCode: "D3 7" }, [["id", "ASC"]]));
    await makeHeap(test.app, { cataloguePartId: dull?.id, count: 3 });
    const bounds = "leastFarads=&mostFarads=&leastVolts=&leastClassCelsius=&mostDiameterMetres=&mostHeightMetres=";
    const ask = (mostCount: number) =>
      request(test.app).get(
        `/api/catalogue/reach?${bounds}&mostEsrOhms=&leastRippleAmps=&rippleAmps=1&isLowEsrOnly=false&mostCount=${mostCount}`,
      );
    const { parts, isCut } = (await ask(5).expect(200)).body as ReachedParts;
    expect(isCut).toBe(true);
    expect(parts.length).toBeLessThanOrEqual(105);
    const endurance = ({ ratedLifeHours, temperatureClassCelsius, rippleAmpsRms }: (typeof parts)[number]) =>
      Math.log(ratedLifeHours) + (Math.LN2 / 10) * (temperatureClassCelsius - 5 / rippleAmpsRms ** 2);
    const best = [...all].sort((a, b) => endurance(b) - endurance(a))[0];
    const cheapest = [...all].sort((a, b) => a.priceMinor - b.priceMinor)[0];
    expect(parts.map((one) => one.id)).toEqual(expect.arrayContaining([best?.id, cheapest?.id]));
    expect(parts.filter((one) => one.stockCount > 0).map((one) => [one.id, one.stockCount])).toContainEqual([
      dull?.id,
      3,
    ]);
    expect((await ask(0)).status).toBe(422);
  });
  it("counts what is near but for a limit that no reason overrides", async () => {
    const all = (await search()).rows;
    const near = { leastFarads: null, mostFarads: 1e-4 };
    const query = `leastFarads=&mostFarads=${near.mostFarads}&leastVolts=10&leastClassCelsius=106&isLowEsrOnly=true`;
    const rest = "&mostDiameterMetres=&mostHeightMetres=&mostEsrOhms=&leastRippleAmps=&rippleAmps=&mostCount=9";
    const found = (await request(test.app).get(`/api/catalogue/reach?${query}${rest}`).expect(200))
      .body as ReachedParts;
    const inside = all.filter((one) => one.capacitanceFarads <= near.mostFarads);
    const count = (holds: (one: (typeof all)[number]) => boolean) => inside.filter(holds).length;
    expect(found.refused).toEqual({
      voltsCount: count((one) => one.ratedVolts < 10),
      classCount: count((one) => one.temperatureClassCelsius < 106),
      notLowEsrCount: count((one) => one.capacitorClass === "gp"),
    });
    expect(found.refused.classCount).toBeGreaterThan(0);
  });
  it("gives parts by their ids", async () => {
    const [one, two] = (await search()).rows;
    const found = await request(test.app).get(`/api/catalogue/parts?ids=${one?.id},${two?.id}`).expect(200);
    expect((found.body as { id: string }[]).map((row) => row.id).sort()).toEqual([one?.id, two?.id].sort());
    expect((await request(test.app).get("/api/catalogue/parts?ids=").expect(200)).body).toEqual([]);
    await request(test.app).get("/api/catalogue/parts?ids=x").expect(422);
  });
});

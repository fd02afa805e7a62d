import type { ChangeLine, KindPage, QualityPage, SeriesPage } from "@pale-cap/contract";
import { betaInterval } from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { foldSummaries } from "../../../summaries/foldSummaries";
import { markStale } from "../../../summaries/markStale";
import { openTestApp, type TestApp } from "../../../testing/testApp";
import { openDatabase } from "../../database";
import { loadDemoShop } from "../loadDemoShop";
import { loadPast } from "./loadPast";
import { pastRows } from "./pastRows";
import { simulatePast } from "./simulatePast";
import { badLot, goodLots, pastModels, switchAfterOutput, trueSeries } from "./truth";

let test: TestApp;
const now = new Date("2026-11-23T12:00:00Z");
beforeAll(async () => {
  test = await openTestApp({}, "demo");
  const owner = openDatabase(test.urls.owner, "demo", 1);
  await loadDemoShop(owner, now);
  await owner.close();
  expect(await Promise.all([loadPast(test.urls.owner, now), loadPast(test.urls.owner, now)])).toContain(true);
});
afterAll(() => test.close());

const get = async <T>(path: string) => (await request(test.app).get(path).expect(200)).body as T;
const kind = (maker: string, model: string) =>
  get<KindPage>(`/api/casebook/kind?maker=${encodeURIComponent(maker)}&model=${encodeURIComponent(model)}`);
const series = (name: string, more = "") =>
  get<SeriesPage>(`/api/casebook/series/one?series=${encodeURIComponent(name)}${more}`);
const against = (name: string) => `&against=${encodeURIComponent(name)}`;

describe("the casebook over a past whose truth is known", () => {
  it("finds the weak series to live shorter than each other, and two that live alike not apart", async () => {
    const { midge, lark, heron, stoat, gannet } = trueSeries;
    for (const other of [lark, heron, stoat, gannet]) {
      const page = await series(midge.name, `&warmth=free${against(other.name)}`);
      expect(page.against?.shorterProbability, other.name).toBeGreaterThan(0.95);
    }
    const alike = await series(lark.name, `&warmth=free${against(heron.name)}`);
    expect(alike.against?.shorterProbability).toBeGreaterThan(0.05);
    expect(alike.against?.shorterProbability).toBeLessThan(0.95);
  });

  it("holds the true life of every series within its band", async () => {
    for (const { name, etaHours, beta } of Object.values(trueSeries)) {
      const { life } = (await series(name, "&warmth=free")).life;
      if (typeof life === "string") throw new Error(`${name}: ${life}`);
      const tenPercent = etaHours * (-Math.log(0.9)) ** (1 / beta);
      expect(life.tenPercentLowHours, name).toBeLessThan(tenPercent);
      expect(life.tenPercentHighHours, name).toBeGreaterThan(tenPercent);
    }
  });

  it("finds the bad lot among those that were fitted, and no other", async () => {
    const { lots } = await series("Brook");
    expect(lots.filter((one) => one.isWorse).map((one) => one.lot)).toEqual([badLot.lot]);
    expect(lots.map((one) => one.lot)).toEqual(expect.arrayContaining([...goodLots]));
  });

  it("finds what a symptom really comes from in a model where the trade would look elsewhere", async () => {
    const { symptoms, causes, shownCount } = await kind("Brambix", "Vesper 27");
    expect(symptoms.find((one) => one.symptom === "repeated_attempts")?.cause).toBe("control_capacitor_dried");
    const truth = simulatePast().filter(
      (unit) =>
        unit.model.model === "Vesper 27" &&
        unit.outcome === "repaired" &&
        unit.capacitors.some((one) => one.hasFailed && one.section === "vcc"),
    ).length;
    const found = causes.find((one) => one.fault === "control_capacitor_dried");
    expect(found?.count).toBeGreaterThan(0.8 * truth);
    expect(found?.count).toBeLessThanOrEqual(truth);
    expect(shownCount).toBeGreaterThan(15);
  });

  it("learns what the transistor does after dried outputs, beside what the trade says", async () => {
    const changes = await get<ChangeLine[]>("/api/casebook/changes");
    const found = changes.find(
      (one) => one.kind === "causes" && one.fault === "output_capacitors_dried" && one.other === "switch_shorted",
    ) as ChangeLine;
    const { lowRatio, highRatio } = betaInterval(found.count, found.total, { confidence: 0.95 });
    expect(lowRatio).toBeLessThan(switchAfterOutput);
    expect(highRatio).toBeGreaterThan(switchAfterOutput);
    expect(found.defaultProbability).toBeCloseTo(0.035, 6);
    expect(found.probability).toBeGreaterThan(2 * found.defaultProbability);
  });

  it("counts what came back, of the whole shop and of one person", async () => {
    const { comebacks } = await get<QualityPage>("/api/casebook/quality");
    const units = simulatePast();
    expect(comebacks.count).toBe(units.filter((one) => one.returnOf !== null).length);
    expect(comebacks.total).toBe(units.filter((one) => one.outcome === "repaired").length);
    const people = await get<readonly { id: string }[]>("/api/people");
    const own = await Promise.all(people.map(({ id }) => get<QualityPage>(`/api/casebook/quality?person=${id}`)));
    expect(own.reduce((sum, one) => sum + one.comebacks.total, 0)).toBe(comebacks.total);
    expect(own.every((one) => one.comebacks.total > 50)).toBe(true);
  });

  it("calls no place worse than its like in models that have nothing of their own", async () => {
    for (const { maker, model } of pastModels.filter((one) =>
      ["Solo brick", "Logger 16", "Terrace 50"].includes(one.model),
    )) {
      const warmed = pastModels.find((one) => one.model === model)?.warmed ?? [];
      const loud = (await kind(maker, model)).places.filter((one) => one.standsOut && !warmed.includes(one.place));
      expect(
        loud.map((one) => one.place),
        model,
      ).toEqual([]);
    }
    const { places } = await kind("Brambix", "Halden 24");
    expect(places.filter((one) => one.standsOut).map((one) => one.place)).toEqual(
      expect.arrayContaining(["C21", "C22"]),
    );
  });

  it("is what folding its jobs gives, and the same under its seed", async () => {
    const jobs = pastRows(now, []).get("jobs") ?? [];
    const sample = jobs.filter((_, n) => n % 58 === 7).map((job) => job.id as string);
    const read = () =>
      test.inScope(async ({ rows }) => ({
        jobs: await rows.closedJobs.all({ jobId: sample }, [["number", "ASC"]]),
        findings: await rows.closedFindings.all({ jobId: sample }, [["positionId", "ASC"]]),
      }));
    const before = await read();
    expect(before.jobs).toHaveLength(sample.length);
    await test.inScope(async (scope) => {
      for (const id of sample) await markStale(scope, id);
    });
    while (await foldSummaries(test.database, now));
    expect(JSON.parse(JSON.stringify(await read()))).toEqual(JSON.parse(JSON.stringify(before)));
    expect(pastRows(now, [])).toEqual(pastRows(now, []));
  });
});

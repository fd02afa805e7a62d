import { type BenchLine, foldHouseRules, jobFacts, jobRules } from "@pale-cap/contract";
import {
  canImpedance,
  compareComponents,
  componentRatings,
  entryDoubts,
  entryKey,
  expectedEsr,
  hasPolymer,
  judgeBoard,
  seededRandom,
} from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loadJob } from "../../records/loadJobs";
import { benchLines, openTestApp, type TestApp } from "../../testing/testApp";
import { openDatabase } from "../database";
import { generateCatalogue } from "./generateCatalogue";
import { generateComponents } from "./generateComponents";
import { knownDemoJobIds } from "./knownDemoJobs";
import { loadDemoShop } from "./loadDemoShop";

describe("the invented catalogue", () => {
  const catalogue = generateCatalogue(seededRandom(20261123));

  it("holds at least 600 parts and is the same under the same seed", () => {
    expect(catalogue.length).toBeGreaterThanOrEqual(600);
    expect(generateCatalogue(seededRandom(20261123))).toEqual(catalogue);
    expect(new Set(catalogue.map((part) => part.id)).size).toBe(catalogue.length);
  });

  it("takes ESR and ripple of every part from its can, as core computes them", () => {
    for (const part of catalogue) {
      const question = { ...part, frequencyHertz: 100e3, temperatureCelsius: 20 };
      expect(part.esrOhms / expectedEsr(question).highOhms).toBeCloseTo(1, 2);
      const { capacitorClass } = part;
      if (hasPolymer(capacitorClass) || part.ratedVolts > 100) continue;
      expect(part.rippleAmpsRms / canImpedance({ ...part, capacitorClass }).ratedRippleAmpsRms).toBeCloseTo(1, 2);
    }
  });

  it("would be taken in as a file, each part once", () => {
    expect(catalogue.filter((part) => entryDoubts(part).length > 0)).toEqual([]);
    expect(new Set(catalogue.map(entryKey)).size).toBe(catalogue.length);
  });

  it("never puts more C and V into a can than its series can hold", () => {
    for (const part of catalogue) {
      const volume = (Math.PI * (part.diameterMetres * 100) ** 2 * part.heightMetres * 100) / 4;
      expect((part.capacitanceFarads * part.ratedVolts) / volume).toBeLessThan(0.0205);
    }
  });
});

describe("the invented other parts", () => {
  const components = generateComponents(seededRandom(1));
  it("are some three hundred, each kind with every rating that matters of it, told apart by their names", () => {
    expect(components.length).toBeGreaterThanOrEqual(290);
    for (const { kind, ratings } of components) {
      expect(componentRatings[kind].filter(({ name }) => ratings[name] == null)).toEqual([]);
    }
    const names = components.map((one) => `${one.kind} ${one.typeNumber}`);
    expect(names.length - new Set(names).size).toBeLessThan(3);
    for (const one of components) expect(compareComponents(one.kind, one.ratings, one.ratings).verdict).toBe("fits");
  });
});

describe("the demo shop", () => {
  let test: TestApp;
  beforeAll(async () => {
    test = await openTestApp({}, "demo");
  });
  afterAll(() => test.close());
  const everyLine = async () => [...(await benchLines(test)), ...(await benchLines(test, "?state=closed"))];

  it("fills an empty database once, even when two starts meet", async () => {
    const now = new Date("2026-11-23T12:00:00Z");
    const owners = [openDatabase(test.urls.owner, "demo", 1), openDatabase(test.urls.owner, "demo", 1)];
    const loads = await Promise.all(owners.map((owner) => loadDemoShop(owner, now)));
    await Promise.all(owners.map((owner) => owner.close()));
    expect(loads.sort()).toEqual([false, true]);
    const lines = await everyLine();
    expect(lines.length).toBeGreaterThanOrEqual(5);
    expect(new Set(lines.map((line) => line.lens)).size).toBeGreaterThanOrEqual(5);
    expect(lines.map((line) => line.chargeName)).toEqual(expect.arrayContaining(["charged", "verified"]));
  });

  it("goes on numbering jobs after its own", async () => {
    const lines = await everyLine();
    const body = {
      id: "0190a5b0-0000-7000-8000-0000000000aa",
      deviceKind: "other",
      deviceMaker: null,
      deviceModel: null,
      complaint: null,
      personId: null,
    };
    const made = await request(test.app).post("/api/jobs").send(body).expect(201);
    expect(made.body.job.number).toBe(Math.max(...lines.map((line) => line.number)) + 1);
    expect(await test.inScope(({ rows }) => rows.jobs.count({ realm: "demo" }))).toBe(lines.length + 1);
    expect(await test.inScope(({ rows }) => rows.jobs.count({ realm: "shop" }))).toBe(0);
  });

  it("has only jobs that a later version knows for its own", async () => {
    const lines = (await everyLine()).filter((line) => line.complaint !== null || line.deviceModel !== null);
    expect(lines.filter((line) => !knownDemoJobIds.has(line.id)).map((line) => line.id)).toEqual([]);
  });

  it("shows every verdict word on the monitor's board", async () => {
    const lines = await everyLine();
    const monitor = lines.find((line) => line.deviceModel === "Halden 24") as BenchLine;
    const detail = await test.inScope((scope) => loadJob(scope, monitor.id));
    const judgements = judgeBoard(jobFacts(detail), jobRules(foldHouseRules([])).judgement);
    const words = new Set([...judgements.values()].map((one) => one.verdict));
    expect(words).toEqual(new Set(["sound", "worn", "failed", "cannot_tell", "not_measured"]));
  });
});

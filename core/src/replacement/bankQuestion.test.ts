import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleRules } from "../../testing/sampleJob";
import { chooseBank } from "./bankChoice";
import { bankOfTwoKinds } from "./bankOfTwoKinds";
import { asCandidate, bankCandidates, bankParts, bankQuestion } from "./bankQuestion";
import type { CataloguePart } from "./rankReplacements";
import { noOverrides, type Requirement, type RequirementOverrides, replacementRequirement } from "./requirement";
import { type SharedPlace, sharedQuestions } from "./sharedPlace";
import type { Surroundings } from "./surroundings";

const net = sampleNet();
const positions = [
  samplePosition("C1", { xMetres: 0.02 }),
  samplePosition("C2", { xMetres: 0.0335 }),
  samplePosition("C3", { xMetres: 0.045 }),
];
const around: Surroundings = {
  facts: sampleJob({
    nets: [net],
    positions,
    fittedParts: ["C1", "C2", "C3"].map((one) => samplePart(one)),
    readings: [],
  }),
  ...{ chosen: new Map(), emptyIds: new Set(), rail: sampleRules.rail, mainsHertz: 50 },
  lid: { lidHeightMetres: 0.03, lidZones: [] },
};
const need = (name: string, more: Partial<RequirementOverrides> = {}) => {
  const position = positions.find((one) => one.designator === name) as (typeof positions)[number];
  const question = { position, part: samplePart(name), net, voltageSchool: "both", around } as const;
  return { position, requirement: replacementRequirement(question, { ...noOverrides, ...more }) as Requirement };
};
const free = { esrMaxOhms: 0.05, esrMinOhms: 0.001, rippleAmpsRms: 0.5 };
const pair = () => [need("C1", free), need("C2", free)];
const part = (id: string, more: Partial<CataloguePart> = {}): CataloguePart => ({
  ...{ id, maker: "Kelpin", series: "Tern", capacitorClass: "lowz", capacitanceFarads: 1000e-6, ratedVolts: 16 },
  ...{ temperatureClassCelsius: 105, diameterMetres: 0.01, heightMetres: 0.02, pitchMetres: 0.005, esrOhms: 0.04 },
  ...{ rippleAmpsRms: 1.4, ratedLifeHours: 4000, priceMinor: 40 },
  ...more,
});

describe("places of one rail that are filled together", () => {
  it("need their C, their current and their ESR in sum, and each its own room with the others out", () => {
    const found = bankQuestion(pair(), around);
    expect(found.capacitanceMinFarads).toBeCloseTo(2 * 0.9e-3, 9);
    expect(found.rippleAmpsRms).toBeCloseTo(1, 9);
    expect(found.esrMaxOhms).toBeCloseTo(0.025, 9);
    // The regulation sees what is typical: 0.7 of what a sheet says.
    expect(found.esrMinOhms).toBeCloseTo(0.0005 / 0.7, 9);
    // 13.5 mm between them: 13 for each; C3 stays 11.5 mm beside C2, with its 5 mm of radius and the clearance.
    expect(found.places.map((one) => Number((one.diameterMaxMetres * 1e3).toFixed(3)))).toEqual([13, 12]);
    expect(found.places[0]?.heightMaxMetres).toBeCloseTo(0.028, 9);
    expect(
      bankQuestion([need("C1", { ...free, diameterMaxMetres: 0.02 }), need("C2", free)], around).places[0]
        ?.diameterMaxMetres,
    ).toBe(0.02);
  });
  it("may be two unequal parts where two equal ones would not do", () => {
    const question = { ...bankQuestion(pair(), around), mode: "life" } as const;
    const large = part("large", { capacitanceFarads: 1500e-6, diameterMetres: 0.0125 });
    const small = part("small", { capacitanceFarads: 470e-6, diameterMetres: 0.008, pitchMetres: 0.0035 });
    const candidates = bankCandidates(bankParts([large, small], question, "output", true), question);
    const { best } = chooseBank({ ...question, candidates });
    expect(best?.ids).toEqual(["large", "small"]);
    expect(best?.capacitanceFarads).toBeCloseTo(1970e-6, 9);
  });
});

describe("the candidates of a bank", () => {
  const question = bankQuestion(pair(), around);
  const ids = (parts: readonly CataloguePart[]) =>
    bankCandidates(bankParts(parts, question, "output", true), question).map((one) => one.id);
  it("are what no limit turns down, of each value the strongest, the longest lived and the cheapest", () => {
    const good = [
      part("plain"),
      part("strong", { rippleAmpsRms: 3 }),
      part("long", { ratedLifeHours: 9000 }),
      part("cheap", { priceMinor: 5 }),
    ];
    const bad = [
      part("low", { ratedVolts: 10 }),
      part("cool", { temperatureClassCelsius: 85 }),
      part("gp", { capacitorClass: "gp" }),
      part("wide", { diameterMetres: 0.014 }),
      part("tall", { heightMetres: 0.029 }),
      part("far", { pitchMetres: 0.0101 }),
      part("huge", { capacitanceFarads: 0.1 }),
    ];
    expect(ids([...good, ...bad])).toEqual(["strong", "long", "cheap"]);
  });
  it("are no more than the search takes, the values nearest to an even share first", () => {
    const many = [220, 330, 470, 560, 680, 820, 1000, 1200, 1500, 1800].flatMap((uF) =>
      ["a", "b", "c"].map((one, n) =>
        part(`${uF}${one}`, {
          capacitanceFarads: uF * 1e-6,
          rippleAmpsRms: 1 + n,
          ratedLifeHours: 9000 - 1000 * n,
          priceMinor: 40 - n,
        }),
      ),
    );
    const found = ids(many);
    expect(found).toHaveLength(14);
    expect(found.some((one) => one.startsWith("1000"))).toBe(true);
    expect(found.some((one) => one.startsWith("220"))).toBe(false);
  });
  it("leave polymer out where it does not belong", () => {
    const solid = part("solid", { capacitorClass: "polymer" });
    expect(bankParts([solid], question, "pfc", false)).toEqual([]);
    expect(ids([solid])).toEqual(["solid"]);
  });
});

describe("two cans in one place", () => {
  const shared = (more: Partial<Surroundings> = {}) => {
    const asked = { ...around, ...more };
    return sharedQuestions([positions[0] as never], bankQuestion([need("C1", free)], asked).places, asked)[0];
  };
  it("stand clear of what stays, of each other and of the board's edge", () => {
    // C2, 5 mm in radius, stays 13.5 mm to the right: the second stands on a side away from it.
    const found = shared();
    expect(found?.places).toHaveLength(2);
    const [d, x, y] = [found?.second.diameterMaxMetres ?? 0, found?.second.xMetres ?? 0, found?.second.yMetres ?? 0];
    expect(found?.places.map((one) => one.diameterMaxMetres)).toEqual([d, d]);
    expect(Math.hypot(x - 0.02, y - (positions[0]?.yMetres ?? 0))).toBeCloseTo(d + 0.5e-3, 9);
    expect(Math.hypot(0.0335 - x, y - (positions[0]?.yMetres ?? 0)) - d / 2 - 0.005).toBeGreaterThan(0.5e-3 - 1e-9);
    // A board that ends beside C1 leaves less.
    const narrow = shared({ lid: { lidHeightMetres: 0.03, lidZones: [], widthMetres: 0.1, depthMetres: 0.1 } });
    expect(narrow?.second.xMetres).toBeGreaterThanOrEqual((narrow?.second.diameterMaxMetres ?? 0) / 2);
    expect(shared({ lid: { lidHeightMetres: 0.03, lidZones: [], widthMetres: 0.021, depthMetres: 0.002 } })).toBe(
      undefined,
    );
  });
  it("take a low lid over either of them, and are not offered where nothing is drawn", () => {
    const at = shared()?.second as SharedPlace;
    const zone = { xMetres: at.xMetres - 1e-3, yMetres: at.yMetres - 1e-3, widthMetres: 2e-3, depthMetres: 2e-3 };
    const low = shared({ lid: { lidHeightMetres: 0.03, lidZones: [{ ...zone, heightMetres: 0.012 }] } });
    expect(low?.places[1]?.heightMaxMetres).toBeLessThan(0.012);
    expect(low?.places[0]?.heightMaxMetres).toBeGreaterThan(0.02);
    const nowhere = { ...(positions[0] as (typeof positions)[number]), xMetres: null };
    expect(sharedQuestions([nowhere], bankQuestion([need("C1", free)], around).places, around)).toEqual([]);
  });
  it("bear what one can does not: half the current each", () => {
    const question = { ...bankQuestion([need("C1", { ...free, rippleAmpsRms: 1.6 })], around), mode: "life" } as const;
    const small = part("small", { diameterMetres: 0.006, capacitanceFarads: 470e-6, rippleAmpsRms: 0.9 });
    const ask = (places: typeof question.places) =>
      run(bankOfTwoKinds({ ...question, places, candidates: [asCandidate(small)] }, 3)).ranked[0];
    expect(ask(question.places)).toBeUndefined();
    expect(ask(shared()?.places ?? [])?.ids).toEqual(["small", "small"]);
  });
});

function run<T>(steps: Generator<unknown, T>): T {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

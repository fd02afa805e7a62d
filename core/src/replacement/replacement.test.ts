import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { sampleNet, samplePart, samplePosition } from "../../testing/sampleJob";
import { OutOfRangeError } from "../errors";
import { checkReplacement } from "./checkReplacement";
import { doPolaritiesAgree } from "./polarityCheck";
import { type CataloguePart, limitRejections, rankReplacements } from "./rankReplacements";
import { positionLimits, replacementRatedVoltage } from "./ratedVoltage";
import { noOverrides, type Requirement, type RequirementOverrides, replacementRequirement } from "./requirement";

const place = {
  position: samplePosition("C1"),
  part: samplePart("C1"),
  net: sampleNet(),
  voltageSchool: "both",
} as const;
const requirement = (overrides: Partial<RequirementOverrides> = {}) =>
  replacementRequirement(place, { ...noOverrides, ...overrides }) as Requirement;

/** A part that meets the sample place: same value, one step better. */
const good: CataloguePart = {
  id: "good",
  maker: "Kelpin",
  series: "Tern",
  capacitorClass: "lowz",
  capacitanceFarads: 1000e-6,
  ratedVolts: 16,
  temperatureClassCelsius: 105,
  diameterMetres: 0.01,
  heightMetres: 0.02,
  pitchMetres: 0.005,
  esrOhms: 0.046,
  rippleAmpsRms: 1.4,
  ratedLifeHours: 4000,
  priceMinor: 40,
};
const rank = (parts: readonly CataloguePart[], need = requirement()) => rankReplacements(need, "output", parts);

describe("limitRejections", () => {
  const codes = (part: Partial<CataloguePart> | { readonly [K in keyof CataloguePart]?: null }) =>
    limitRejections(requirement(), { ...good, ...part } as Parameters<typeof limitRejections>[1]).map(
      (one) => one.code,
    );
  it("turns nothing down whose ESR is the limit as a sheet prints it", () => {
    const limit = requirement().esrMaxOhms?.value ?? 0;
    expect(codes({ esrOhms: limit * 1.004 })).toEqual([]);
    expect(codes({ esrOhms: limit * 1.006 })).toEqual(["esr_high"]);
  });
  it("holds every limit against a part, and only those of which anything is known", () => {
    expect(codes({})).toEqual([]);
    expect(codes({ capacitanceFarads: 100e-6, ratedVolts: 6.3, temperatureClassCelsius: 85 })).toEqual([
      "capacitance_low",
      "voltage_low",
      "temperature_class_low",
    ]);
    expect(codes({ capacitanceFarads: 0.1, diameterMetres: 0.02, heightMetres: 0.05, esrOhms: 9 })).toEqual([
      "capacitance_high",
      "diameter_large",
      "height_large",
      "esr_high",
    ]);
    expect(codes({ capacitorClass: "gp" })).toEqual(["not_low_esr"]);
    const unknown = { diameterMetres: null, heightMetres: null, pitchMetres: null, esrOhms: null };
    expect(codes({ ...unknown, temperatureClassCelsius: null })).toEqual([]);
  });
});

describe("replacementRequirement", () => {
  it("derives limits from marking, size, rail and table, and marks what it assumes", () => {
    const need = requirement();
    expect(need.capacitanceMinFarads).toEqual({ value: 0.9 * 1000e-6, source: "position_table" });
    expect(need.leastRatedVolts).toEqual({ value: 16, source: "marking" });
    expect(need.heightMaxMetres).toEqual({ value: 0.02, source: "size" });
    expect(need.rippleAmpsRms.source).toBe("assumed");
    expect(need.rippleAmpsRms.value).toBeCloseTo(0.7 * 1.386, 3);
    expect(need.ambientCelsius).toEqual({ value: 60, source: "assumed" });
    expect(need.isLowEsrOnly).toBe(true);
  });
  it("asks for more than the marking where the factory's margin was too thin", () => {
    const need = replacementRequirement({ ...place, net: sampleNet({ nominalVolts: 15 }) });
    expect(need?.leastRatedVolts).toEqual({ value: 18.75, source: "rail" });
  });
  it("takes the magnitude of a negative rail", () => {
    expect(replacementRequirement({ ...place, net: sampleNet({ nominalVolts: -12 }) })?.railVolts).toBe(12);
  });
  it("puts what was entered in place of what was computed", () => {
    expect(requirement({ diameterMaxMetres: 0.0125 }).diameterMaxMetres).toEqual({ value: 0.0125, source: "entered" });
  });
  it("cannot be made without value or voltage", () => {
    expect(replacementRequirement({ ...place, part: samplePart("C1", { ratedVolts: null }) })).toBeNull();
  });
});

describe("rankReplacements", () => {
  it.each([
    ["capacitance_low", { capacitanceFarads: 820e-6 }],
    ["capacitance_high", { capacitanceFarads: 2200e-6 }],
    ["diameter_large", { diameterMetres: 0.0125 }],
    ["height_large", { heightMetres: 0.025 }],
    ["pitch_differs", { pitchMetres: 0.0075 }],
    ["esr_high", { esrOhms: 0.09 }],
  ] as const)("turns a part down for %s and says what it had", (code, more) => {
    const { survivors, nearMisses } = rank([{ ...good, ...more, ratedLifeHours: 20_000 }]);
    expect(survivors).toEqual([]);
    expect(nearMisses[0]?.rejections.map((one) => one.code)).toContain(code);
  });

  it.each([
    ["voltage_low", { ratedVolts: 10 }],
    ["temperature_class_low", { temperatureClassCelsius: 85 }],
    ["not_low_esr", { capacitorClass: "gp" }],
  ] as const)("never offers for a reason what breaks %s, but counts it", (code, more) => {
    const { survivors, nearMisses, refusedCounts } = rank([{ ...good, ...more }]);
    expect([survivors, nearMisses, refusedCounts]).toEqual([[], [], { [code]: 1 }]);
  });
  it("offers a lower marking where the rail itself allows it, nearest first", () => {
    const need = { ...requirement(), leastRatedVolts: { value: 25, source: "marking" }, railNeedVolts: 15 } as const;
    const lower = { ...good, id: "lower" };
    const lowerAndTall = { ...good, id: "tall", heightMetres: 0.025 };
    const far = { ...good, id: "far", heightMetres: 0.04, ratedVolts: 25 };
    const near = { ...good, id: "near", heightMetres: 0.021, ratedVolts: 25 };
    expect(rank([lowerAndTall, far, near, lower], need).nearMisses.map((one) => one.part.id)).toEqual([
      "near",
      "lower",
      "far",
      "tall",
    ]);
  });

  it("warns of an ESR that takes noticeable phase, and turns down one that takes too much or a rating below the current", () => {
    const need = {
      ...requirement(),
      esrWarnOhms: 0.03,
      esrMinOhms: { value: 0.02, source: "loop" },
      rippleAmpsRms: { value: 1.2, source: "ripple", band: [1, 1.6] },
    } as const;
    const of = (more: Partial<CataloguePart>) => rank([{ ...good, ...more }], need);
    expect(of({}).survivors[0]?.warnings).toContain("W_RIPPLE_MARGIN");
    expect(of({ rippleAmpsRms: 1.6 }).survivors[0]?.warnings).toEqual([]);
    expect(of({ rippleAmpsRms: 1.6, esrOhms: 0.04 }).survivors[0]?.warnings).toContain("W_LOOP_PHASE");
    expect(of({ esrOhms: 0.025 }).nearMisses[0]?.rejections.map((one) => one.code)).toEqual(["esr_low"]);
    expect(of({ rippleAmpsRms: 0.9 }).nearMisses[0]?.rejections.map((one) => one.code)).toEqual(["ripple_low"]);
  });

  it("says the life in the other air too, and counts the warmer", () => {
    const airs = [
      { value: 76, source: "predecessor" },
      { value: 45, source: "purpose" },
    ] as const;
    const told = { ...requirement(), ambientCelsius: airs[0], ambients: airs };
    const [row] = rank([good], told).survivors;
    expect(row?.otherLives.map((one) => one.source)).toEqual(["purpose"]);
    expect(row?.otherLives[0]?.cappedLifeHours).toBeGreaterThan(3 * (row?.lifeHours ?? 0));
    const byHand = { ...told, ambientCelsius: { value: 50, source: "entered" } } as const;
    expect(rank([good], byHand).survivors[0]?.otherLives).toEqual([]);
  });

  it("orders survivors by expected life, then by price", () => {
    const cheap = { ...good, id: "cheap", priceMinor: 10 };
    const lasting = { ...good, id: "lasting", ratedLifeHours: 7000 };
    const short = { ...good, id: "short", ratedLifeHours: 1000 };
    expect(rank([short, good, lasting, cheap]).survivors.map((one) => one.part.id)).toEqual([
      "lasting",
      "cheap",
      "good",
      "short",
    ]);
  });

  it("computes the life by school B: 4000 h at 105 become 91 000 h at 60 degrees at 70 % ripple", () => {
    const [best] = rank([good]).survivors;
    const load = requirement().rippleAmpsRms.value / 1.4;
    expect(best?.lifeHours).toBeCloseTo(4000 * 2 ** 4.5 * 2 ** ((5 - 5 * load ** 2) / 10), 3);
  });

  it("lists as near misses only what would have ranked with the first survivors", () => {
    const survivors = Array.from({ length: 10 }, (_, i) => ({ ...good, id: `s${i}` }));
    const tooTall = { ...good, heightMetres: 0.025 };
    const { nearMisses, rejectedCount } = rank([
      ...survivors,
      { ...tooTall, id: "better", ratedLifeHours: 6000 },
      { ...tooTall, id: "worse", ratedLifeHours: 500 },
    ]);
    expect(rejectedCount).toBe(2);
    expect(nearMisses.map((one) => one.part.id)).toEqual(["better"]);
  });

  it("never lists a wholly different value as a near miss", () => {
    expect(rank([{ ...good, capacitanceFarads: 10e-6, ratedLifeHours: 20_000 }]).nearMisses).toEqual([]);
  });

  it("warns without turning down: a ripple rating a little below the old part's", () => {
    const [only] = rank([{ ...good, rippleAmpsRms: 1.2 }]).survivors;
    expect(only?.warnings).toContain("W_RIPPLE");
  });

  it("turns a polymer down on a mains bulk by the position's own check", () => {
    const need = { ...requirement(), isLowEsrOnly: false };
    const { nearMisses } = rankReplacements(need, "bulk", [
      { ...good, capacitorClass: "polymer", ratedLifeHours: 20_000 },
    ]);
    expect(nearMisses[0]?.rejections).toEqual([
      { code: "position_check", got: null, limit: null, checks: expect.arrayContaining(["R_POLYMER"]) },
    ]);
  });

  const anyPart = fc.record({
    capacitanceFarads: fc.constantFrom(330e-6, 820e-6, 1000e-6, 1500e-6, 2200e-6),
    ratedVolts: fc.constantFrom(10, 16, 25),
    heightMetres: fc.constantFrom(0.016, 0.02, 0.025),
    esrOhms: fc.double({ min: 0.01, max: 0.2, noNaN: true }),
    ratedLifeHours: fc.integer({ min: 1000, max: 10_000 }),
  });
  test.prop([fc.array(anyPart, { maxLength: 30 })])(
    "loses no part: each survives or is counted, and survivors meet every limit",
    (mores) => {
      const parts = mores.map((more, i) => ({ ...good, ...more, id: String(i) }));
      const { survivors, rejectedCount } = rank(parts);
      expect(survivors.length + rejectedCount).toBe(parts.length);
      for (const { part } of survivors) {
        expect(part.ratedVolts).toBeGreaterThanOrEqual(16);
        expect(part.heightMetres).toBeLessThanOrEqual(0.0201);
        // Half a digit of what a sheet prints counts as the limit itself.
        expect(part.esrOhms).toBeLessThanOrEqual(1.00501 * (requirement().esrMaxOhms?.value ?? 0));
      }
    },
  );
});

describe("replacementRatedVoltage and positionLimits", () => {
  it("takes the next standard voltage above rail and marking", () => {
    const question = { railVolts: 24, position: "main_pre", originalRatedVolts: 25, school: "both" } as const;
    expect(replacementRatedVoltage(question)).toEqual({ leastVolts: 30, standardVolts: 35, marginRatio: 35 / 24 });
  });
  it("has no standard voltage above 500 V", () => {
    const question = { railVolts: 480, position: "mains_bulk", originalRatedVolts: null, school: "rail" } as const;
    expect(replacementRatedVoltage(question).standardVolts).toBeNull();
  });
  it("refuses the school of markings where nothing is marked, and an unknown position", () => {
    const question = { railVolts: 12, position: "main_pre", originalRatedVolts: null, school: "marking" } as const;
    expect(() => replacementRatedVoltage(question)).toThrow(OutOfRangeError);
    expect(() => positionLimits("attic" as "vcc")).toThrow(OutOfRangeError);
  });
});

describe("checkReplacement", () => {
  const compared = {
    capacitanceFarads: 1e-3,
    ratedVolts: 16,
    esrOhms: 0.046,
    rippleAmpsRms: 1.4,
    technology: "liquid",
  } as const;
  it("finds nothing wrong with the same part again", () => {
    const question = { position: "main_pre", railVolts: 12, original: compared, replacement: compared } as const;
    expect(checkReplacement(question)).toEqual({ verdict: "ok", findings: [], capacitanceRatio: 1 });
  });
  it("refuses less voltage than the marking while the rail is unknown", () => {
    const replacement = { ...compared, ratedVolts: 10 };
    const question = { position: "main_pre", railVolts: null, original: compared, replacement } as const;
    expect(checkReplacement(question).findings).toContainEqual({
      code: "R_V_BELOW_MARKING_RAIL_UNKNOWN",
      level: "reject",
    });
  });
});

describe("doPolaritiesAgree", () => {
  it.each([
    [90, 90, true],
    [0, 350, true],
    [350, 20, true],
    [90, 270, false],
    [0, 90, false],
    [null, 90, null],
    [90, null, null],
  ])("board %s, stripe %s: %s", (board, stripe, agree) => {
    expect(doPolaritiesAgree(board, stripe)).toBe(agree);
  });
});

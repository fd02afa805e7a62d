import { describe, expect, it } from "vitest";
import { negative, notPositive, wronglyTaken } from "../../testing/refusals";
import { canImpedance, pseudoRatedRippleAmpsRms } from "./canImpedance";
import { canSurfaceSquareMetres } from "./canSurface";
import { type CapacitorClass, capacitorClasses, hasPolymer } from "./capacitorClass";
import { compensatedEsr } from "./compensatedEsr";
import { dissipationFactorLimitRatio } from "./dissipationFactorLimit";
import { type EsrQuestion, expectedEsr } from "./expectedEsr";
import { expectedEsrOfPart, partForSchool } from "./expectedEsrOfPart";
import { leakageLimitAmps } from "./leakageLimit";
import { rippleFrequencyMultiplier } from "./rippleFrequencyMultiplier";
import { seriesResistanceTemperatureFactor } from "./seriesResistanceTemperatureFactor";
import { testerReactanceOhms, testerReading } from "./testerReading";

const microfarads = (value: number) => value * 1e-6;
const can = { diameterMetres: 0.01, heightMetres: 0.02, ratedVolts: 16, capacitorClass: "lowz" } as const;
const question: EsrQuestion = { ...can, capacitanceFarads: 1e-3, frequencyHertz: 100e3, temperatureCelsius: 20 };
const unknownSize = { diameterMetres: null, heightMetres: null };

describe("a can of 10 mm by 20 mm", () => {
  it("cools over its side and one end", () => {
    expect(canSurfaceSquareMetres(0.01, 0.02)).toBeCloseTo(Math.PI * (2e-4 + 0.25e-4), 15);
  });
  it("bears the current that heats it by five kelvin at 25 W/(m2 K)", () => {
    expect(pseudoRatedRippleAmpsRms(7.0686e-4, 0.046)).toBeCloseTo(Math.sqrt((25 * 7.0686e-4 * 5) / 0.046), 12);
    expect(canImpedance(can).ratedRippleAmpsRms).toBeCloseTo(1.386, 3);
  });
  it.each([
    [35, 0.046],
    [35.1, 0.0644],
    [50, 0.0644],
    [63, 0.092],
    [100, 0.138],
  ])("has at %s V at most %s ohm", (ratedVolts, ohms) => {
    expect(canImpedance({ ...can, ratedVolts }).impedanceMaxOhms).toBeCloseTo(ohms, 10);
  });
  it("is a row of the table within 0.3 mm and 0.8 mm, and by the power law beyond", () => {
    const source = (diameterMm: number, heightMm: number) =>
      canImpedance({ ...can, diameterMetres: diameterMm / 1e3, heightMetres: heightMm / 1e3 }).source;
    expect([
      source(9.7, 20),
      source(9.69, 20),
      source(10, 20.8),
      source(10, 19.2),
      source(10, 21),
      source(10, 19),
    ]).toEqual(["table", "power_law", "table", "table", "power_law", "power_law"]);
  });
  it("has by the power law 26.127 D^-1.27031 L^-1.10623 ohm, below 6 mm 2.4337 times as much", () => {
    const ohms = (diameterMm: number, heightMm: number) =>
      canImpedance({ ...can, diameterMetres: diameterMm / 1e3, heightMetres: heightMm / 1e3 }).impedanceMaxOhms;
    expect(ohms(7, 30)).toBeCloseTo(26.127 * 7 ** -1.27031 * 30 ** -1.10623, 9);
    expect(ohms(5.5, 30)).toBeCloseTo(2.4337 * 26.127 * 5.5 ** -1.27031 * 30 ** -1.10623, 9);
    expect(ohms(6, 30)).toBeCloseTo(26.127 * 6 ** -1.27031 * 30 ** -1.10623, 9);
  });
  it("refuses what no can has", () => {
    const bad = { diameterMetres: notPositive, heightMetres: notPositive, ratedVolts: notPositive };
    expect(wronglyTaken<typeof can>(canImpedance, can, bad)).toEqual([]);
  });
});

describe("rippleFrequencyMultiplier", () => {
  const of = (uF: number, ratedVolts: number, hertz: number) =>
    rippleFrequencyMultiplier({ capacitanceFarads: microfarads(uF), ratedVolts }, hertz);
  it.each([
    [33, 50, "le33", 0.42],
    [33.1, 50, "le270", 0.5],
    [270, 50, "le270", 0.5],
    [680, 50, "le680", 0.55],
    [1800, 50, "le1800", 0.6],
    [1801, 50, "gt1800", 0.7],
    [100, 159, "le270", 0.5],
    [100, 160, "hv", 0.667],
  ] as const)("of %s uF, %s V is of class %s: %s at 120 Hz", (uF, volts, frequencyClass, multiplierRatio) => {
    expect(of(uF, volts, 120)).toEqual({ frequencyClass, multiplierRatio });
  });
  it("goes along the logarithm of the frequency, and stays beyond 50 Hz and 100 kHz", () => {
    expect(of(22, 50, Math.sqrt(1000 * 10_000)).multiplierRatio).toBeCloseTo(0.8, 12);
    expect([of(22, 50, 10).multiplierRatio, of(22, 50, 1e6).multiplierRatio]).toEqual([0.34, 1]);
  });
  it("refuses what no part and no current has", () => {
    const flat = (one: { capacitanceFarads: number; ratedVolts: number; frequencyHertz: number }) =>
      rippleFrequencyMultiplier(one, one.frequencyHertz);
    const bad = { capacitanceFarads: notPositive, ratedVolts: notPositive, frequencyHertz: notPositive };
    expect(wronglyTaken(flat, { capacitanceFarads: 1e-5, ratedVolts: 50, frequencyHertz: 120 }, bad)).toEqual([]);
  });
});

describe("seriesResistanceTemperatureFactor", () => {
  it.each([
    [-10, 0.35 + 0.65 * Math.exp(30 / 27), false],
    [-10.1, 0.35 + 0.65 * Math.exp(30 / 27), true],
    [60, 0.35 + 0.65 * Math.exp(-40 / 27), false],
    [105, 0.35 + 0.65 * Math.exp(-85 / 27), false],
    [105.1, 0.35 + 0.65 * Math.exp(-85 / 27), true],
  ])("at %s degrees is %d", (celsius, factor, isClamped) => {
    const found = seriesResistanceTemperatureFactor(celsius);
    expect(found.factorRatio).toBeCloseTo(factor, 12);
    expect(found.isClamped).toBe(isClamped);
  });
  it("is one for whatever conducts through polymer", () => {
    expect(capacitorClasses.filter(hasPolymer)).toEqual(["polymer", "hybrid"]);
    expect(seriesResistanceTemperatureFactor(90, "hybrid")).toEqual({ factorRatio: 1, isClamped: false });
    expect(() => seriesResistanceTemperatureFactor(Number.NaN, "polymer")).toThrow(/temperature/);
  });
});

describe("dissipationFactorLimitRatio", () => {
  const limit = (ratedVolts: number, uF: number, capacitorClass: "gp" | "lowz" | "ultra" = "lowz") =>
    dissipationFactorLimitRatio({ ratedVolts, capacitanceFarads: microfarads(uF), capacitorClass });
  it.each([
    [16, 100, "lowz", 0.16],
    [16, 100, "ultra", 0.16],
    [16, 100, "gp", 0.2],
    [16.07, 100, "lowz", 0.16],
    [15.93, 100, "lowz", 0.16],
    [15.9, 100, "lowz", 0.19],
    [130, 100, "lowz", 0.15],
    [16, 1000, "lowz", 0.16],
    [16, 3300, "lowz", 0.206],
    [3, 100, "lowz", 0.26],
    [700, 100, "lowz", 0.2],
  ] as const)("at %s V, %s uF, %s is %s", (volts, uF, capacitorClass, ratio) => {
    expect(limit(volts, uF, capacitorClass)).toBeCloseTo(ratio, 10);
  });
  it("refuses what no marking says", () => {
    const sound = { ratedVolts: 16, capacitanceFarads: 1e-3, capacitorClass: "gp" } as const;
    const bad = { ratedVolts: notPositive, capacitanceFarads: notPositive };
    expect(wronglyTaken<typeof sound>(dissipationFactorLimitRatio, sound, bad)).toEqual([]);
  });
});

describe("expectedEsr", () => {
  const polymer: EsrQuestion = { ...question, capacitorClass: "polymer", capacitanceFarads: 560e-6 };
  it("of a polymer lies at 0.7, 0.45 and 1 of its maximum by can and voltage", () => {
    const at = (more: Partial<EsrQuestion>) => expectedEsr({ ...polymer, heightMetres: 0.0125, ...more });
    expect(at({})).toMatchObject({ source: "polymer_can", flags: [], oxideLossRatio: 0.02 });
    expect(at({}).typicalOhms).toBeCloseTo(0.007, 12);
    expect(at({}).lowOhms).toBeCloseTo(0.0045, 12);
    expect(at({}).highOhms).toBeCloseTo(0.01, 12);
    expect(at({ ratedVolts: 6.3 }).highOhms).toBeCloseTo(0.008, 12);
    expect(at({ ratedVolts: 25 }).highOhms).toBeCloseTo(0.018, 12);
    expect(at({ ratedVolts: 80 }).highOhms).toBeCloseTo(0.025, 12);
    expect(at({ ...unknownSize }).highOhms).toBeCloseTo(0.014, 12);
    expect(at({ datasheetEsrOhms: 0.005 })).toMatchObject({ source: "datasheet" });
    expect(at({ datasheetEsrOhms: 0.005 }).highOhms).toBeCloseTo(0.005, 12);
    expect(at({ heightMetres: 0.0134 }).source).toBe("polymer_default");
  });
  it("of a polymer has 0.02 of the reactance beside its resistance", () => {
    const at120 = expectedEsr({ ...polymer, heightMetres: 0.0125, frequencyHertz: 120 });
    const atReference = 1 / (2 * Math.PI * 100e3 * 560e-6);
    expect(at120.seriesResistance20CelsiusOhms).toBeCloseTo(0.007 - 0.02 * atReference, 9);
    expect(at120.typicalOhms - at120.seriesResistance20CelsiusOhms).toBeCloseTo(0.02 / (2 * Math.PI * 120 * 560e-6), 9);
  });
  it("by tan delta puts a share of the loss at 120 Hz into the series resistance", () => {
    const of = (uF: number, ratedVolts: number, capacitorClass: CapacitorClass) =>
      expectedEsr({ ...question, ...unknownSize, capacitanceFarads: microfarads(uF), ratedVolts, capacitorClass });
    const series = (uF: number, volts: number, kind: CapacitorClass) =>
      of(uF, volts, kind).seriesResistance20CelsiusOhms * 2 * Math.PI * 120 * microfarads(uF);
    expect(series(100, 16, "gp")).toBeCloseTo(0.17 * 0.2, 10);
    expect(series(800, 16, "gp")).toBeCloseTo(0.34 * 0.2, 10);
    expect(series(1e4, 16, "lowz")).toBeCloseTo(0.4 * 0.5 * (0.16 + 0.02 * 9), 10);
    expect(series(1e4, 400, "gp")).toBeCloseTo(0.25 * (0.24 + 0.02 * 9), 10);
    expect(series(1, 16, "ultra")).toBeCloseTo(0.1 * 0.3 * 0.16, 10);
    const { lowOhms, typicalOhms, highOhms, source } = of(100, 16, "gp");
    expect(source).toBe("tan_delta");
    expect([lowOhms / typicalOhms, highOhms / typicalOhms]).toEqual([expect.closeTo(0.45, 10), expect.closeTo(2, 10)]);
  });
  it("of a sheet gives a cold part more of it, and takes size only up to 100 V", () => {
    const sheet = { ...question, datasheetEsrOhms: 0.03 };
    expect(expectedEsr(sheet).typicalOhms).toBeCloseTo(0.021, 10);
    expect(expectedEsr(sheet).lowOhms).toBeCloseTo(0.0135, 10);
    const cold = expectedEsr({ ...sheet, temperatureCelsius: 0 });
    const factor = 0.35 + 0.65 * Math.exp(20 / 27);
    const oxide = cold.oxideLossRatio / (2 * Math.PI * 100e3 * 1e-3);
    expect(cold.typicalOhms).toBeCloseTo((0.021 - oxide) * factor + oxide, 9);
    expect(expectedEsr({ ...question, ratedVolts: 100 }).source).toBe("can_table");
    expect(expectedEsr({ ...question, ratedVolts: 101 }).source).toBe("tan_delta");
  });
  it("refuses each bad argument under its own name", () => {
    const names = ["capacitanceFarads", "ratedVolts", "frequencyHertz", "diameterMetres", "heightMetres"] as const;
    const bad = Object.fromEntries([...names, "datasheetEsrOhms"].map((name) => [name, notPositive]));
    expect(wronglyTaken(expectedEsr, { ...question, datasheetEsrOhms: 0.03 }, bad)).toEqual([]);
  });
});

describe("what an expectation stands on", () => {
  const part = {
    ...unknownSize,
    capacitanceFarads: 1e-3,
    ratedVolts: 16,
    capacitorClass: "lowz",
    datasheetEsrOhms: null,
  } as const;
  const sized = { ...part, diameterMetres: 0.01, heightMetres: 0.02 };
  const basis = (one: Parameters<typeof expectedEsrOfPart>[0], hertz = 100e3, celsius = 20) =>
    expectedEsrOfPart(one, hertz, celsius)?.basis;
  it.each([
    ["a sheet", { ...part, datasheetEsrOhms: 0.03 }, "sheet"],
    ["a can of the table", sized, "row"],
    ["a polymer", { ...part, capacitorClass: "polymer" }, "row"],
    ["a can between the rows", { ...sized, heightMetres: 0.0225 }, "interpolated"],
    ["a can as long as the longest", { ...sized, diameterMetres: 0.018, heightMetres: 0.04 }, "row"],
    ["a can between, as long as the longest", { ...sized, diameterMetres: 0.014, heightMetres: 0.04 }, "interpolated"],
    ["a can longer than all", { ...sized, heightMetres: 0.045 }, "extrapolated"],
    ["a can thicker than all", { ...sized, diameterMetres: 0.022 }, "extrapolated"],
    ["a can thinner than all", { ...sized, diameterMetres: 0.004 }, "extrapolated"],
    ["a voltage of the table", part, "row"],
    ["a voltage half a percent beside it", { ...part, ratedVolts: 16.07 }, "row"],
    ["a voltage between", { ...part, ratedVolts: 20 }, "interpolated"],
    ["a voltage below all", { ...part, ratedVolts: 2.5 }, "extrapolated"],
    ["a voltage above all", { ...part, ratedVolts: 600 }, "extrapolated"],
  ] as const)("%s", (_, one, expected) => {
    expect(basis(one as typeof part)).toBe(expected);
  });
  it("is beyond the tables outside 50 Hz to 200 kHz and -10 to 105 degrees", () => {
    expect([basis(sized, 50), basis(sized, 49), basis(sized, 200e3), basis(sized, 201e3)]).toEqual([
      "row",
      "extrapolated",
      "row",
      "extrapolated",
    ]);
    expect([basis(sized, 100e3, -10), basis(sized, 100e3, -11)]).toEqual(["row", "extrapolated"]);
  });
  it("widens the band by half each way beyond the tables, and leaves what is typical", () => {
    const inside = expectedEsr({ ...question, ...unknownSize, ratedVolts: 600 });
    const told = expectedEsrOfPart({ ...part, ratedVolts: 600 }, 100e3, 20);
    expect(told?.typicalOhms).toBe(inside.typicalOhms);
    expect(told?.lowOhms).toBeCloseTo(inside.lowOhms / 1.5, 12);
    expect(told?.highOhms).toBeCloseTo(inside.highOhms * 1.5, 12);
  });
  it("is nothing without value, voltage or frequency; an unknown class counts as low impedance", () => {
    expect(expectedEsrOfPart({ ...part, capacitanceFarads: null }, 100e3, 20)).toBeNull();
    expect(expectedEsrOfPart({ ...part, ratedVolts: null }, 100e3, 20)).toBeNull();
    expect(expectedEsrOfPart(part, 0, 20)).toBeNull();
    expect(expectedEsrOfPart({ ...part, capacitorClass: null }, 100e3, 20)).toEqual(expectedEsrOfPart(part, 100e3, 20));
  });
  it("is by one school the marking alone", () => {
    const full = { ...sized, datasheetEsrOhms: 0.03 };
    expect(partForSchool(full, "best_first")).toBe(full);
    expect(partForSchool(full, "tan_delta")).toEqual(part);
  });
});

describe("a tester", () => {
  const situation = {
    capacitanceFarads: 10e-6,
    frequencyHertz: 100e3,
    eslHenrys: 20e-9,
    leadOhms: 0.05,
    leadHenrys: 100e-9,
    mode: "magnitude",
  } as const;
  const reactance = 2 * Math.PI * 100e3 * 120e-9 - 1 / (2 * Math.PI * 100e3 * 10e-6);
  it("shows resistance with its leads, or the magnitude with the reactance", () => {
    expect(testerReactanceOhms(situation)).toBeCloseTo(reactance, 12);
    expect(testerReading(0.2, { ...situation, mode: "real" })).toEqual({ readingOhms: 0.25, reactanceOhms: reactance });
    expect(testerReading(0.2, situation).readingOhms).toBeCloseTo(Math.hypot(0.25, reactance), 12);
  });
  it("is taken back with its uncertainty, which grows as the reactance takes over", () => {
    const uncertainties = { meterOhms: 0.003, leadOhms: 0.004, contactOhms: 0 };
    const told = compensatedEsr(Math.hypot(0.25, reactance), situation, uncertainties);
    expect(told.esrOhms).toBeCloseTo(0.2, 10);
    expect(told.standardUncertaintyOhms).toBeCloseTo(
      Math.hypot((0.003 * Math.hypot(0.25, reactance)) / 0.25, 0.004),
      10,
    );
    const real = compensatedEsr(0.25, { ...situation, mode: "real" }, uncertainties);
    expect(real.standardUncertaintyOhms).toBeCloseTo(0.005, 12);
    // Clear of twice its uncertainty, and not at it.
    expect(compensatedEsr(0.0601, { ...situation, mode: "real" }, uncertainties).isValid).toBe(true);
    expect(compensatedEsr(0.0599, { ...situation, mode: "real" }, uncertainties).isValid).toBe(false);
    expect(compensatedEsr(Math.abs(reactance), situation, uncertainties).isValid).toBe(false);
  });
  it("refuses what no tester and no part has", () => {
    const flat = (one: { esrOhms: number } & Record<Exclude<keyof typeof situation, "mode">, number>) =>
      testerReading(one.esrOhms, { ...one, mode: "magnitude" });
    const bad = { esrOhms: negative, eslHenrys: negative, leadOhms: negative, leadHenrys: negative };
    const sound = { ...situation, esrOhms: 0.1 };
    expect(wronglyTaken(flat, sound, { ...bad, capacitanceFarads: notPositive, frequencyHertz: notPositive })).toEqual(
      [],
    );
    const back = (one: { readingOhms: number; meterOhms: number; leadOhms: number; contactOhms: number }) =>
      compensatedEsr(one.readingOhms, situation, one);
    const each = { readingOhms: negative, meterOhms: negative, leadOhms: negative, contactOhms: negative };
    expect(wronglyTaken(back, { readingOhms: 1, meterOhms: 0, leadOhms: 0, contactOhms: 0 }, each)).toEqual([]);
  });
});

it("leakageLimitAmps refuses what no sheet says", () => {
  const sound = { capacitanceFarads: 1e-3, ratedVolts: 16, factorRatio: 0.01, floorAmps: 3e-6 };
  const bad = { capacitanceFarads: notPositive, ratedVolts: notPositive, factorRatio: notPositive };
  expect(wronglyTaken(leakageLimitAmps, sound, { ...bad, floorAmps: negative })).toEqual([]);
  expect(leakageLimitAmps({ ...sound, floorAmps: 0 })).toBeCloseTo(160e-6, 12);
});

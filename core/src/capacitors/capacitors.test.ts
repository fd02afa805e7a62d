import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { canImpedance, pseudoRatedRippleAmpsRms } from "./canImpedance";
import { canSurfaceSquareMetres } from "./canSurface";
import { capacitorClasses } from "./capacitorClass";
import { compensatedEsr } from "./compensatedEsr";
import { dissipationFactorLimitRatio } from "./dissipationFactorLimit";
import { type EsrQuestion, expectedEsr } from "./expectedEsr";
import { expectedEsrOfPart } from "./expectedEsrOfPart";
import { hybridEsrMaximumOhms } from "./hybridEsr";
import { leakageLimitAmps } from "./leakageLimit";
import { seriesResistanceTemperatureFactor } from "./seriesResistanceTemperatureFactor";
import { testerReading } from "./testerReading";

const can = { diameterMetres: 0.01, heightMetres: 0.02, ratedVolts: 16, capacitorClass: "lowz" } as const;
const part: EsrQuestion = { ...can, capacitanceFarads: 1e-3, frequencyHertz: 100e3, temperatureCelsius: 20 };
const farads = fc.double({ min: 1e-6, max: 1e-2, noNaN: true });

describe("dissipationFactorLimitRatio", () => {
  const limit = (ratedVolts: number, capacitanceFarads: number, step?: "floor" | "ceil") =>
    dissipationFactorLimitRatio({ ratedVolts, capacitanceFarads, capacitorClass: "gp", step });

  it("takes the table's row, and the larger neighbour between rows", () => {
    expect(limit(16, 100e-6)).toBe(0.2);
    expect(limit(20, 100e-6)).toBe(0.2);
    expect(limit(130, 100e-6)).toBe(0.2);
  });
  it("adds 0.02 per 1000 uF above the knee, continuous or in steps", () => {
    expect(limit(16, 2500e-6)).toBeCloseTo(0.23, 10);
    expect(limit(16, 2500e-6, "floor")).toBeCloseTo(0.22, 10);
    expect(limit(16, 2500e-6, "ceil")).toBeCloseTo(0.24, 10);
  });
  it("takes the end row beyond the table", () => {
    expect(limit(2, 10e-6)).toBe(0.35);
    expect(limit(600, 10e-6)).toBe(0.24);
  });
  it.each([0, -1, Number.NaN])("refuses %s volts", (volts) => {
    expect(() => limit(volts, 1e-3)).toThrow(OutOfRangeError);
  });
});

describe("seriesResistanceTemperatureFactor", () => {
  it("is 1 at 20 degrees, more than 2 at -10, and never below its floor when hot", () => {
    expect(seriesResistanceTemperatureFactor(20).factorRatio).toBe(1);
    expect(seriesResistanceTemperatureFactor(-10).factorRatio).toBeGreaterThan(2);
    expect(seriesResistanceTemperatureFactor(105).factorRatio).toBeGreaterThan(0.35);
  });
  it("clamps and says so outside its range, but not for a polymer", () => {
    expect(seriesResistanceTemperatureFactor(-40).isClamped).toBe(true);
    expect(seriesResistanceTemperatureFactor(-40).factorRatio).toBe(seriesResistanceTemperatureFactor(-10).factorRatio);
    expect(seriesResistanceTemperatureFactor(-40, "polymer")).toEqual({ factorRatio: 1, isClamped: false });
  });
  test.prop([fc.double({ min: -10, max: 104, noNaN: true })])("falls with temperature", (celsius) => {
    const here = seriesResistanceTemperatureFactor(celsius).factorRatio;
    expect(seriesResistanceTemperatureFactor(celsius + 1).factorRatio).toBeLessThan(here);
  });
  it("refuses absolute zero", () => {
    expect(() => seriesResistanceTemperatureFactor(-273.15)).toThrow(OutOfRangeError);
  });
});

describe("canImpedance", () => {
  it("reads the table for a common can and the power law for an odd one", () => {
    expect(canImpedance(can)).toMatchObject({ impedanceMaxOhms: 0.046, source: "table" });
    expect(canImpedance({ ...can, heightMetres: 0.0225 }).source).toBe("power_law");
  });
  it("keeps the table's edges inclusive after conversion from metres", () => {
    expect(canImpedance({ ...can, diameterMetres: 0.0103 }).source).toBe("table");
    expect(canImpedance({ ...can, diameterMetres: 0.01031 }).source).toBe("power_law");
  });
  it("halves for very low impedance and rises with voltage", () => {
    expect(canImpedance({ ...can, capacitorClass: "ultra" }).impedanceMaxOhms).toBeCloseTo(0.023, 10);
    expect(canImpedance({ ...can, ratedVolts: 63 }).impedanceMaxOhms).toBeCloseTo(0.092, 10);
  });
  it("has no answer above 100 V", () => {
    expect(() => canImpedance({ ...can, ratedVolts: 160 })).toThrow(OutOfRangeError);
  });
  test.prop([fc.double({ min: 0.006, max: 0.018, noNaN: true }), fc.double({ min: 0.011, max: 0.04, noNaN: true })])(
    "gives a larger can no less ripple rating at the same impedance",
    (diameter, height) => {
      const small = pseudoRatedRippleAmpsRms(canSurfaceSquareMetres(diameter, height), 0.05);
      const large = pseudoRatedRippleAmpsRms(canSurfaceSquareMetres(diameter * 1.1, height), 0.05);
      expect(large).toBeGreaterThan(small);
    },
  );
});

describe("expectedEsr", () => {
  it("prefers data sheet, then can, then tan delta", () => {
    expect(expectedEsr({ ...part, datasheetEsrOhms: 0.03 }).source).toBe("datasheet");
    expect(expectedEsr(part).source).toBe("can_table");
    expect(expectedEsr({ ...part, diameterMetres: null }).source).toBe("tan_delta");
    expect(expectedEsr({ ...part, capacitorClass: "gp" }).source).toBe("tan_delta");
    expect(expectedEsr({ ...part, capacitorClass: "polymer", diameterMetres: null }).source).toBe("polymer_default");
  });
  it("puts the high end on the catalogue maximum at 100 kHz", () => {
    expect(expectedEsr({ ...part, datasheetEsrOhms: 0.03 }).highOhms).toBeCloseTo(0.03, 8);
  });
  it("meets the tan delta limit at 120 Hz", () => {
    const high = expectedEsr({ ...part, frequencyHertz: 120 }).highOhms;
    expect(high * 2 * Math.PI * 120 * 1e-3).toBeCloseTo(0.16, 3);
  });
  it("falls back to tan delta where the reactance swamps the can's impedance, and says so", () => {
    const small = expectedEsr({ ...part, capacitanceFarads: 1e-6 });
    expect(small.source).toBe("tan_delta");
    expect(small.flags).toContain("xc_dominates");
  });
  it("flags a temperature outside its model", () => {
    expect(expectedEsr({ ...part, temperatureCelsius: -30 }).flags).toContain("temperature_clamped");
  });
  test.prop([farads, fc.constantFrom(...capacitorClasses), fc.constantFrom(6.3, 16, 25, 63, 400)])(
    "gives an ordered band that falls with frequency and, for liquids, with temperature",
    (capacitanceFarads, capacitorClass, ratedVolts) => {
      const question = { ...part, capacitanceFarads, capacitorClass, ratedVolts };
      const cold = expectedEsr(question);
      expect(cold.lowOhms).toBeLessThan(cold.typicalOhms);
      expect(cold.typicalOhms).toBeLessThanOrEqual(cold.highOhms);
      expect(expectedEsr({ ...question, frequencyHertz: 1000 }).typicalOhms).toBeGreaterThan(cold.typicalOhms);
      const warm = expectedEsr({ ...question, temperatureCelsius: 60 }).typicalOhms;
      if (capacitorClass === "polymer" || capacitorClass === "hybrid") expect(warm).toBe(cold.typicalOhms);
      else expect(warm).toBeLessThan(cold.typicalOhms);
    },
  );
  it.each([
    ["capacitanceFarads", 0],
    ["ratedVolts", -16],
    ["frequencyHertz", Number.NaN],
    ["temperatureCelsius", -300],
    ["datasheetEsrOhms", 0],
    ["heightMetres", -0.01],
  ])("refuses %s of %s", (name, value) => {
    expect(() => expectedEsr({ ...part, [name]: value })).toThrow(OutOfRangeError);
  });
});

describe("testerReading and compensatedEsr", () => {
  const situation = {
    capacitanceFarads: 100e-6,
    frequencyHertz: 100e3,
    eslHenrys: 15e-9,
    leadOhms: 0.02,
    leadHenrys: 50e-9,
    mode: "magnitude",
  } as const;
  const exact = { meterOhms: 0, leadOhms: 0, contactOhms: 0 };

  test.prop([fc.double({ min: 0.005, max: 50, noNaN: true }), fc.constantFrom("real", "magnitude")])(
    "undo each other in both modes",
    (esrOhms, mode) => {
      const { readingOhms } = testerReading(esrOhms, { ...situation, mode });
      expect(compensatedEsr(readingOhms, { ...situation, mode }, exact).esrOhms).toBeCloseTo(esrOhms, 6);
    },
  );
  it("has no ESR where the magnitude lies below the reactance alone", () => {
    expect(compensatedEsr(0.001, situation, exact)).toEqual({
      esrOhms: null,
      standardUncertaintyOhms: null,
      isValid: false,
    });
  });
  it("does not call a value valid that drowns in its uncertainty", () => {
    const real = { ...situation, mode: "real" } as const;
    const rough = { meterOhms: 0.02, leadOhms: 0.01, contactOhms: 0.01 };
    expect(compensatedEsr(0.05, real, rough).isValid).toBe(false);
    expect(compensatedEsr(0.5, real, rough).isValid).toBe(true);
    expect(compensatedEsr(0.01, real, rough).esrOhms).toBe(0);
  });
  it("refuses negative readings and leads", () => {
    expect(() => compensatedEsr(-1, situation, exact)).toThrow(OutOfRangeError);
    expect(() => testerReading(1, { ...situation, leadOhms: -0.1 })).toThrow(OutOfRangeError);
  });
});

describe("leakageLimitAmps", () => {
  const limit = { capacitanceFarads: 1e-3, ratedVolts: 16, factorRatio: 0.01, floorAmps: 3e-6 };
  it("is 0.01 CV with a floor", () => {
    expect(leakageLimitAmps(limit)).toBeCloseTo(160e-6, 12);
    expect(leakageLimitAmps({ ...limit, capacitanceFarads: 1e-6 })).toBe(3e-6);
  });
  it("refuses a factor of zero", () => {
    expect(() => leakageLimitAmps({ ...limit, factorRatio: 0 })).toThrow(OutOfRangeError);
  });
});

describe("a hybrid", () => {
  const hybrid = (diameterMetres: number | null, ratedVolts: number, datasheetEsrOhms: number | null = null) =>
    expectedEsrOfPart(
      {
        ...{ capacitanceFarads: 47e-6, ratedVolts, capacitorClass: "hybrid", diameterMetres, heightMetres: 0.01 },
        datasheetEsrOhms,
      },
      100e3,
      20,
    );
  it("has an ESR by its can and its volts, not one for all", () => {
    expect(hybridEsrMaximumOhms({ diameterMetres: 0.008, ratedVolts: 35 })).toBeCloseTo(0.027, 9);
    expect(hybridEsrMaximumOhms({ diameterMetres: 0.008, ratedVolts: 63 })).toBeCloseTo(0.0432, 9);
    expect(hybridEsrMaximumOhms({ diameterMetres: 0.0063, ratedVolts: 35 })).toBeCloseTo(0.06, 9);
    expect(hybridEsrMaximumOhms({ diameterMetres: null, ratedVolts: 100 })).toBeCloseTo(0.027 * 2.4, 9);
    expect(hybrid(0.008, 63)?.highOhms).toBeCloseTo(0.0432, 4);
    expect(hybrid(0.008, 63)?.source).toBe("polymer_can");
    expect(hybrid(0.008, 63, 0.03)?.source).toBe("datasheet");
  });
});

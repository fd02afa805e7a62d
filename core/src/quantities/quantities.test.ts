import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { formatMarkedCapacitance, formatQuantity } from "./formatQuantity";
import { parseQuantity } from "./parseQuantity";
import { type Unit, unitFacts } from "./units";

const value = (text: string, unit: Unit, prefix?: "m" | "u" | "") => {
  const parsed = parseQuantity(text, unit, prefix);
  return parsed.ok ? parsed.value : parsed.failure.code;
};

describe("parseQuantity", () => {
  it.each([
    ["4u7", "F", 4.7e-6],
    ["1000µF", "F", 1e-3],
    ["1000 uF", "F", 1e-3],
    ["0R41", "Ω", 0.41],
    ["R41", "Ω", 0.41],
    ["47R", "Ω", 47],
    ["33m", "Ω", 0.033],
    ["33 mOhm", "Ω", "not_a_quantity"],
    ["33 mohm", "Ω", 0.033],
    ["1,5k", "Ω", 1500],
    ["2M2", "Ω", 2.2e6],
    ["0.47", "F", 0.47],
    ["-12,1 V", "V", -12.1],
    ["2.2e-3", "F", 2.2e-3],
    ["12.5", "mm", 0.0125],
    ["12,5mm", "mm", 0.0125],
    ["5 %", "%", 0.05],
    ["105°C", "°C", 105],
    ["", "V", "empty"],
    ["4k7", "F", 4700],
    ["45,50", "", 45.5],
    ["45k", "", "prefix_not_used"],
    ["4R7", "V", "not_a_quantity"],
    ["12k", "°C", "prefix_not_used"],
    ["abc", "V", "not_a_quantity"],
    ["1 2 x", "V", "not_a_quantity"],
  ] as const)("reads %s in %s", (text, unit, expected) => {
    expect(value(text, unit)).toBe(expected);
  });

  it("gives a bare number the prefix of the expectation, and leaves a spelled unit alone", () => {
    expect(value("41", "Ω", "m")).toBe(0.041);
    expect(value("41 ohm", "Ω", "m")).toBe(41);
    expect(value("0R41", "Ω", "m")).toBe(0.41);
    // R is spelled out too: 24 ohm are not 24 milliohm.
    for (const text of ["24R", "24r", "24 R", "24Ω"]) expect(value(text, "Ω", "m")).toBe(24);
    expect(value("8.3R", "Ω", "m")).toBe(8.3);
    expect(value("0.19R", "Ω", "m")).toBe(0.19);
  });

  it("refuses two decimal marks and offers both readings", () => {
    expect(parseQuantity("1.000,5", "V")).toEqual({
      ok: false,
      failure: { code: "ambiguous_marks", readings: ["1000.5", "1.0005"] },
    });
    expect(parseQuantity("1,000,000", "Ω")).toEqual({
      ok: false,
      failure: { code: "ambiguous_marks", readings: ["1000000", "1.000000"] },
    });
  });

  it("asks whether a comma before three digits is a thousand", () => {
    expect(parseQuantity("1,000", "V")).toEqual({
      ok: false,
      failure: { code: "comma_thousand", readings: ["1000", "1.000"] },
    });
    expect(value("1,000u", "F")).toBe("comma_thousand");
    expect(value("-4,700", "V")).toBe("comma_thousand");
    expect([
      value("4,7", "V"),
      value("4,70", "V"),
      value("0,123", "V"),
      value("12,345", "V"),
      value("1.000", "V"),
    ]).toEqual([4.7, 4.7, 0.123, 12.345, 1]);
  });

  test.prop([fc.string(), fc.constantFrom(...(Object.keys(unitFacts) as Unit[]))])(
    "never throws and never yields a number that is not finite",
    (text, unit) => {
      const parsed = parseQuantity(text, unit);
      expect(!parsed.ok || Number.isFinite(parsed.value)).toBe(true);
    },
  );
});

describe("formatQuantity", () => {
  it.each([
    [0.0412, "Ω", "41.2 mΩ"],
    [0.99996, "Ω", "1 Ω"],
    [999.96e-6, "F", "1 mF"],
    [0, "V", "0 V"],
    [-12.34, "V", "-12.3 V"],
    [0.0125, "mm", "12.5 mm"],
    [0.053, "%", "5.3 %"],
    [105, "°C", "105 °C"],
  ] as const)("prints %s %s as %s", (number, unit, text) => {
    expect(formatQuantity(number, unit).text.replace("\u00a0", " ")).toBe(text);
  });

  it("keeps the zeros of a measured value and microfarads on a marking", () => {
    expect(formatQuantity(12, "V", { keepsZeros: true }).number).toBe("12.0");
    expect(formatMarkedCapacitance(1e-3)).toBe("1000\u00a0µF");
    expect(formatMarkedCapacitance(4.7e-6)).toBe("4.7\u00a0µF");
  });

  test.prop([
    fc.double({ min: 1e-11, max: 9e9, noNaN: true }),
    fc.constantFrom<Unit>("F", "Ω", "V", "A", "Hz", "mm", "%"),
  ])("parses back to itself within its digits, with one to three digits before the point", (number, unit) => {
    const printed = formatQuantity(number, unit, { significantDigits: 4 });
    const parsed = parseQuantity(printed.text, unit);
    expect(parsed.ok && Math.abs(parsed.value - number) <= number * 5.1e-4).toBe(true);
    if (unitFacts[unit].takesPrefix) expect(printed.number).toMatch(/^\d{1,3}(\.|$)/);
  });
});

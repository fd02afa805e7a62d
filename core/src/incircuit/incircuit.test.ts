import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { bankImpedance } from "./bankImpedance";
import { bankIntervals } from "./bankIntervals";

const part = { capacitanceFarads: 1e-3, esrOhms: 0.04 };

describe("bankImpedance", () => {
  it("halves the ESR and doubles the capacitance of two equal parts", () => {
    const bank = bankImpedance([part, part], 1000);
    expect(bank.resistanceOhms).toBeCloseTo(0.02, 10);
    expect(bank.capacitanceFarads).toBeCloseTo(2e-3, 10);
  });
  it("hides a bank behind a choke at 100 kHz and shows it at 120 Hz", () => {
    const parts = [part, { ...part, isBehindChoke: true }];
    const network = { chokeHenrys: 10e-6, chokeOhms: 0.01 };
    expect(bankImpedance(parts, 100e3, network).resistanceOhms).toBeCloseTo(0.04, 3);
    expect(bankImpedance(parts, 120, network).capacitanceFarads).toBeCloseTo(2e-3, 4);
  });
  it("is inductive above resonance and then has no capacitance", () => {
    expect(bankImpedance([{ ...part, eslHenrys: 20e-9 }], 1e6).capacitanceFarads).toBeNull();
  });
  test.prop([fc.array(fc.double({ min: 0.01, max: 5, noNaN: true }), { minLength: 1, maxLength: 8 })])(
    "never reads above its best part, leads apart",
    (esrs) => {
      const bank = bankImpedance(
        esrs.map((esrOhms) => ({ capacitanceFarads: 1, esrOhms })),
        100e3,
      );
      expect(bank.resistanceOhms).toBeLessThanOrEqual(Math.min(...esrs) * (1 + 1e-9));
    },
  );
  it("refuses nothing, nine parts, and parts that all sit behind an unnamed probe point", () => {
    expect(() => bankImpedance([], 1000)).toThrow(OutOfRangeError);
    expect(() => bankImpedance(Array(9).fill(part), 1000)).toThrow(OutOfRangeError);
    expect(() => bankImpedance([part], 1000, { chokeHenrys: 0 })).toThrow(OutOfRangeError);
  });
});

describe("bankIntervals", () => {
  const pair = { typicalEsrOhms: [0.03, 0.03], standardUncertaintyOhms: 0, leadOhms: 0, mode: "any" } as const;
  const verdicts = (readingOhms: number) => bankIntervals({ ...pair, readingOhms }).parts.map((one) => one.verdict);

  it("masks a pair at the reading of one sound part, and condemns both far above", () => {
    expect(verdicts(0.03)).toEqual(["masked", "masked"]);
    expect(verdicts(0.2)).toEqual(["condemned", "condemned"]);
  });
  it("says how bad a part could hide", () => {
    const [first] = bankIntervals({ ...pair, readingOhms: 0.03 }).parts;
    expect(first?.hiddenFaultMultiple).toBeGreaterThanOrEqual(3);
  });
  test.prop([
    fc.array(fc.double({ min: 0.5, max: 30, noNaN: true }), { minLength: 1, maxLength: 4 }),
    fc.array(fc.double({ min: 0.01, max: 0.5, noNaN: true }), { minLength: 4, maxLength: 4 }),
  ])("always contains the truth it was read from", (multiples, typical) => {
    const typicalEsrOhms = multiples.map((_, i) => typical[i] as number);
    const conductance = multiples.reduce((sum, m, i) => sum + 1 / (m * (typical[i] as number)), 0);
    const result = bankIntervals({ ...pair, typicalEsrOhms, readingOhms: 1 / conductance });
    result.parts.forEach((one, i) => {
      expect(one.verdict).not.toBe("inconsistent");
      expect(one.multipleMin).toBeLessThanOrEqual((multiples[i] as number) * (1 + 1e-6));
      expect(one.multipleMax).toBeGreaterThanOrEqual((multiples[i] as number) * (1 - 1e-6));
      if ((multiples[i] as number) > 3.001) expect(one.verdict).not.toBe("cleared");
      if ((multiples[i] as number) < 2.999) expect(one.verdict).not.toBe("condemned");
    });
  });
  it("refuses limits out of order", () => {
    expect(() => bankIntervals({ ...pair, readingOhms: 0.03, wornRatio: 4 })).toThrow(OutOfRangeError);
  });
});

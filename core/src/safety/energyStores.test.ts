import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition } from "../../testing/sampleJob";
import { OutOfRangeError } from "../errors";
import { chargeDanger, dangerLevels, fallOfKilogramMetres } from "./chargeDanger";
import { energyStoreOffers, expectedStoreVolts } from "./energyStores";

describe("expectedStoreVolts", () => {
  it("takes the crest of the mains, doubled or halved as the store is wired", () => {
    expect(expectedStoreVolts("bridge", 230)).toBeCloseTo(325.27, 2);
    expect(expectedStoreVolts("doubler", 120)).toBeCloseTo(339.41, 2);
    expect(expectedStoreVolts("pair_half", 230)).toBeCloseTo(162.63, 2);
  });
  test.prop([fc.double({ min: 90, max: 265, noNaN: true })])("halves of a doubler make the whole", (mains) => {
    expect(2 * expectedStoreVolts("doubler_half", mains)).toBeCloseTo(expectedStoreVolts("doubler", mains), 9);
    expect(expectedStoreVolts("pfc", mains)).toBe(expectedStoreVolts("pfc", 230));
  });
  it("refuses a mains of nothing", () => {
    expect(() => expectedStoreVolts("bridge", 0)).toThrow(OutOfRangeError);
  });
});

describe("energyStoreOffers", () => {
  const bulk = sampleNet({ id: "net-bulk", section: "bulk", nominalVolts: null });
  const strong = sampleNet({ id: "net-24", name: "24 V", nominalVolts: 24 });
  it("names every bulk at the crest, and an output bank only where it holds something", () => {
    const job = sampleJob({
      nets: [bulk, strong, sampleNet()],
      positions: [
        samplePosition("C1", { netId: "net-bulk" }),
        samplePosition("C5", { netId: "net-24" }),
        samplePosition("C6", { netId: "net-24" }),
        samplePosition("C7"),
      ],
      fittedParts: [
        samplePart("C1", { capacitanceFarads: 120e-6 }),
        samplePart("C5"),
        samplePart("C6"),
        samplePart("C7"),
      ],
    });
    const offers = energyStoreOffers(job, 230);
    // 2 mF at 24 V hold 0.58 J; 1 mF at 12 V hold 0.07 J and are not worth naming.
    expect(offers.map((one) => [one.kind, one.designators.join("+"), one.expectedVolts])).toEqual([
      ["bulk", "C1", 325],
      ["output_bank", "C5+C6", 24],
    ]);
    expect(offers[1]?.capacitanceFarads).toBeCloseTo(2e-3, 12);
  });
});

describe("chargeDanger", () => {
  it("knows a deadly bulk from a faint output bank of the same energy", () => {
    expect(chargeDanger(10.6, 325)).toBe("deadly");
    expect(chargeDanger(10.6, 48)).toBe("faint");
    expect(chargeDanger(0.05, 325)).toBe("startling");
  });
  test.prop([fc.double({ min: 0, max: 100, noNaN: true }), fc.double({ min: 0, max: 100, noNaN: true })])(
    "never grows milder with energy",
    (a, b) => {
      const level = (joules: number) => dangerLevels.indexOf(chargeDanger(joules, 325));
      expect(level(Math.max(a, b))).toBeGreaterThanOrEqual(level(Math.min(a, b)));
    },
  );
  it("compares with a falling kilogram: 9.81 J from a metre", () => {
    expect(fallOfKilogramMetres(9.81)).toBeCloseTo(1, 12);
    expect(() => fallOfKilogramMetres(-1)).toThrow(OutOfRangeError);
  });
});

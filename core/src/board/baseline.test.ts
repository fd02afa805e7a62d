import { expect, it } from "vitest";
import { baselineOfUnits, type GoodReading } from "./baseline";

const read = (unitId: string, value: number, isKnownGood = false): GoodReading => ({
  unitId,
  isKnownGood,
  designator: "C7",
  quantity: "esr",
  isInCircuit: true,
  frequencyHertz: 100e3,
  value,
});

it("takes median and ends over sound parts of several units", () => {
  const [one] = baselineOfUnits([read("a", 0.02), read("b", 0.03), read("c", 0.08), read("c", 0)]);
  expect(one).toMatchObject({ typical: 0.03, low: 0.02, high: 0.08, unitCount: 3, isKnownGood: false });
});
it("counts only known-good units where there is one, with a band for what one unit cannot tell", () => {
  const [one] = baselineOfUnits([read("a", 0.1), read("good", 0.04, true)]);
  expect(one).toMatchObject({ typical: 0.04, unitCount: 1, isKnownGood: true });
  expect([one?.low, one?.high]).toEqual([0.03, 0.05]);
});
it("keeps places, states and frequencies apart", () => {
  const other = { ...read("a", 0.2), isInCircuit: false };
  expect(baselineOfUnits([read("a", 0.1), other, { ...other, frequencyHertz: 120 }])).toHaveLength(3);
});

import { describe, expect, it } from "vitest";
import { creepBackVolts } from "./creepBack";

describe("creepBackVolts", () => {
  it("doubles after a minute what came back in it, and less the longer one waited", () => {
    expect(creepBackVolts(9, 9.5, 60)).toBeCloseTo(10, 12);
    expect(creepBackVolts(9, 9.5, 120)).toBeCloseTo(9.75, 12);
    expect(creepBackVolts(0, 9, 60)).toBeCloseTo(18, 12);
  });
  it("stays where it is that did not rise", () => {
    expect(creepBackVolts(9, 9, 60)).toBe(9);
    expect(creepBackVolts(9, 4, 60)).toBe(4);
  });
  it("refuses magnitudes below zero and no time between, by their names", () => {
    expect(() => creepBackVolts(-1, 2, 60)).toThrow("firstVolts");
    expect(() => creepBackVolts(1, -2, 60)).toThrow("secondVolts");
    expect(() => creepBackVolts(1, 2, 0)).toThrow("seconds");
  });
});

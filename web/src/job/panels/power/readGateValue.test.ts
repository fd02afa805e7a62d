import { describe, expect, it } from "vitest";
import { readGateValue } from "./readGateValue";

describe("readGateValue", () => {
  it.each([
    ["470k", "bulk", 470e3],
    ["0R3", "bulk", 0.3],
    ["0.95", "bridge", 0.95],
    ["ol", "bridge", "open"],
    [" OPEN ", "bulk", "open"],
    ["", "bulk", null],
  ] as const)("reads %s of %s as %s", (text, item, value) => {
    expect(readGateValue(text, item)).toEqual({ value, problem: null });
  });
  it("says what it does not understand, and what lies below zero", () => {
    expect(readGateValue("low", "bulk")).toMatchObject({ value: null, problem: expect.stringContaining("Ω") });
    expect(readGateValue("-0.4", "bridge").problem).toContain("other way round");
  });
});

import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { type RepairCosts, repairBalance } from "./repairBalance";

const costs: RepairCosts = {
  labourMinutes: 45,
  labourPerHourMinor: 6000,
  partsMinor: 320,
  comebackProbability: 0.05,
  replacementMinor: null,
  limitMinor: 8500,
};

describe("repairBalance", () => {
  it("adds three quarters of an hour and the parts", () => {
    expect(repairBalance(costs)).toEqual({ labourMinor: 4500, quoteMinor: 4820, comebackMinor: 241, verdict: "pays" });
  });
  it.each([
    [{ limitMinor: 4000 }, "above_limit"],
    [{ toldMinor: 8501 }, "above_limit"],
    [{ toldMinor: 8500 }, "pays"],
    [{ limitMinor: null, replacementMinor: 8000, toldMinor: 7760 }, "replacement_cheaper"],
    [{ replacementMinor: 5000 }, "replacement_cheaper"],
    [{ replacementMinor: 5100 }, "pays"],
    [{ limitMinor: null, replacementMinor: null }, "nothing_to_compare"],
    [{ labourMinutes: null }, "not_known"],
  ] as const)("with %o says %s", (more, verdict) => {
    expect(repairBalance({ ...costs, ...more }).verdict).toBe(verdict);
  });
  test.prop([fc.integer({ min: 0, max: 600 }), fc.integer({ min: 0, max: 100_000 })])(
    "never quotes in fractions of the minor unit, nor less for more work",
    (labourMinutes, partsMinor) => {
      const quote = repairBalance({ ...costs, labourMinutes, partsMinor }).quoteMinor ?? -1;
      expect(Number.isInteger(quote)).toBe(true);
      const more = repairBalance({ ...costs, labourMinutes: labourMinutes + 10, partsMinor }).quoteMinor ?? -1;
      expect(more).toBeGreaterThan(quote);
    },
  );
  it("refuses negative minutes", () => {
    expect(() => repairBalance({ ...costs, labourMinutes: -1 })).toThrow(OutOfRangeError);
  });
});

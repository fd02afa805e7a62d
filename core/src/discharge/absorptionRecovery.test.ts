import { describe, expect, it } from "vitest";
import { negative, notPositive, wronglyTaken } from "../../testing/refusals";
import { absorptionRecovery } from "./absorptionRecovery";

describe("absorptionRecovery", () => {
  it("brings 8 to 40 V back after a bulk at 400 V was drained to nothing", () => {
    expect(absorptionRecovery({ startVolts: 400, remainingVolts: 0 })).toEqual({
      lowVolts: 8,
      highVolts: 40,
      mustDrainAgain: true,
      mayExceedTouchLimit: false,
    });
  });
  it("asks for nothing more on a small rail", () => {
    expect(absorptionRecovery({ startVolts: 24, remainingVolts: 0 }).mustDrainAgain).toBe(false);
  });
  it("brings back a share of what was taken away, on top of what was left", () => {
    const half = { startVolts: 400, remainingVolts: 100, lowRatio: 0.1, highRatio: 0.2 };
    expect(absorptionRecovery(half)).toMatchObject({ lowVolts: 130, highVolts: 160, mayExceedTouchLimit: true });
    // Nothing was taken away: it stays where it is.
    expect(absorptionRecovery({ startVolts: 20, remainingVolts: 30 })).toMatchObject({ lowVolts: 30, highVolts: 30 });
  });
  it("counts as low up to the target and up to the touch limit, and not beyond", () => {
    const back = (remainingVolts: number) => absorptionRecovery({ startVolts: remainingVolts, remainingVolts });
    expect([back(10).mustDrainAgain, back(10.1).mustDrainAgain]).toEqual([false, true]);
    expect([back(60).mayExceedTouchLimit, back(60.1).mayExceedTouchLimit]).toEqual([false, true]);
  });
  it("refuses voltages that are none and fractions that are not low <= high < 1", () => {
    const sound = { startVolts: 400, remainingVolts: 0, lowRatio: 0.1, highRatio: 0.2 };
    const bad = { startVolts: notPositive, remainingVolts: negative, lowRatio: notPositive, highRatio: [0.05, 1, -1] };
    expect(wronglyTaken(absorptionRecovery, sound, bad)).toEqual([]);
    expect(absorptionRecovery({ ...sound, lowRatio: 0.2 }).lowVolts).toBe(80);
  });
});

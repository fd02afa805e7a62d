import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { notPositive, wronglyTaken } from "../../testing/refusals";
import { lampFromRating } from "../discharge/drainPath";
import { dcFeedFor, limiterFor, seriesLampFor } from "./lampAndLimiter";

describe("seriesLampFor", () => {
  it.each([
    [10, 40],
    [65, 75],
    [100, 100],
    [101, 100],
    [400, 100],
    [401, 200],
  ])("takes for a unit that gives %s W a lamp of %s W", (unit, lamp) => {
    expect(seriesLampFor(unit, 230)).toMatchObject({ lampWatts: lamp, isCapped: unit > 100 });
  });
  it("limits a dead short to the lamp's own current", () => {
    expect(seriesLampFor(60, 230).shortCircuitAmpsRms).toBeCloseTo(60 / 230, 10);
  });
  test.prop([fc.double({ min: 1, max: 1000, noNaN: true }), fc.constantFrom(120, 230)])(
    "lets more through cold than hot: the first flash is no fault",
    (watts, volts) => {
      const lamp = seriesLampFor(watts, volts);
      expect(lamp.coldPeakAmps).toBeGreaterThan(5 * lamp.shortCircuitAmpsRms);
    },
  );
  it("flashes at the crest through the cold filament, and feeds a quarter of its rating", () => {
    const lamp = seriesLampFor(60, 230);
    expect(lamp.coldPeakAmps).toBeCloseTo((Math.SQRT2 * 230) / lampFromRating(230, 60).coldOhms, 9);
    expect(lamp.usableWatts).toBe(15);
    expect(seriesLampFor(40.1, 230).lampWatts).toBe(60);
  });
  it("refuses a unit without power and a mains without volts", () => {
    const lamp = (one: { outputWatts: number; mainsVoltsRms: number }) =>
      seriesLampFor(one.outputWatts, one.mainsVoltsRms);
    const limit = (one: { outputWatts: number; mainsVoltsRms: number }) =>
      limiterFor(one.outputWatts, one.mainsVoltsRms, false);
    const bad = { outputWatts: notPositive, mainsVoltsRms: notPositive };
    for (const of of [lamp, limit]) expect(wronglyTaken(of, { outputWatts: 60, mainsVoltsRms: 230 }, bad)).toEqual([]);
  });
});

describe("limiterFor", () => {
  it("leaves room above the rating and limits what a short would draw", () => {
    // 65 W at 0.85 and a power factor of 0.6 are 0.55 A at 230 V; half again on top.
    expect(limiterFor(65, 230, false).tripAmpsRms).toBeCloseTo((1.5 * 65) / (0.85 * 0.6 * 230), 9);
    // 750 W behind a boost stage: full load about 4 A, not 14.
    expect(limiterFor(750, 230, true).tripAmpsRms).toBeCloseTo((1.5 * 750) / (0.85 * 0.95 * 230), 9);
    expect(limiterFor(1, 230, false)).toEqual({ tripAmpsRms: 0.1, bulkFeedAmps: 0.02 });
    // A tenth of 76 W at the crest of 325 V.
    expect(limiterFor(65, 230, false).bulkFeedAmps).toBeCloseTo(6.5 / 0.85 / (Math.SQRT2 * 230), 9);
  });
});

describe("dcFeedFor", () => {
  it("starts at a tenth of what the unit draws, and never lets more through than the whole", () => {
    expect(dcFeedFor(51, 12)).toEqual({ startAmps: expect.closeTo(0.5, 9), fullAmps: expect.closeTo(5, 9) });
    expect(dcFeedFor(2, 24).startAmps).toBe(0.05);
    expect(dcFeedFor(0.5, 24).startAmps).toBe(dcFeedFor(0.5, 24).fullAmps);
    const of = (one: { outputWatts: number; inputVolts: number }) => dcFeedFor(one.outputWatts, one.inputVolts);
    const bad = { outputWatts: notPositive, inputVolts: notPositive };
    expect(wronglyTaken(of, { outputWatts: 60, inputVolts: 12 }, bad)).toEqual([]);
  });
});

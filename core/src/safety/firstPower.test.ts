import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { notPositive, wronglyTaken } from "../../testing/refusals";
import { lampFromRating } from "../discharge/drainPath";
import { limiterFor, seriesLampFor } from "./firstPower";

describe("seriesLampFor", () => {
  it.each([
    [10, 40],
    [65, 75],
    [100, 100],
    [500, 200],
  ])("takes for a unit of %s W a lamp of %s W", (unit, lamp) => {
    expect(seriesLampFor(unit, 230).lampWatts).toBe(lamp);
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
    const lamp = (one: { unitWatts: number; mainsVoltsRms: number }) => seriesLampFor(one.unitWatts, one.mainsVoltsRms);
    const limit = (one: { unitWatts: number; mainsVoltsRms: number }) => limiterFor(one.unitWatts, one.mainsVoltsRms);
    const bad = { unitWatts: notPositive, mainsVoltsRms: notPositive };
    for (const of of [lamp, limit]) expect(wronglyTaken(of, { unitWatts: 60, mainsVoltsRms: 230 }, bad)).toEqual([]);
  });
});

describe("limiterFor", () => {
  it("leaves room above the rating and limits what a short would draw", () => {
    // 60 W at 0.8 and a power factor of 0.6 are 0.54 A; half again on top.
    expect(limiterFor(60, 230).tripAmpsRms).toBeCloseTo((1.5 * 75) / (0.6 * 230), 9);
    expect(limiterFor(1, 230)).toEqual({ tripAmpsRms: 0.1, bulkFeedAmps: 0.02 });
    // A tenth of 75 W at the crest of 325 V.
    expect(limiterFor(60, 230).bulkFeedAmps).toBeCloseTo(7.5 / (Math.SQRT2 * 230), 9);
  });
});

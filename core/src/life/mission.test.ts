import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { missionLife } from "./missionLife";
import { missionProfile } from "./missionProfile";

const rating = {
  ratedLifeHours: 2000,
  ratedTemperatureCelsius: 105,
  ratedRippleAmpsRms: 1,
  ratedCoreRiseKelvin: 5,
  school: "split",
} as const;
const unknown = { hoursPerDay: null, standbyHoursPerDay: null, ambientCelsius: null, isEnclosed: null };

describe("missionLife", () => {
  it("is the plain life where the whole day is the same", () => {
    // At rated ripple and 65 degrees: 2000 h x 2^4 = 32000 h = 1333 days.
    const life = missionLife(rating, [{ hours: 24, ambientCelsius: 65, rippleAmpsRms: 1 }], null);
    expect(life.lifeDays).toBeCloseTo(32000 / 24, 6);
    expect(life.shares).toEqual([1]);
  });
  test.prop([fc.double({ min: 0.5, max: 12, noNaN: true }), fc.double({ min: 0.5, max: 11, noNaN: true })])(
    "shortens with every hour of work, and shares the damage out to one",
    (hours, more) => {
      const day = (worked: number) =>
        missionLife(rating, [{ hours: worked, ambientCelsius: 60, rippleAmpsRms: 0.7 }], 25);
      expect(day(hours + more).lifeDays).toBeLessThan(day(hours).lifeDays);
      expect(day(hours).shares.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 9);
    },
  );
  it("refuses a day of 25 hours and a day without work", () => {
    const segment = { ambientCelsius: 60, rippleAmpsRms: 0.5 };
    expect(() => missionLife(rating, [{ hours: 25, ...segment }], null)).toThrow(OutOfRangeError);
    expect(() => missionLife(rating, [], null)).toThrow(OutOfRangeError);
  });
});

describe("missionProfile", () => {
  it("says nothing while nothing was promised", () => {
    expect(missionProfile(unknown, 1, false)).toBeNull();
  });
  it("takes the usual for what is not known, and an enclosed unit hotter", () => {
    const open = missionProfile({ ...unknown, hoursPerDay: 6 }, 1, false);
    expect(open?.segments).toEqual([{ hours: 6, ambientCelsius: 45, rippleAmpsRms: 1 }]);
    expect(missionProfile({ ...unknown, isEnclosed: true }, 1, false)?.partAmbientCelsius).toBe(60);
  });
  it("gives standby its hours, with ripple only where the part runs then, and never more than the day has", () => {
    const all = { hoursPerDay: 20, standbyHoursPerDay: 24, ambientCelsius: 30, isEnclosed: false };
    const standby = (isStandby: boolean) => missionProfile(all, 1, isStandby)?.segments[1];
    expect(standby(true)).toEqual({ hours: 4, ambientCelsius: 38, rippleAmpsRms: 0.3 });
    expect(standby(false)?.rippleAmpsRms).toBe(0);
  });
});

import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { quoteDrift, repairEstimate } from "./repairEstimate";
import { stockDeadline } from "./stockDeadline";

const rules = { usualMinutes: 60, minutesPerPart: 6, usualPartMinor: 80 };
const nothing = { chosenMinor: 0, chosenCount: 0, condemnedCount: 0 };
const closed = (...minutes: (number | null)[]) =>
  minutes.map((spentMinutes) => ({ spentMinutes, partsMinor: 300, quotedMinutes: null }));

describe("quoteDrift", () => {
  const job = (spentMinutes: number | null, quotedMinutes: number | null) => ({
    spentMinutes,
    quotedMinutes,
    partsMinor: null,
  });
  it("is the median of spent to quoted over jobs that have both, from five on", () => {
    const jobs = [job(60, 50), job(30, 30), job(90, 60), job(20, 40), job(120, 100)];
    expect(quoteDrift(jobs)).toEqual({ ratio: 1.2, count: 5 });
    expect(quoteDrift(jobs.slice(1))).toBeNull();
    expect(quoteDrift([...jobs.slice(1), job(null, 50), job(60, null), job(60, 0)])).toBeNull();
  });
});

describe("repairEstimate", () => {
  it("takes the median of at least five closed jobs, and says so", () => {
    expect(repairEstimate(closed(30, 40, 45, 50, 300), nothing, rules)).toEqual({
      minutes: 45,
      partsMinor: 300,
      source: "own_closed_jobs",
      closedCount: 5,
    });
    expect(repairEstimate(closed(30, 40, 45, 50, 60, 300), nothing, rules).minutes).toBe(48);
  });
  it("falls back on the house rules for four, and does not count jobs that told no minutes", () => {
    expect(repairEstimate(closed(30, 40, 45, 50, null), nothing, rules)).toMatchObject({
      minutes: 60,
      partsMinor: 160,
      source: "house_rule",
      closedCount: 4,
    });
  });
  it("knows more once parts are condemned and chosen", () => {
    const known = { chosenMinor: 500, chosenCount: 2, condemnedCount: 5 };
    expect(repairEstimate([], known, rules)).toMatchObject({ minutes: 60 + 3 * 6, partsMinor: 500 + 3 * 80 });
  });
  it("refuses negative money", () => {
    expect(() => repairEstimate([], { ...nothing, chosenMinor: -1 }, rules)).toThrow(OutOfRangeError);
  });
});

describe("stockDeadline", () => {
  const part = (partId: string, stockCount: number) => ({ partId, stockCount });
  it("takes from the drawer once for each place, and orders the rest", () => {
    const found = stockDeadline([part("a", 1), part("a", 1), part("b", 4)], "2026-11-23", "2026-11-25", 3);
    expect(found).toEqual({ inStockCount: 2, toOrderCount: 1, readyOn: "2026-11-26", isInTime: false });
  });
  it("is ready today when everything lies there; without a due date nothing is late", () => {
    expect(stockDeadline([part("b", 4)], "2026-11-30", "2026-11-30", 3)).toMatchObject({
      readyOn: "2026-11-30",
      isInTime: true,
    });
    expect(stockDeadline([part("c", 0)], "2026-12-30", null, 3)).toMatchObject({
      readyOn: "2027-01-02",
      isInTime: null,
    });
  });
  it("refuses a day that is none", () => {
    expect(() => stockDeadline([], "soon", null, 3)).toThrow(OutOfRangeError);
  });
});

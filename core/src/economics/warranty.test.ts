import { describe, expect, it } from "vitest";
import { daysBetween, monthsLater, shopDayOf, warrantyEnd, warrantyState } from "./warranty";

it("counts days where the shop is", () => {
  expect(shopDayOf("2026-12-31T23:30:00Z", "Europe/Berlin")).toBe("2027-01-01");
  expect(shopDayOf(new Date("2027-01-01T03:30:00Z"), "America/New_York")).toBe("2026-12-31");
  expect(shopDayOf(Date.parse("2026-03-04T12:00:00Z"), "UTC")).toBe("2026-03-04");
  expect(() => shopDayOf("2026-03-04T12:00:00Z", "Nowhere/At all")).toThrow(RangeError);
});

describe("a warranty", () => {
  it("ends on the same date months later, or on the last of a shorter month", () => {
    expect(monthsLater("2026-01-31", 1)).toBe("2026-02-28");
    expect(monthsLater("2028-01-31", 1)).toBe("2028-02-29");
    expect(monthsLater("2026-08-31", 6)).toBe("2027-02-28");
    expect(monthsLater("2026-12-01", 6)).toBe("2027-06-01");
    expect(() => monthsLater("2026-02-30", 1)).toThrow("calendar");
  });

  it("stands still while the unit is in the shop, and is never shorter than a new one", () => {
    expect(warrantyEnd("2026-06-20", 1, { until: "2026-09-01", cameInOn: "2026-06-10" })).toBe("2026-09-11");
    expect(warrantyEnd("2026-06-20", 6, { until: "2026-09-01", cameInOn: "2026-06-10" })).toBe("2026-12-20");
    // It came too late: what was over does not begin again.
    expect(warrantyEnd("2026-10-20", 1, { until: "2026-09-01", cameInOn: "2026-09-02" })).toBe("2026-11-20");
    // The last day counts.
    expect(warrantyEnd("2026-10-30", 1, { until: "2026-09-01", cameInOn: "2026-09-01" })).toBe("2026-11-30");
    expect(warrantyEnd("2026-12-30", 1, { until: "2026-11-25", cameInOn: "2026-11-20" })).toBe("2027-01-30");
    expect(warrantyEnd("2027-01-30", 0, { until: "2026-11-25", cameInOn: "2026-11-20" })).toBe("2027-02-04");
  });

  it("covers the same fault in time, and nothing else", () => {
    expect(warrantyState(null, "2026-01-01", "same_fault")).toBe("none");
    expect(warrantyState("2026-01-01", "2026-01-01", "same_fault")).toBe("covers");
    expect(warrantyState("2026-01-01", "2026-01-02", "same_fault")).toBe("over");
    expect(warrantyState("2026-01-01", "2026-01-01", "handling")).toBe("other");
    expect(warrantyState("2026-01-01", "2026-01-01", "unknown")).toBe("open");
    expect(daysBetween("2026-03-02", "2026-02-28")).toBe(-2);
  });
});

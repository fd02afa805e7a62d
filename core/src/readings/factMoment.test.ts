import { describe, expect, it } from "vitest";
import { sampleMoment } from "../../testing/sampleMoment";
import { inOrder, isClockAhead, type LoggedFact, secondsBetween, secondsSince, serverMilliseconds } from "./factMoment";

const noon = Date.parse("2026-11-23T12:00:00Z");
const fact = (seconds: number, more: Partial<LoggedFact> = {}): LoggedFact => ({
  ...sampleMoment,
  at: new Date(noon + seconds * 1000).toISOString(),
  ...more,
});

describe("the order of facts", () => {
  it("is that of storing, with what waits on a client last and in the order given", () => {
    const facts = [fact(0, { sequence: null, clockId: "first" }), fact(9, { sequence: 7 }), fact(5, { sequence: 3 })];
    const more = fact(-50, { sequence: null, clockId: "second" });
    expect(inOrder([...facts, more]).map((one) => one.sequence ?? one.clockId)).toEqual([3, 7, "first", "second"]);
  });
});

describe("a moment by the server's clock", () => {
  it("is the client's less what its clock ran ahead", () => {
    expect(serverMilliseconds(fact(100, { clockAheadSeconds: 40 }))).toBe(noon + 60_000);
    expect(serverMilliseconds(fact(100, { clockAheadSeconds: null }))).toBeNull();
  });
  it("is ahead beyond a minute, by its clock or by its receipt, and not before", () => {
    expect(isClockAhead(fact(0, { clockAheadSeconds: 60 }))).toBe(false);
    expect(isClockAhead(fact(0, { clockAheadSeconds: 60.1 }))).toBe(true);
    const received = new Date(noon).toISOString();
    expect(isClockAhead(fact(60, { receivedAt: received }))).toBe(false);
    expect(isClockAhead(fact(61, { receivedAt: received }))).toBe(true);
    expect(isClockAhead(fact(61, { receivedAt: received, clockAheadSeconds: null }))).toBe(true);
    // A clock that is behind is known, and harms nothing.
    expect(isClockAhead(fact(-600, { receivedAt: received, clockAheadSeconds: -600 }))).toBe(false);
  });
  it("tells an age to who knows the server's clock, and none where it cannot", () => {
    expect(secondsSince(fact(100, { clockAheadSeconds: 40 }), noon + 90_000)).toBe(30);
    expect(secondsSince(fact(0, { clockAheadSeconds: null }), noon)).toBeNull();
    expect(secondsSince(fact(0, { clockAheadSeconds: 100 }), noon)).toBeNull();
    expect(secondsSince(fact(10), noon)).toBe(0);
  });
});

describe("a duration", () => {
  it("is known within one clock and nowhere else", () => {
    expect(secondsBetween(fact(10), fact(75))).toBe(65);
    expect(secondsBetween(fact(10), fact(75, { clockId: "clock-2" }))).toBeNull();
    expect(secondsBetween(fact(10, { clockId: null }), fact(75, { clockId: null }))).toBeNull();
  });
});

import { describe, expect, it } from "vitest";
import { createPageClock } from "./clock";

/** A computer in the hands of a test: its wall clock and its monotonic clock. */
function computer(wall = 1_000_000) {
  const time = { wall, monotonic: 0 };
  const clock = createPageClock({ wall: () => time.wall, monotonic: () => time.monotonic });
  const pass = (milliseconds: number) => {
    time.wall += milliseconds;
    time.monotonic += milliseconds;
  };
  return { clock, time, pass };
}

describe("the clock of a page", () => {
  it("goes on by the monotonic clock when somebody sets the computer's", () => {
    const { clock, time, pass } = computer();
    pass(2000);
    time.wall += 3_600_000;
    expect(clock.now()).toBe(1_002_000);
  });

  it("learns how it stands to the server, in the middle between sending and receiving", () => {
    const { clock, pass } = computer(1_600_000);
    const sent = clock.now();
    pass(200);
    clock.heard(sent, 1_000_100);
    expect(clock.aheadSecondsOf(clock.id)).toBe(600);
    expect(clock.serverNow()).toBe(1_000_200);
    expect(clock.disagreementSeconds()).toBe(600);
    expect(clock.aheadSecondsOf("another")).toBeNull();
  });

  it("says nothing of a difference within the minute", () => {
    const { clock } = computer();
    clock.heard(clock.now(), clock.now() - 59_000);
    expect(clock.disagreementSeconds()).toBeNull();
    clock.heard(clock.now(), clock.now() - 59_000);
    expect(clock.aheadSecondsOf(clock.id)).toBe(59);
  });

  it("becomes another one when the difference jumps, as after a sleep that stood the monotonic clock still", () => {
    const { clock, time, pass } = computer();
    clock.heard(clock.now(), clock.now());
    const { id } = clock;
    time.wall += 60_000;
    pass(1000);
    clock.heard(clock.now(), time.wall);
    expect(clock.id).not.toBe(id);
    expect(clock.aheadSecondsOf(clock.id)).toBeCloseTo(0, 6);
    expect(clock.aheadSecondsOf(id)).toBeNull();
    expect(clock.now()).toBe(time.wall);
  });

  it("stays the same while it drifts by less", () => {
    const { clock, pass } = computer();
    clock.heard(clock.now(), clock.now());
    const { id } = clock;
    pass(1000);
    clock.heard(clock.now(), clock.now() - 4900);
    expect(clock.id).toBe(id);
  });
});

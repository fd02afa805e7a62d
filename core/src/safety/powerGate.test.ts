import { describe, expect, it } from "vitest";
import { sampleMoment } from "../../testing/sampleMoment";
import type { PowerEvent } from "../facts/powerEvents";
import { powerGate } from "./powerGate";

const event = (minute: number, more: Partial<PowerEvent> & Pick<PowerEvent, "kind">): PowerEvent => ({
  resistanceOhms: null,
  hasShort: null,
  note: null,
  ...sampleMoment,
  at: new Date(Date.UTC(2026, 10, 23, 10, minute)).toISOString(),
  ...more,
});
const test = (minute: number, hasShort: boolean) => event(minute, { kind: "short_test", hasShort });

describe("powerGate", () => {
  it("stands open where nothing blew", () => {
    expect(powerGate(["dead"], [])).toEqual({ isShut: false, cause: null, openedBy: null });
  });
  it("is shut by the owner's story and by what is logged, until a test without a short", () => {
    expect(powerGate(["fuse_blown"], [])).toMatchObject({ isShut: true, cause: "told_at_intake" });
    expect(powerGate(["fuse_blown"], [test(1, false)])).toMatchObject({ isShut: false, cause: "told_at_intake" });
    expect(powerGate([], [test(1, false), event(2, { kind: "breaker_tripped" })]).isShut).toBe(true);
  });
  it("stays shut on a short, also where nobody told of a fuse", () => {
    expect(powerGate([], [test(1, true)])).toMatchObject({ isShut: true, cause: "short_found" });
    expect(powerGate([], [test(1, true), test(2, false)]).isShut).toBe(false);
  });
  it("opens on a reason, and shuts again on the next fuse", () => {
    const reason = event(1, { kind: "gate_overruled", note: "limited d.c. feed" });
    expect(powerGate(["fuse_blown"], [reason])).toMatchObject({ isShut: false, openedBy: reason });
    expect(powerGate(["fuse_blown"], [reason, event(2, { kind: "fuse_blown" })]).isShut).toBe(true);
  });
  it("goes by the order of storing, not by anybody's clock", () => {
    const stored = (sequence: number, one: PowerEvent): PowerEvent => ({ ...one, sequence });
    const blown = stored(2, event(1, { kind: "fuse_blown" }));
    expect(powerGate([], [blown, stored(1, test(5, false))]).isShut).toBe(true);
    // What waits on a client comes after everything that is stored.
    expect(powerGate([], [test(5, false), blown]).isShut).toBe(false);
  });
  it("is not opened by a person while it stands open: then nobody opened it", () => {
    expect(powerGate([], [event(1, { kind: "gate_overruled", note: "a reason" })]).openedBy).toBeNull();
  });
});

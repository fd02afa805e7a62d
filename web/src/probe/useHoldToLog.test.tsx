// @vitest-environment happy-dom
import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Live } from "./instruments/useLive";
import { useHoldToLog } from "./useHoldToLog";

afterEach(cleanup);

const still = { isHere: true, isSteady: true, value: 0.041 } as Live;
const moving = { ...still, isSteady: false } as Live;
const away = { ...still, isHere: false, isSteady: false, value: null } as Live;

function holding() {
  const log = vi.fn();
  const { rerender } = renderHook(({ isHolding, live, key }) => useHoldToLog(isHolding, live, key, log), {
    initialProps: { isHolding: true, live: moving, key: "C1" },
  });
  const show = (live: Live, key = "C1", isHolding = true) => rerender({ isHolding, live, key });
  return { log, show };
}

describe("useHoldToLog", () => {
  it("logs once when the value stands still, however long it stands", () => {
    const { log, show } = holding();
    expect(log).not.toHaveBeenCalled();
    show(still);
    show({ ...still });
    show({ ...still, value: 0.042 });
    expect(log).toHaveBeenCalledTimes(1);
  });
  it("arms itself again when the value moves at the same place, and not when the probe is lifted", () => {
    const { log, show } = holding();
    show(still);
    show(away);
    show(still);
    expect(log).toHaveBeenCalledTimes(1);
    show(moving);
    show(still);
    expect(log).toHaveBeenCalledTimes(2);
  });
  it("logs at the next target without a move between", () => {
    const { log, show } = holding();
    show(still);
    show(still, "C2");
    expect(log).toHaveBeenCalledTimes(2);
  });
  it("logs nothing that is open, elsewhere or not asked for", () => {
    const { log, show } = holding();
    show({ ...still, value: null });
    show({ ...still, isHere: false });
    show(still, "C1", false);
    expect(log).not.toHaveBeenCalled();
  });
  it("calls the latest act, not that of the first drawing", () => {
    const [old, fresh] = [vi.fn(), vi.fn()];
    const { rerender } = renderHook(({ live, log }) => useHoldToLog(true, live, "C1", log), {
      initialProps: { live: moving, log: old },
    });
    rerender({ live: still, log: fresh });
    expect([old.mock.calls.length, fresh.mock.calls.length]).toEqual([0, 1]);
  });
});

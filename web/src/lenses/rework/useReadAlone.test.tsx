// @vitest-environment happy-dom

import { sampleDetail } from "@pale-cap/contract/testing";
import { samplePart, samplePosition } from "@pale-cap/core/testing";
import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { sampleView, underJob } from "../../../testing/sampleView";
import { store } from "../../app/store/store";
import { probeSet } from "../../job/workplaceSlice";
import { reworkRows } from "./reworkRows";
import { useReadAlone } from "./useReadAlone";

afterEach(cleanup);

describe("an old part that came out undecided", () => {
  it("is asked for its ESR alone, and the bar reads as before once it is left", () => {
    const tick = {
      ...{ positionId: "at-C1", step: "removed" as const, isDone: true, at: "2026-11-23T11:00:00Z", sequence: 1 },
      ...{ clockId: null, receivedAt: null, clockAheadSeconds: null },
    };
    const fittedParts = [samplePart("C1", { removedAt: tick.at })];
    const view = sampleView(sampleDetail({ positions: [samplePosition("C1")], fittedParts, ticks: [tick] }));
    const row = reworkRows(view.detail, [])[0]?.rows[0];
    store.dispatch(probeSet({ quantity: "capacitance", circuitState: "in_circuit" }));
    const probe = () => {
      const { quantity, circuitState } = store.getState().workplace.probe;
      return [quantity, circuitState];
    };
    const shown = renderHook(({ of }) => useReadAlone(of), {
      wrapper: underJob(() => view),
      initialProps: { of: row },
    });
    expect([shown.result.current, ...probe()]).toEqual([true, "esr", "out"]);
    shown.rerender({ of: undefined });
    expect([shown.result.current, ...probe()]).toEqual([false, "capacitance", "in_circuit"]);
  });
});

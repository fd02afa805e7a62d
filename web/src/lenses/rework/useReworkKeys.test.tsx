// @vitest-environment happy-dom

import { type SampleDetail, sampleDetail } from "@pale-cap/contract/testing";
import type { CataloguePart } from "@pale-cap/core";
import { samplePart, samplePosition } from "@pale-cap/core/testing";
import { cleanup, fireEvent, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { sampleView, underJob } from "../../../testing/sampleView";
import { store } from "../../app/store/store";
import { targetSelected } from "../../job/workplaceSlice";
import { type ReworkRows, reworkRows } from "./reworkRows";
import { useReworkKeys } from "./useReworkKeys";
import { useTick } from "./useTick";

const submitted = vi.hoisted(() => vi.fn(() => Promise.resolve({ state: "stored" })));
vi.mock("../../outbox/outbox", () => ({ outbox: { submit: submitted } }));

const catalogue = [{ id: "new", maker: "Ostrel", series: "Brook" }] as unknown as CataloguePart[];
const positions = ["C1", "C2"].map((name) => samplePosition(name, { boardNegativeDegrees: 90 }));
const plans = positions.map(({ id }) => ({ positionId: id, cataloguePartId: "new" }));
const tick = (name: string, step: "removed" | "fitted", sequence: number) => ({
  ...{ positionId: `at-${name}`, step, isDone: true, at: "2026-11-23T11:00:00Z", sequence },
  ...{ clockId: null, receivedAt: null, clockAheadSeconds: null },
});

function keys(more: SampleDetail = {}, isOneAtATime: (group: ReworkRows) => boolean = () => false) {
  const detail = sampleDetail({
    positions,
    plans,
    fittedParts: positions.map((one) => samplePart(one.designator)),
    ...more,
  });
  const groups = reworkRows(detail, catalogue);
  const view = sampleView(detail);
  renderHook(() => useReworkKeys(groups, useTick()[0], isOneAtATime), { wrapper: underJob(() => view) });
  return (...pressed: string[]) => {
    for (const key of pressed) fireEvent.keyDown(document.body, { key });
  };
}
const ticked = () =>
  submitted.mock.calls.map((call) => {
    const { body } = (
      call as unknown as [
        {
          body: {
            step: string;
            isDone: boolean;
            items: readonly { positionId: string; stripeDegrees: number | null }[];
          };
        },
      ]
    )[0];
    return [body.step, body.isDone, body.items.map((one) => one.positionId), body.items[0]?.stripeDegrees];
  });

beforeEach(() => {
  submitted.mockClear();
  store.dispatch(targetSelected({ jobId: "job-1", target: { kind: "part", id: "at-C1" } }));
});
afterEach(cleanup);

describe("Rework by keys", () => {
  it("ticks the steps of the place that is selected, and takes them back", () => {
    const press = keys();
    press("1", "n", "1");
    expect(ticked()).toEqual([
      ["removed", true, ["at-C1"], null],
      ["removed", true, ["at-C2"], null],
    ]);
    cleanup();
    submitted.mockClear();
    keys({ ticks: [tick("C2", "removed", 1)] })("1");
    expect(ticked()).toEqual([["removed", false, ["at-C2"], null]]);
  });
  it("widens to all of a value, and leaves out where a step is not possible", () => {
    const press = keys({ ticks: [tick("C1", "removed", 1)] });
    press("a", "2");
    expect(ticked()).toEqual([["fitted", true, ["at-C1"], null]]);
  });
  it("takes no new part in before the old one is out, nor a polarity before its part is in", () => {
    keys()("2", "3", "4", "ArrowDown");
    expect(ticked()).toEqual([]);
  });
  it("says by an arrow where the stripe is seen", () => {
    const out = samplePart("C1", { removedAt: "2026-11-23T11:00:00Z" });
    const fresh = samplePart("C1", { id: "fresh", origin: "replacement", fittedAt: "2026-11-23T11:05:00Z" });
    const ticks = [tick("C1", "removed", 1), tick("C1", "fitted", 2)];
    keys({ ticks, fittedParts: [out, fresh, samplePart("C2")] })("ArrowLeft");
    expect(ticked()).toEqual([["polarity_part_mark", true, ["at-C1"], 180]]);
  });
  it("takes one at a time where the house rule says so", () => {
    keys({}, () => true)("a", "1");
    expect(ticked()).toEqual([]);
    cleanup();
    keys({ ticks: [tick("C2", "removed", 1)] }, () => true)("1");
    expect(ticked()).toEqual([]);
    cleanup();
    keys({}, () => true)("1");
    expect(ticked()).toEqual([["removed", true, ["at-C1"], null]]);
  });
});

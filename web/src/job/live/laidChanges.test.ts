import { addedLists, type JobChanges } from "@pale-cap/contract";
import { sampleDetail } from "@pale-cap/contract/testing";
import { describe, expect, it } from "vitest";
import { laidChanges, sequenceOf } from "./laidChanges";

const detail = sampleDetail();
const none = Object.fromEntries(addedLists.map((list) => [list, []])) as unknown as JobChanges["added"];
const reading = detail.readings[0] as (typeof detail.readings)[number];

describe("what came to a job", () => {
  it("is laid into the list that it belongs to, in the shop's order, each once; the others stay the same", () => {
    const [late, early] = [
      { ...reading, id: "late", sequence: 902 },
      { ...reading, id: "early", sequence: 901 },
    ];
    const once = laidChanges(detail, { sequence: 902, added: { ...none, readings: [late] }, rest: null });
    const twice = laidChanges(once, { sequence: 902, added: { ...none, readings: [early, late] }, rest: null });
    expect(twice.readings.slice(-2).map((one) => one.id)).toEqual(["early", "late"]);
    expect(twice.readings).toHaveLength(detail.readings.length + 2);
    for (const list of addedLists.filter((name) => name !== "readings")) expect(twice[list]).toBe(detail[list]);
    expect([twice.positions, sequenceOf(twice)]).toEqual([detail.positions, 902]);
  });
  it("is what stands besides, where that changed, and nothing where nothing came", () => {
    expect(laidChanges(detail, { sequence: 5, added: none, rest: null })).toBe(detail);
    const { readings: _, ...others } = detail;
    const rest = { ...others, positions: [] } as unknown as JobChanges["rest"];
    const changed = laidChanges(detail, { sequence: 5, added: none, rest });
    expect([changed.positions, changed.readings]).toEqual([[], detail.readings]);
  });
});

import { describe, expect, it } from "vitest";
import { sampleNet } from "../../testing/sampleJob";
import type { BoardNet } from "../board/board";
import { unknownConverter } from "../board/converterDescription";
import { promisedWatts } from "../board/promisedWatts";
import { type RatingLabel, unitRating } from "./unitRating";

const nothing: RatingLabel = { inputVoltsLow: null, inputVoltsHigh: null, inputAmps: null, rails: [] };
const rails = [{ volts: -12, amps: 2 }];
const nets = [sampleNet({ nominalVolts: 12, fullLoadAmps: 4 })];
const input = { inputVoltsLow: 100, inputVoltsHigh: 240, inputAmps: 1.5 };

describe("unitRating", () => {
  it("believes the label's rails, then the promise, and the label's input last", () => {
    expect(unitRating({ ...input, rails }, nets, null)).toEqual({ outputWatts: 24, source: "label_rails" });
    expect(unitRating({ ...nothing, ...input }, nets, null)).toEqual({ outputWatts: 48, source: "promised_rails" });
    expect(unitRating(nothing, [], null)).toBeNull();
  });
  it("takes label amperes for the worst case that they are, unless a boost stage follows the mains", () => {
    const of = (topology: Parameters<typeof unitRating>[2], more = {}) =>
      unitRating({ ...nothing, ...input, ...more }, [], topology)?.outputWatts;
    // 150 VA: 70 W, not 150.
    expect(of(null)).toBeCloseTo(150 * 0.55 * 0.85, 9);
    expect(of("pfc_resonant_with_standby")).toBeCloseTo(150 * 0.95 * 0.85, 9);
    expect(of(null, { inputVoltsLow: null })).toBeCloseTo(360 * 0.55 * 0.85, 9);
    expect(of(null, { inputAmps: null })).toBeUndefined();
    const pfc = [sampleNet({ section: "pfc", fullLoadAmps: null })];
    expect(unitRating({ ...nothing, ...input }, pfc, null)?.outputWatts).toBeCloseTo(150 * 0.95 * 0.85, 9);
  });
});

describe("promisedWatts", () => {
  const behind = (behindNetId: string) => ({
    network: { arrangement: "parallel", behindNetId, chokeHenrys: null, chokeOhms: null } as const,
  });
  it("counts the nodes of one rail once, at the largest promise", () => {
    const before = sampleNet({ id: "a", fullLoadAmps: 10 });
    const after = sampleNet({ id: "b", fullLoadAmps: 10, ...behind("a") });
    expect(promisedWatts([before, after])).toBe(120);
    expect(promisedWatts([{ ...before, fullLoadAmps: null }, after])).toBe(120);
    expect(promisedWatts([before, after, sampleNet({ id: "c", fullLoadAmps: 10, ...behind("b") })])).toBe(120);
    expect(promisedWatts([before, sampleNet({ id: "d", nominalVolts: -5, fullLoadAmps: 1 })])).toBe(125);
  });
  it("counts a regulator within the rail that feeds it, unless it promises more than that", () => {
    const main = sampleNet({ id: "a", fullLoadAmps: 10 });
    const other = sampleNet({ id: "b", nominalVolts: 24, fullLoadAmps: 1 });
    const fed = (id: string, fedFromNetId: string | null, more: Partial<BoardNet>) =>
      sampleNet({ id, nominalVolts: 5, converter: { ...unknownConverter("buck"), fedFromNetId }, ...more });
    expect(promisedWatts([main, other, fed("r", "a", { fullLoadAmps: 4 })])).toBe(144);
    // Through two regulators, and through a choke, it is still the same rail.
    expect(promisedWatts([main, other, fed("r", "a", { fullLoadAmps: 4 }), fed("s", "r", { fullLoadAmps: 3 })])).toBe(
      144,
    );
    expect(promisedWatts([main, sampleNet({ id: "p", ...behind("a") }), fed("r", "p", { fullLoadAmps: 4 })])).toBe(120);
    expect(promisedWatts([main, other, fed("r", "b", { fullLoadAmps: 8 })])).toBe(160);
    // Nobody said: a regulator's section draws from the strongest rail; alone it counts itself.
    const unsaid = fed("r", null, { section: "board-regulator", fullLoadAmps: 4 });
    expect(promisedWatts([main, other, unsaid])).toBe(144);
    expect(promisedWatts([unsaid])).toBe(20);
    expect(promisedWatts([fed("r", "s", { fullLoadAmps: 1 }), fed("s", "r", { fullLoadAmps: 1 })])).toBeGreaterThan(0);
  });
  it("counts no mains side, and survives a ring", () => {
    expect(promisedWatts([sampleNet({ section: "bulk", nominalVolts: 325, fullLoadAmps: 1 })])).toBe(0);
    expect(
      promisedWatts([sampleNet({ id: "a", ...behind("b") }), sampleNet({ id: "b", ...behind("a") })]),
    ).toBeGreaterThan(0);
  });
});

import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleRules } from "../../testing/sampleJob";
import { placeFits } from "./placeFit";
import { placeRoom } from "./placeRoom";
import type { Surroundings } from "./surroundings";

const at = (designator: string, xMetres: number, more: object = {}) =>
  samplePosition(designator, { xMetres, yMetres: 0.05, ...more });
const around = (positions: Surroundings["facts"]["positions"], lidHeightMetres: number | null): Surroundings => ({
  facts: sampleJob({ positions, fittedParts: [samplePart("C2")], readings: [] }),
  ...{ chosen: new Map(), emptyIds: new Set(), rail: sampleRules.rail, mainsHertz: 50 },
  lid: { lidHeightMetres, lidZones: [] },
});
const C1 = at("C1", 0.05);
const can = { diameterMetres: 0.01, heightMetres: 0.025 };

describe("how a can fits its place", () => {
  it("stands upright where its neighbours and the lid leave room, the vent's included", () => {
    const found = placeFits(C1, can, around([C1, at("C2", 0.065)], 0.028));
    expect(found?.upright.fit.fits).toBe(true);
    expect(found?.laid).toBeNull();
    // 15 mm apart, 5 mm of radius each: 5 mm, less the half that is kept.
    expect(found?.upright.spareMetres).toBeCloseTo(0.0045, 9);
    expect(found?.upright.nearestId).toBe("at-C2");
    // 10 mm across wants 2 mm over its vent.
    expect(placeFits(C1, can, around([C1], 0.0268))?.upright.fit.fits).toBe(false);
  });
  it("is laid flat where it is too tall, away from what stands beside it, and its leads add inductance", () => {
    const found = placeFits(C1, can, around([C1, at("C2", 0.065)], 0.015));
    expect(found?.upright.fit.fits).toBe(false);
    expect(found?.laid?.pose).toMatchObject({ mode: "laid", thetaDegrees: 180 });
    expect(found?.laid?.fit.headroomMetres).toBeCloseTo(0.0045, 9);
    expect(found?.laid?.addedHenrys).toBeCloseTo(8.2e-9, 10);
  });
  it("is raised over a low neighbour where the lid leaves room for that, and its leads add inductance", () => {
    const low = at("R1", 0.054, { kind: "resistor", ...{ outlineWidthMetres: 0.004, outlineDepthMetres: 0.003 } });
    const beside = { ...low, outlineHeightMetres: 0.003 };
    const found = placeFits(C1, can, around([C1, beside], 0.04));
    expect(found?.upright.fit.fits).toBe(false);
    // 3 mm of it, and the half that is kept.
    expect(found?.raised?.pose).toEqual({ mode: "upright", liftMetres: expect.closeTo(0.0035, 9) });
    expect(found?.raised?.addedHenrys).toBeGreaterThan(0);
    expect(found?.laid).toBeNull();
    // Under a lid that it would touch it is laid flat, away from the resistor.
    const under = placeFits(C1, can, around([C1, beside], 0.03));
    expect([under?.raised, under?.laid?.pose.mode]).toEqual([null, "laid"]);
    // Over a tall one nobody lifts it.
    expect(placeFits(C1, can, around([C1, { ...beside, outlineHeightMetres: 0.02 }], 0.06))?.raised).toBeNull();
  });
  it("keeps more from what is hot than from what is near", () => {
    const sink = at("HS1", 0.0595, { kind: "heat-sink", outlineWidthMetres: 0.002, outlineDepthMetres: 0.02 });
    const found = placeFits(C1, can, around([C1, sink, at("C2", 0.0395)], null));
    expect(found?.upright.fit.fits).toBe(false);
    expect(found?.upright.nearestId).toBe("at-HS1");
    expect(found?.upright.spareMetres).toBeCloseTo(0.0085 - 0.005 - 0.005, 9);
  });
  it("goes nowhere under a lid lower than its own breadth, and says nothing where nothing is drawn", () => {
    expect(placeFits(C1, can, around([C1], 0.009))).toMatchObject({ laid: null, upright: { fit: { fits: false } } });
    expect(placeFits(samplePosition("C1", { xMetres: null }), can, around([], null))).toBeNull();
  });
});

describe("a can on the mains side", () => {
  const nets = [sampleNet({ id: "bulk", section: "bulk" }), sampleNet({ id: "out", section: "output" })];
  const primary = at("C1", 0.05, { netId: "bulk" });
  const secondary = (x: number) => at("C2", x, { netId: "out" });
  const beside = (x: number, more: Partial<Surroundings> = {}): Surroundings => {
    const base = around([primary, secondary(x)], 0.03);
    return { ...base, facts: { ...base.facts, nets }, ...more };
  };
  it("keeps 6.4 mm from the secondary, or what the house says", () => {
    // 5 mm of radius each: 6.3 and 6.5 mm between them.
    expect(placeFits(primary, can, beside(0.0663))?.upright.fit.fits).toBe(false);
    expect(placeFits(primary, can, beside(0.0665))?.upright.fit.fits).toBe(true);
    const clearances = { secondaryMetres: 8e-3, earthedMetres: 4e-3, hotMetres: 5e-3 };
    expect(placeFits(primary, can, beside(0.0665, { clearances }))?.upright.fit.fits).toBe(false);
    expect(placeRoom(primary, beside(0.0665)).diameterMaxMetres).toBeCloseTo(2 * (0.0165 - 0.005 - 0.0064), 9);
  });
  it("never asks for more than the design had, and never gives less", () => {
    const base = beside(0.063);
    const fittedParts = [...base.facts.fittedParts, samplePart("C1", { diameterMetres: 0.01 })];
    const found = { ...base, facts: { ...base.facts, fittedParts } };
    // The old one of 10 mm stood 3 mm away.
    expect(placeFits(primary, can, found)?.upright.fit.fits).toBe(true);
    expect(placeFits(primary, { ...can, diameterMetres: 0.0102 }, found)?.upright.fit.fits).toBe(false);
  });
  it("counts the lid and a sink of no net as earthed metal", () => {
    expect(placeRoom(primary, beside(0.0665)).heightMaxMetres).toBeCloseTo(0.026, 9);
    expect(placeRoom({ ...primary, netId: "out" }, beside(0.0665)).heightMaxMetres).toBeLessThan(0.0281);
    expect(placeRoom({ ...primary, netId: "out" }, beside(0.062)).heightMaxMetres).toBeCloseTo(0.028, 9);
    const sink = at("HS1", 0.0605, { kind: "heat-sink", outlineWidthMetres: 0.002, outlineDepthMetres: 0.02 });
    const clearances = { secondaryMetres: 6.4e-3, earthedMetres: 4e-3, hotMetres: 1e-3 };
    const near = { ...around([primary, sink], null), clearances };
    const fits = (one: Surroundings) => placeFits(primary, can, one)?.upright.fit.fits;
    expect(fits(near)).toBe(true);
    expect(fits({ ...near, facts: { ...near.facts, nets } })).toBe(true);
    expect(fits({ ...near, facts: { ...near.facts, nets }, clearances: { ...clearances, earthedMetres: 5e-3 } })).toBe(
      false,
    );
  });
});

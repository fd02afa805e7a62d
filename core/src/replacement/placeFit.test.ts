import { describe, expect, it } from "vitest";
import { sampleJob, samplePart, samplePosition, sampleRules } from "../../testing/sampleJob";
import { placeFits } from "./placeFit";
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

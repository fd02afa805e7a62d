import { describe, expect, it } from "vitest";
import { negative, notPositive, wronglyTaken } from "../../testing/refusals";
import { mainsInrush, stiffInrush } from "./inrush";

describe("inrush", () => {
  const input = {
    mainsVoltsRms: 230,
    mainsHertz: 50,
    sourceOhms: 1,
    limiterOhms: 5,
    capacitanceFarads: 1e-4,
    esrOhms: 0.35,
  };
  it("peaks at what the resistances allow at the crest", () => {
    expect(mainsInrush(input).peakAmps).toBeCloseTo((230 * Math.SQRT2 - 1.8) / 6.39, 6);
  });
  it("grows with the capacitor, and stays below the stiff source's bound", () => {
    const small = mainsInrush(input).firstPulseAmpsSquaredSeconds;
    expect(mainsInrush({ ...input, capacitanceFarads: 2e-4 }).firstPulseAmpsSquaredSeconds).toBeGreaterThan(small);
    const bound = stiffInrush({ capacitanceFarads: 1e-4, peakVolts: 230 * Math.SQRT2, seriesOhms: 6.39 });
    expect(small).toBeLessThan(bound.ampsSquaredSeconds);
  });
  it("is V / R, V^2 C / 2R and half C V^2 from a stiff source", () => {
    const stiff = stiffInrush({ capacitanceFarads: 1e-4, peakVolts: 300, seriesOhms: 5 });
    expect(stiff.peakAmps).toBe(60);
    expect(stiff.ampsSquaredSeconds).toBeCloseTo(0.9, 12);
    expect(stiff.storedJoules).toBeCloseTo(4.5, 12);
  });
  it("fills a small capacitor in the first pulse, up to the crest less two diodes, and draws nothing after it", () => {
    const small = mainsInrush({ ...input, capacitanceFarads: 1e-6 });
    expect(small.voltsAfterFirstPulse).toBeGreaterThan(322);
    expect(small.voltsAfterWindow).toBeLessThanOrEqual(230 * Math.SQRT2 - 1.8 + 1e-3);
    expect(small.firstPulseSeconds).toBeLessThan(2e-4);
    // Against the closed form of a stiff source behind the bridge's drop and slope.
    const stiff = stiffInrush({ capacitanceFarads: 1e-6, peakVolts: 230 * Math.SQRT2 - 1.8, seriesOhms: 6.39 });
    expect(small.firstPulseAmpsSquaredSeconds / stiff.ampsSquaredSeconds).toBeCloseTo(1, 2);
    expect(small.windowAmpsSquaredSeconds).toBeGreaterThanOrEqual(small.firstPulseAmpsSquaredSeconds);
  });
  it("tells what there is where the window ends within the first pulse", () => {
    const cut = mainsInrush({ ...input, capacitanceFarads: 1e-2 }, 1e-3);
    expect(cut.firstPulseSeconds).toBe(1e-3);
    expect(cut.firstPulseAmpsSquaredSeconds).toBe(cut.windowAmpsSquaredSeconds);
    expect(cut.voltsAfterFirstPulse).toBe(cut.voltsAfterWindow);
    // A millisecond at nearly the peak: I^2 t of the crest, within what the crest falls.
    expect(cut.windowAmpsSquaredSeconds / (cut.peakAmps ** 2 * 1e-3)).toBeGreaterThan(0.8);
    expect(cut.windowAmpsSquaredSeconds / (cut.peakAmps ** 2 * 1e-3)).toBeLessThan(1);
    expect(cut.voltsAfterWindow).toBeCloseTo((cut.peakAmps * 1e-3 * 0.94) / 1e-2, 0);
  });
  it("has a lower first pulse the slower the mains", () => {
    const slow = mainsInrush({ ...input, capacitanceFarads: 1e-3, mainsHertz: 50 });
    const fast = mainsInrush({ ...input, capacitanceFarads: 1e-3, mainsHertz: 60 });
    expect(slow.firstPulseSeconds).toBeGreaterThan(fast.firstPulseSeconds);
    expect(slow.firstPulseAmpsSquaredSeconds).toBeGreaterThan(fast.firstPulseAmpsSquaredSeconds);
  });
  it("refuses what no mains and no capacitor is", () => {
    const bad = {
      ...{ mainsVoltsRms: notPositive, mainsHertz: notPositive, capacitanceFarads: notPositive },
      ...{ sourceOhms: negative, limiterOhms: negative, esrOhms: negative },
    };
    expect(wronglyTaken(mainsInrush, input, bad)).toEqual([]);
    const ofWindow = (one: { windowSeconds: number }) => mainsInrush(input, one.windowSeconds);
    expect(wronglyTaken(ofWindow, { windowSeconds: 0.05 }, { windowSeconds: notPositive })).toEqual([]);
    const path = { capacitanceFarads: 1e-4, peakVolts: 300, seriesOhms: 5 };
    const stiff = { capacitanceFarads: notPositive, peakVolts: notPositive, seriesOhms: notPositive };
    expect(wronglyTaken(stiffInrush, path, stiff)).toEqual([]);
  });
});

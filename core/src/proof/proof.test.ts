import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleRailReading,
  sampleReading,
} from "../../testing/sampleJob";
import { coldStarts, startsToShow } from "./coldStarts";
import { earthAndInsulation } from "./earthAndInsulation";
import { heatCurves } from "./heatCurves";
import { loadLine } from "./loadLine";
import { loadedRails, loadFault, loadPlan } from "./loadPlan";
import { loadStepResponse } from "./loadStep";
import { measuredHoldUp } from "./measuredHoldUp";
import { outputDroop } from "./outputDroop";
import { railCurve } from "./railCurve";
import { railStepBound } from "./railStepBound";
import { thermalSettle } from "./thermalSettle";

describe("worked values of the proof", () => {
  it("droop: 160 mV over 8 A are 20 milliohms, 8 of them when 12 lie in the lead", () => {
    const points = [12.18, 12.14, 12.1, 12.06, 12.02].map((volts, n) => ({
      ...{ loadAmps: 2 * n, volts, voltsDeviation: 0.002 },
    }));
    expect(loadLine(points).outputOhms).toBeCloseTo(0.02, 9);
    expect(loadLine(points, { leadOhms: 0.012 }).outputOhms).toBeCloseTo(0.008, 9);
    const two = { lightAmps: 0, lightVolts: 12.18, heavyAmps: 8, heavyVolts: 12.02, nominalVolts: 12 };
    const exact = { voltsDeviation: 0, ampsDeviation: 0 };
    expect(outputDroop({ ...two, ...exact, point: "terminals" }).outputOhms).toBeCloseTo(0.02, 9);
    const led = outputDroop({ ...two, ...exact, point: "lead_end", leadOhms: 0.012 });
    expect(led.outputOhms).toBeCloseTo(0.008, 9);
    expect(() => outputDroop({ ...two, ...exact, point: "lead_end" })).toThrow();
  });
  it("heat: 25 to 74 in a thousand seconds settles at 77", () => {
    const samples = [25.21, 47.5, 60.87, 67.92, 71.76, 74.04].map((celsius, n) => ({ seconds: 200 * n, celsius }));
    expect(thermalSettle(samples).settledCelsius).toBeCloseTo(77.05, 1);
    const drifting = samples.map((one, n) => ({ ...one, celsius: one.celsius + n, ambientCelsius: 20 + n }));
    const off = thermalSettle(drifting, { isAmbientOff: true });
    expect([off.settledCelsius, off.settledNowCelsius - off.settledCelsius]).toEqual([
      expect.closeTo(77.05, 1),
      expect.closeTo(5, 9),
    ]);
    expect(() => thermalSettle(samples.slice(0, 4))).toThrow();
  });
  it("starts: 59 good ones show fewer than one in twenty, 3 of 10 before ask for nine", () => {
    expect(coldStarts(59, 0)).toMatchObject({ isEnough: true, neededCount: 59, moreCount: 0 });
    expect(coldStarts(58, 0).isEnough).toBe(false);
    expect([startsToShow(3, 10), startsToShow(9, 10), startsToShow(10, 10), startsToShow(1, 100)]).toEqual([
      9, 3, 3, 299,
    ]);
    expect([startsToShow(0, 10), startsToShow(null, 10), startsToShow(2, null)]).toEqual([10, 10, 10]);
  });
  it("step: 4 A over 12 milliohms and 2000 uF at 3 kHz are bound by 154 mV", () => {
    const step = { capacitanceFarads: 2e-3, esrOhms: 0.012, stepAmps: 4, crossoverHertz: 3e3, integratorHertz: 300 };
    expect(loadStepResponse({ ...step, slewAmpsPerSecond: null, bandVolts: 0.01 }).boundVolts).toBeCloseTo(0.1541, 4);
  });
  it("hold-up and insulation refuse what cannot be and clear nothing that was not read", () => {
    const asked = { outputWatts: 60, efficiencyRatio: 0.85, holdUpSeconds: 0.02, toVolts: 310 };
    expect(measuredHoldUp({ ...asked, fromVolts: 375 }).capacitanceFarads).toBeCloseTo(63.4e-6, 7);
    expect(() => measuredHoldUp({ ...asked, fromVolts: 300 })).toThrow();
    const limits = { protectionClass: "I", mostEarthOhms: 0.3, leastInsulationOhms: 1e6, testVolts: 500 } as const;
    const of = (earthOhms: number | null, insulationOhms: number | null) =>
      earthAndInsulation({ ...limits, earthOhms, insulationOhms }).overall;
    expect([of(0.2, 5e6), of(0.2, null), of(null, 5e6), of(0.4, 5e6), of(0.2, 0.5e6)]).toEqual([
      ...["pass", "missing", "missing", "fail", "fail"],
    ]);
  });
});

describe("the plan of loads", () => {
  const net = (id: string, more: object = {}) =>
    sampleNet({ id, name: id, nominalVolts: 12, fullLoadAmps: 4, ...more });
  const rows = (nets: ReturnType<typeof net>[], watts: number | null = null) =>
    loadPlan(nets, { watts, groups: [] }).map((step) => [step.netId, step.ratio, ...[...step.loads.values()]]);
  it("takes each rail up in quarters with the others at a tenth, then all as far as the label's watts", () => {
    const nets = [net("a"), net("b", { nominalVolts: 5, fullLoadAmps: 2 })];
    expect(rows(nets)).toEqual([
      ["a", 0, 0, 0.2],
      ["a", 0.25, 1, 0.2],
      ["a", 0.5, 2, 0.2],
      ["a", 0.75, 3, 0.2],
      ["a", 1, 4, 0.2],
      ["b", 0, 0.4, 0],
      ["b", 0.25, 0.4, 0.5],
      ["b", 0.5, 0.4, 1],
      ["b", 0.75, 0.4, 1.5],
      ["b", 1, 0.4, 2],
      [null, 1, 4, 2],
    ]);
    expect(rows(nets, 29).at(-1)).toEqual([null, 0.5, 2, 1]);
    expect(rows(nets, 100).at(-1)).toEqual([null, 1, 4, 2]);
  });
  it("never opens a current output, and never goes below a least load", () => {
    const nets = [net("a", { leastLoadAmps: 0.8 }), net("led", { isCurrentOutput: true, fullLoadAmps: 0.3 })];
    expect(rows(nets).map((one) => one.slice(0, 4))).toEqual([
      ["a", 0.25, 1, 0.3],
      ["a", 0.5, 2, 0.3],
      ["a", 0.75, 3, 0.3],
      ["a", 1, 4, 0.3],
      [null, 1, 4, 0.3],
    ]);
    expect(rows([net("a")])).toHaveLength(5);
  });
  it("is of promised outputs alone, and says what is wrong with other loads", () => {
    const nets = [net("a"), net("bulk", { section: "bulk" }), net("c", { fullLoadAmps: null })];
    expect(loadedRails(nets).map((one) => one.id)).toEqual(["a"]);
    const fault = (loads: [string, number][], watts: number | null = null, over = false) =>
      loadFault(nets, new Map(loads), { watts, groups: [] }, over)?.code ?? null;
    expect([fault([["a", 4]]), fault([["a", 4.1]]), fault([["a", -1]]), fault([["c", 1]])]).toEqual([
      ...[null, "above_promise", "below_zero", "not_a_rail"],
    ]);
    expect([fault([["a", 4]], 40), fault([["a", 4]], 48), fault([["a", 4.4]], 40, true)]).toEqual([
      "above_label",
      null,
      null,
    ]);
  });
});

describe("curves of what was read", () => {
  const net = sampleNet();
  const at = (loadAmps: number, value: number, more: object = {}) =>
    sampleRailReading(net.id, { loadAmps, value, sequence: 5, ...more });
  const facts = (readings: ReturnType<typeof at>[], ticks: object[] = []) => ({
    readings,
    acts: [],
    ticks: ticks as never[],
  });
  it("take the last reading of each load since the last work, and leave out what the rig voids", () => {
    const tick = { positionId: "at-C1", step: "fitted", isDone: true, at: "2026-11-23T09:00:00Z", sequence: 3 };
    const stamp = { clockId: null, receivedAt: null, clockAheadSeconds: null };
    const lamp = { rig: { isIsolationTransformer: true, isSeriesLamp: true, isElectronicLimiter: false } };
    const list = [
      at(0, 11, { sequence: 2 }),
      at(0, 12.18),
      at(2, 12.3, { sequence: 6 }),
      at(2, 12.14, { sequence: 7 }),
      at(4, 12.1),
      at(4, 0.05, { quantity: "ripple_voltage" }),
      at(4, 3, lamp),
    ];
    const curve = railCurve(net, facts(list, [{ ...tick, ...stamp }]), null);
    expect(curve.points.map((one) => [one.loadAmps, one.volts, one.rippleVolts])).toEqual([
      [0, 12.18, null],
      [2, 12.14, null],
      [4, 12.1, 0.05],
    ]);
    expect(curve.line?.outputOhms).toBeCloseTo(0.02, 6);
    expect(curve.droop).toMatchObject({ isTelling: true });
    expect(railCurve(net, facts(list.slice(1, 2)), null)).toMatchObject({ line: null, droop: null });
    expect(railCurve(net, facts(list.slice(1), []), 0.012).droop?.outputOhms).toBeCloseTo(0.008, 6);
  });
  it("follow a place from its first temperature of the run, and settle from five on", () => {
    const warm = (minute: number, value: number) =>
      sampleReading("C1", {
        ...{ quantity: "temperature", value, isPowered: true, frequencyHertz: null, circuitState: null },
        ...{ measuredAt: new Date(Date.UTC(2026, 10, 23, 10, minute)).toISOString(), sequence: minute + 1 },
      });
    const five = [25.2, 47.5, 60.9, 67.9, 71.8].map((value, n) => warm(4 * n, value));
    const [curve] = heatCurves(facts(five));
    expect(curve?.points.at(-1)).toMatchObject({ seconds: 960, celsius: 71.8 });
    expect(curve?.settle?.settledCelsius).toBeGreaterThan(72);
    expect(heatCurves(facts(five.slice(1)))[0]?.settle).toBeNull();
    // Cold, of another quantity, or from before the last work: none of this run.
    const others = [
      sampleReading("C1", { ...five[0], id: "cold", isPowered: false, value: 99 }),
      sampleReading("C1", { ...five[0], id: "volts", quantity: "dc_voltage", value: 99 }),
      sampleReading("C2", { ...five[0], id: "beside", targetId: "at-C2" }),
    ];
    expect(heatCurves(facts([...others, ...five])).map((one) => one.points.length)).toEqual([1, 5]);
    const stamp = { clockId: null, receivedAt: null, clockAheadSeconds: null, at: "2026-11-23T10:10:00Z" };
    const worked = [{ ...stamp, positionId: "at-C1", step: "fitted", isDone: true, sequence: 10 }];
    expect(heatCurves(facts(five, worked))[0]?.points.map((one) => one.celsius)).toEqual([67.9, 71.8]);
    expect(heatCurves(facts([]))).toEqual([]);
    // Three hours later it is another run.
    expect(heatCurves(facts([...five, warm(16 + 190, 30)]))[0]?.points).toHaveLength(1);
  });
  it("bound a step by the capacitors that stand there now", () => {
    const unit = sampleJob({ nets: [net], positions: [samplePosition("C1")], fittedParts: [samplePart("C1")] });
    const bound = railStepBound(unit, net.id, 2) ?? 0;
    expect(bound).toBeGreaterThan(2 / (2 * Math.PI * 3e3 * (samplePart("C1").capacitanceFarads ?? 1)));
    expect(railStepBound(unit, net.id, 4)).toBeGreaterThan(2 * bound * 0.99);
    expect(railStepBound(unit, net.id, 0)).toBeNull();
    expect(railStepBound({ ...unit, fittedParts: [] }, net.id, 2)).toBeNull();
  });
});

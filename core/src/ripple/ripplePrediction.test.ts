import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import { type ConverterDescription, outputConverters, unknownConverter } from "../board/converterDescription";
import { wornColdFactor } from "../capacitors/wornColdFactor";
import type { CaptureAnalysis } from "../facts/captures";
import { openPoints } from "../job/openPoints";
import { rippleFindings } from "../waveform/rippleFindings";
import { boostBulk } from "./boostBulk";
import { converterSource, ImpossibleConverterError } from "./converter";
import { filterHarmonics } from "./filterHarmonics";
import { primaryPulseAmpsRms } from "./primaryPulses";
import { railFilter, railRipple } from "./railRipple";
import { regulatedRipple } from "./regulatedRipple";
import { type PredictionQuestion, predictRipple, sweepLoads } from "./ripplePrediction";
import { flybackDiscontinuousCurrent, type SourceCurrent } from "./sourceCurrent";
import { spiceNetlist } from "./spiceNetlist";
import { steadyRipple } from "./steadyRipple";
import { converterOf } from "./usualConverter";

const nets = [
  sampleNet(),
  sampleNet({
    id: "net-post",
    name: "12 V after L2",
    network: { arrangement: "parallel", behindNetId: "net-12", chokeHenrys: 3.3e-6, chokeOhms: 0.02 },
  }),
];
const positions = [samplePosition("C1"), samplePosition("C2"), samplePosition("C3", { netId: "net-post" })];
const fittedParts = ["C1", "C2", "C3"].map((one) => samplePart(one));
const bad = sampleReading("C1", { value: 0.6 });
const facts = sampleJob({ nets, positions, fittedParts, readings: [bad, sampleReading("C2", { value: 0.033 })] });
const question = (more: Partial<PredictionQuestion> = {}): PredictionQuestion => ({
  board: { ...facts, chosen: new Map() },
  netId: "net-12",
  converter: unknownConverter("flyback_discontinuous"),
  railVolts: 12,
  loadAmps: 3,
  temperatureCelsius: 20,
  ...more,
});
const code = (act: () => unknown) => {
  try {
    act();
    return "possible";
  } catch (error) {
    return error instanceof ImpossibleConverterError ? error.impossible : String(error);
  }
};

const switching = outputConverters.filter((one) => one !== "linear");
const alternatingAmps = ({ segments, meanAmps, periodSeconds }: SourceCurrent) =>
  Math.sqrt(
    segments.reduce((sum, { startSeconds, endSeconds, startAmps, endAmps }) => {
      const [a, b] = [startAmps - meanAmps, endAmps - meanAmps];
      return sum + ((a * a + a * b + b * b) / 3) * (endSeconds - startSeconds);
    }, 0) / periodSeconds,
  );

describe("converterSource", () => {
  it.each(switching)("gives the load what it draws, whatever is assumed: %s", (kind) => {
    const { source, assumptions } = converterSource(unknownConverter(kind), { volts: 12, loadAmps: 2.5 });
    expect(source.meanAmps).toBeCloseTo(2.5, 9);
    for (const { value, low, high } of assumptions) expect(low <= value && value <= high).toBe(true);
    expect(assumptions.map((one) => one.key)).toContain("switchingHertz");
  });
  it("reckons swing from inductance and input, and assumes no more than is missing", () => {
    const known = { ...unknownConverter("buck"), switchingHertz: 300e3, inductanceHenrys: 10e-6, inputVolts: 24 };
    const { source, assumptions } = converterSource(known, { volts: 12, loadAmps: 2 });
    // dI = V (1 - D) / (L f) = 12 x 0.5 / (10e-6 x 300e3) = 2 A
    const currents = source.segments.flatMap((one) => [one.startAmps, one.endAmps]);
    expect(Math.max(...currents) - Math.min(...currents)).toBeCloseTo(2, 9);
    expect(assumptions).toEqual([]);
  });
  it("rectifies the half sines of a resonant converter at twice its frequency", () => {
    const { source, switchingHertz } = converterSource(
      { ...unknownConverter("resonant"), switchingHertz: 100e3 },
      { volts: 24, loadAmps: 8 },
    );
    // 8 A x sqrt(pi^2/8 - 1) = 3.867 A
    expect(alternatingAmps(source)).toBeCloseTo(3.867, 1);
    expect([source.periodSeconds, switchingHertz]).toEqual([5e-6, 100e3]);
  });
  it("loads the capacitors of flybacks and of a boost with their pulses", () => {
    const flyback = (kind: "flyback_discontinuous" | "flyback_continuous", more: Partial<ConverterDescription>) =>
      converterSource(
        { ...unknownConverter(kind), switchingHertz: 65e3, riseSeconds: 0, dutyRatio: 0.4, ...more },
        { volts: 12, loadAmps: 2 },
      ).source;
    // Ipk 10 A, sqrt(Ipk^2 d2/3 - Io^2) = 3.055 A; sqrt((Io^2/(1 - D)) (1 + r^2/12) - Io^2) = 1.693 A
    expect(alternatingAmps(flyback("flyback_discontinuous", {}))).toBeCloseTo(3.055, 2);
    expect(alternatingAmps(flyback("flyback_continuous", { rippleRatio: 0.6 }))).toBeCloseTo(1.693, 2);
    const boost = {
      ...unknownConverter("boost"),
      switchingHertz: 200e3,
      inputVolts: 24,
      rippleRatio: 0,
      riseSeconds: 0,
    };
    // D = 1 - 24/48: through the diode flows twice the load for half of the time.
    expect(alternatingAmps(converterSource(boost, { volts: 48, loadAmps: 0.5 }).source)).toBeCloseTo(0.5, 2);
    expect(code(() => converterSource(boost, { volts: 20, loadAmps: 0.5 }))).toBe("input_above_output");
  });
  it("explains what cannot be", () => {
    expect(code(() => converterSource(unknownConverter("linear"), { volts: 5, loadAmps: 1 }))).toBe("switches_nothing");
    const buck = { ...unknownConverter("buck"), inputVolts: 12 };
    expect(code(() => converterSource(buck, { volts: 16, loadAmps: 1 }))).toBe("output_above_input");
    expect(code(() => converterSource(buck, { volts: 5, loadAmps: -1 }))).toBe("negative_current");
    expect(code(() => converterSource(buck, { volts: 5, loadAmps: 0 }))).toBe("no_load");
    const full = { ...unknownConverter("flyback_discontinuous"), dutyRatio: 0.999, riseSeconds: 1e-6 };
    expect(code(() => converterSource(full, { volts: 12, loadAmps: 1 }))).toBe("no_time_left");
    const swing = { ...unknownConverter("flyback_continuous"), rippleRatio: 2.5 };
    expect(code(() => converterSource(swing, { volts: 12, loadAmps: 1 }))).toBe("swing_above_mean");
  });
});

describe("predictRipple", () => {
  it("lies lower as new than as read, and falls to it when the bad part is replaced", () => {
    const chosen = new Map([["at-C1", { capacitanceFarads: 1e-3, esrOhms: 0.03, ratedRippleAmpsRms: 1.8 }]]);
    const found = predictRipple(question({ board: { ...facts, chosen } }));
    const at = (state: "healthy" | "measured" | "replaced") =>
      found?.states[state].ripple.nodeVolts[0]?.peakToPeak ?? 0;
    expect(at("measured")).toBeGreaterThan(1.3 * at("healthy"));
    expect(at("replaced")).toBeLessThan(1.1 * at("healthy"));
    expect(found?.states.replaced.shares[0]?.ratedAmpsRms).toBe(1.8);
    expect(found?.bestSingle?.positionId).toBe("at-C1");
    expect(found && found.lowVolts < found.highVolts).toBe(true);
  });
  it("filters what lies across the choke, and counts it to the load", () => {
    const found = predictRipple(question());
    const [before, after] = found?.states.healthy.ripple.nodeVolts ?? [];
    expect(after?.peakToPeak).toBeLessThan((before?.peakToPeak ?? 0) / 5);
    expect(found?.states.healthy.loadPeakToPeakVolts).toBeCloseTo(after?.peakToPeak ?? 0, 3);
  });
  it("has more ripple in the cold: the ESR follows the temperature", () => {
    const at = (temperatureCelsius: number) =>
      predictRipple(question({ temperatureCelsius }))?.states.healthy.quiet[0]?.peakToPeak ?? 0;
    expect(at(-10)).toBeGreaterThan(1.5 * at(60));
  });
  it("tells quiet ripple and edges apart: a can's inductance takes from the one and makes the other", () => {
    // 2 A, 65 kHz, two parts; a general-purpose simulator with blanked edges: 157.6, 27.0 and 20.7 mV, spikes of 0.5 to 0.9 V.
    const two = (capacitanceFarads: number, esrOhms: number, eslHenrys: number) => {
      const part = { capacitanceFarads, esrOhms, eslHenrys };
      const network = { before: [part, part], choke: null, after: [] };
      const peakAmps = 4 / (0.4 + 100e-9 * 65e3);
      const edges = { switchingHertz: 65e3, peakAmps, fallRatio: 0.4, riseSeconds: 100e-9 };
      const found = railRipple(
        { parts: [], network, isChokeAssumed: false, leftOutIds: [] },
        flybackDiscontinuousCurrent(edges),
      );
      return [found.loadPeakToPeakVolts * 1e3, found.quiet[0]?.spikeVolts ?? 0] as const;
    };
    expect(two(1000e-6, 0.032, 0)[0]).toBeCloseTo(157.6, 0);
    expect(two(560e-6, 0.007, 10e-9)[0]).toBeCloseTo(27.2, 0);
    expect(two(560e-6, 0.007, 18e-9)[0]).toBeCloseTo(20.9, 0);
    expect(two(560e-6, 0.007, 10e-9)[1]).toBeCloseTo(0.5, 1);
    expect(two(560e-6, 0.007, 18e-9)[1]).toBeCloseTo(0.9, 1);
  });
  it("takes the inductance of a can from its pitch, else from its size", () => {
    const filter = (pitchMetres: number | null) =>
      railFilter({ ...facts, positions: [samplePosition("C1", { pitchMetres })], chosen: new Map() }, "net-12", {
        state: "healthy",
        switchingHertz: 65e3,
        temperatureCelsius: 20,
      })?.parts[0]?.capacitor.eslHenrys;
    const nanohenrys = [filter(3.5e-3), filter(null), filter(40e-3)].map((one) =>
      Number(((one ?? 0) * 1e9).toFixed(3)),
    );
    expect(nanohenrys).toEqual([8.75, 12.5, 22]);
  });
  it("lets the cold raise a worn part's ESR further than a new one's", () => {
    const at = (value: number, temperatureCelsius: number) => {
      const readings = [sampleReading("C1", { value, frequencyHertz: 100e3 })];
      const filter = railFilter({ ...facts, readings, chosen: new Map() }, "net-12", {
        ...{ state: "measured", switchingHertz: 100e3, temperatureCelsius },
      });
      return filter?.parts[0]?.capacitor.esrOhms ?? 0;
    };
    // a + (1 - a) e^(30/27) = 2.325 as new, a + (1 - a) e^(30/15) = 5.153 at five times the ESR: 2.217 times more.
    expect(wornColdFactor(5, -10)).toBeCloseTo(2.2167, 3);
    expect(wornColdFactor(20, -30)).toBe(wornColdFactor(5, -10));
    expect([wornColdFactor(0.8, -10), wornColdFactor(5, 20), wornColdFactor(5, 60)]).toEqual([1, 1, 1]);
    expect(at(0.6, -10) / at(0.6, 20)).toBeGreaterThan(1.8 * (at(0.02, -10) / at(0.02, 20)));
  });
  it("carries a reading from the tester's frequency to the converter's", () => {
    const readings = [sampleReading("C1", { value: 0.2, frequencyHertz: 1000 })];
    const filter = railFilter({ ...facts, readings, chosen: new Map() }, "net-12", {
      state: "measured",
      switchingHertz: 65e3,
      temperatureCelsius: 20,
    });
    expect(filter?.parts[0]?.capacitor.esrOhms).toBeLessThan(0.2);
    expect(filter?.parts.map((one) => one.source)).toEqual(["read", "marking", "marking"]);
  });
  it("leaves a part that reads no capacitance out of the ripple that is left", () => {
    const none = sampleReading("C1", { quantity: "capacitance", value: 0, circuitState: "out" });
    const at = (readings: readonly (typeof none)[]) =>
      predictRipple(question({ board: { ...facts, readings, chosen: new Map() } }))?.states.measured
        .loadPeakToPeakVolts ?? 0;
    expect(at([none])).toBeGreaterThan(1.5 * at([]));
  });
  it("says nothing for a rail without a part that can be reckoned with", () => {
    const unmarked = [samplePart("C1", { capacitanceFarads: null })];
    expect(predictRipple(question({ board: { ...facts, fittedParts: unmarked, chosen: new Map() } }))).toBeNull();
  });
  it("sweeps loads as if each were solved by itself", () => {
    const loads = [0.5, 1, 2.5];
    for (const kind of switching) {
      const asked = question({ converter: unknownConverter(kind) });
      const swept = sweepLoads(asked, loads);
      loads.forEach((loadAmps, n) => {
        const alone = predictRipple({ ...asked, loadAmps });
        const exact = alone?.states.measured.loadPeakToPeakVolts ?? 0;
        expect(swept[n]?.measured).toBeGreaterThan(exact * 0.9999);
        expect(swept[n]?.measured).toBeLessThan(exact * 1.0001);
      });
    }
  });
});

it("lets a linear regulator take 15 to 50 dB off the ripple of its feed", () => {
  const { typicalVolts, lowVolts, highVolts } = regulatedRipple(0.1);
  expect([lowVolts, typicalVolts, highVolts].map((one) => Number(one.toPrecision(3)))).toEqual([
    0.000316, 0.00316, 0.0178,
  ]);
});

describe("filterHarmonics", () => {
  it("sum to the current of the steady state, capacitor by capacitor", () => {
    const found = predictRipple(question());
    const { network } = found?.states.measured.filter ?? {};
    if (!network || !found) throw new Error("no filter");
    const spectra = filterHarmonics(found.described.source, network, 2000);
    const exact = steadyRipple(found.described.source, network).capacitorAmps;
    spectra.forEach((harmonics, n) => {
      const sum = Math.sqrt(harmonics.reduce((total, one) => total + one.ampsRms ** 2, 0));
      expect(sum / (exact[n]?.rms ?? 1)).toBeCloseTo(1, 3);
    });
  });
});

describe("bulk currents", () => {
  it("behind a boost stage follow power over bus volts", () => {
    const input = { busVolts: 385, mainsHertz: 50, loadWatts: 150, capacitanceFarads: 200e-6, esrOhms: 0.2 };
    const bulk = boostBulk({ ...input, dropoutVolts: 300 });
    expect(bulk.lowFrequencyAmpsRms).toBeCloseTo(150 / 385 / Math.SQRT2, 9);
    // P / (w C V) = 150 / (2 pi 50 x 200e-6 x 385) = 6.2 V
    expect(bulk.peakToPeakVolts).toBeCloseTo(6.2, 1);
    expect(bulk.holdUpSeconds).toBeCloseTo((200e-6 * (385 ** 2 - 300 ** 2)) / 300, 9);
  });
  it("of a primary are larger the shorter its pulses", () => {
    const pulses = (dutyRatio: number, rippleRatio: number | null) =>
      primaryPulseAmpsRms({ loadWatts: 60, busVolts: 300, dutyRatio, rippleRatio });
    expect(pulses(0.2, null)).toBeGreaterThan(pulses(0.4, null));
    // A square wave of half duty has as much alternating as mean current.
    expect(pulses(0.5, 0)).toBeCloseTo(0.2, 9);
  });
});

describe("a captured rail", () => {
  const analysis = (peakToPeak: number): CaptureAnalysis => ({
    ...{ sampleCount: 1000, intervalSeconds: 1e-7, meanVolts: 12, peakToPeakVolts: peakToPeak },
    ...{ limitedPeakToPeakVolts: null, rmsVolts: 0.1, quietPeakToPeakVolts: peakToPeak, spikePeakToPeakVolts: 0 },
    ...{ spikesPerSecond: 0, mains: null, doubleMains: null, pulsing: null, driftVoltsPerSecond: 0, dominant: [] },
    switching: { frequencyHertz: 65e3, peakToPeak, rms: peakToPeak / 4 },
  });
  const captured = (peakToPeak: number) => ({
    ...facts,
    captures: [
      {
        id: "k",
        netId: "net-12",
        loadAmps: 3,
        analysis: analysis(peakToPeak),
        measuredAt: "2026-11-23T12:00:00Z",
        sequence: 1,
      },
    ],
  });
  it("is explained by its capacitors as read, or leaves an open point", () => {
    const points = (peakToPeak: number) => openPoints(captured(peakToPeak), sampleRules, 0).map((one) => one.key);
    expect(points(5)).toContain("ripple_unexplained:net-12");
    expect(points(0.0005)).not.toContain("ripple_unexplained:net-12");
    expect(rippleFindings(captured(5))[0]?.attribution.explainedRatio).toBeLessThan(0.2);
  });
  it("takes the converter by the device's kind until somebody says", () => {
    expect(converterOf(sampleNet(), facts).kind).toBe("flyback_discontinuous");
    const device = { kind: "computer-supply" as const, topology: "forward_or_half_bridge" as const, ageYears: null };
    expect(converterOf(sampleNet(), { device }).kind).toBe("half_bridge");
    const own = { ...unknownConverter("buck"), switchingHertz: 1e6 };
    expect(converterOf(sampleNet({ converter: own }), facts)).toBe(own);
  });
});

const simulator = "/usr/bin/ngspice";
describe("spiceNetlist", () => {
  it("writes a source that closes its period, both banks and what to measure", () => {
    const found = predictRipple(question());
    if (!found) throw new Error("no prediction");
    const text = spiceNetlist("a rail\nas read", found.described.source, found.states.measured.filter.network);
    expect(text.split("\n")[0]).toBe("* a rail as read");
    expect(text).toMatch(/Vshape s 0 PWL\(0\.0+e\+0 0\.0+e\+0/);
    for (const line of ["Ra1", "Ca2", "Lchoke a m", "Rb1 b", ".meas tran pp_b", ".end"]) expect(text).toContain(line);
  });
  it.runIf(existsSync(simulator))("agrees with a general-purpose simulator within a per cent", () => {
    const folder = mkdtempSync(join(tmpdir(), "netlist-"));
    try {
      for (const kind of ["flyback_discontinuous", "buck"] as const) {
        const found = predictRipple(question({ converter: unknownConverter(kind) }));
        if (!found) throw new Error("no prediction");
        const { filter, ripple } = found.states.measured;
        const file = join(folder, `${kind}.cir`);
        writeFileSync(file, spiceNetlist(kind, found.described.source, filter.network));
        const told = execFileSync(simulator, ["-b", file], { encoding: "utf8" });
        const simulated = Number(/pp_a\s*=\s*([\d.e+-]+)/.exec(told)?.[1]);
        expect(simulated / (ripple.nodeVolts[0]?.peakToPeak ?? 1)).toBeCloseTo(1, 2);
      }
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});

import { expectedEsr } from "../capacitors/expectedEsr";
import { absorptionRecovery } from "../discharge/absorptionRecovery";
import { decayedVolts, discharge } from "../discharge/discharge";
import { lampFromRating } from "../discharge/drainPath";
import { type CircuitBranch, drivingPointImpedance } from "../incircuit/nodalAnalysis";
import { lifeByTenKelvinRule } from "../life/lifeTenKelvin";
import { entropyBits } from "../numerics/entropyBits";
import { logistic, logit } from "../numerics/logistic";
import { controlSupplyStart } from "../replacement/controlSupplyStart";
import { loopChange } from "../replacement/loopPhase";
import { mainsBulk } from "../ripple/mainsBulk";
import { inductorCurrent } from "../ripple/sourceCurrent";
import { steadyRipple } from "../ripple/steadyRipple";

/** Something to turn, in SI or as said. */
export interface LessonKnob {
  readonly key: string;
  readonly least: number;
  readonly most: number;
  readonly step: number;
  readonly start: number;
}

type Values = Readonly<Record<string, number>>;
type Points = readonly (readonly [number, number])[];

/** What a model shows for how its knobs stand: lines over one of them, figures by their names. */
export interface LessonView {
  readonly lines: readonly { readonly code: string; readonly points: Points }[];
  readonly limits: readonly number[];
  readonly figures: readonly { readonly code: string; readonly value: number }[];
}

export interface LessonModel {
  readonly knobs: readonly LessonKnob[];
  readonly view: (values: Values) => LessonView;
}

const of = (values: Values, key: string) => values[key] ?? 0;
/** So many points from one end to the other. */
const over = (least: number, most: number, count: number): readonly number[] =>
  Array.from({ length: count }, (_, n) => Number((least + ((most - least) * n) / (count - 1)).toPrecision(5)));
const percentOf = (ratio: number) => Number((100 * ratio).toPrecision(5));
const knob = (key: string, least: number, most: number, step: number, start: number): LessonKnob => ({
  ...{ key, least, most, step, start },
});

const part = {
  capacitanceFarads: 470e-6,
  ratedVolts: 25,
  capacitorClass: "lowz",
  diameterMetres: 0.01,
  heightMetres: 0.0125,
} as const;
const canHenrys = 12e-9;

/** The bulk of a supply of sixty watts, with so much of its capacitance left. */
const bulkAt = (leftRatio: number, loadWatts: number) =>
  mainsBulk({
    ...{
      topology: "bridge",
      mainsVoltsRms: 230,
      mainsHertz: 50,
      sourceOhms: 4,
      esrOhms: 0.5,
      loadWatts,
      dropoutVolts: 60,
    },
    capacitanceFarads: Math.max(82e-6 * leftRatio, 3e-6),
  });
const [bulkLeast, bulkCount] = [0.1, 10];

/** ESR by frequency at a temperature: the law of core's expected ESR. */
const esrByFrequency: LessonModel = {
  knobs: [knob("celsius", -20, 60, 5, 20)],
  view: (values) => {
    const at = (temperatureCelsius: number, frequencyHertz: number) =>
      expectedEsr({ ...part, temperatureCelsius, frequencyHertz }).typicalOhms;
    const line = (celsius: number): Points => over(2, 5, 25).map((decades) => [decades, at(celsius, 10 ** decades)]);
    const celsius = of(values, "celsius");
    return {
      lines: [
        { code: "now", points: line(celsius) },
        { code: "at_20", points: line(20) },
      ],
      limits: [],
      figures: [
        { code: "esr_120_hertz", value: at(celsius, 120) },
        { code: "esr_1_kilohertz", value: at(celsius, 1e3) },
        { code: "esr_100_kilohertz", value: at(celsius, 100e3) },
      ],
    };
  },
};

/** A bad part beside a good one of the same kind, as a tester at 100 kHz sees it. */
const masking: LessonModel = {
  knobs: [knob("badOhms", 0.05, 5, 0.05, 1.5)],
  view: (values) => {
    const branch = (esrOhms: number): CircuitBranch => ({
      ...{ kind: "capacitor", from: "rail", to: "ground", capacitanceFarads: 470e-6, eslHenrys: canHenrys },
      ...{ esrOhms, leakageOhms: null },
    });
    const shown = (badOhms: number) =>
      drivingPointImpedance([branch(badOhms), branch(0.04)], ["rail", "ground"], 100e3).re;
    const bad = of(values, "badOhms");
    return {
      lines: [
        { code: "in_circuit", points: over(0.05, 5, 30).map((ohms) => [ohms, shown(ohms)]) },
        {
          code: "neighbour",
          points: [
            [0.05, 0.04],
            [5, 0.04],
          ],
        },
      ],
      limits: [],
      figures: [
        { code: "lifted", value: bad },
        { code: "in_circuit", value: shown(bad) },
      ],
    };
  },
};

/** What comes back after a drain to nought. */
const absorption: LessonModel = {
  knobs: [knob("startVolts", 50, 400, 10, 325)],
  view: (values) => {
    const back = (startVolts: number) => absorptionRecovery({ startVolts, remainingVolts: 0 });
    const range = over(50, 400, 15);
    const now = back(of(values, "startVolts"));
    return {
      lines: [
        { code: "at_least", points: range.map((volts) => [volts, back(volts).lowVolts]) },
        { code: "at_most", points: range.map((volts) => [volts, back(volts).highVolts]) },
      ],
      limits: [60],
      figures: [
        { code: "at_least", value: now.lowVolts },
        { code: "at_most", value: now.highVolts },
      ],
    };
  },
};

/** A filament in series with what a supply draws: its share of its own rating, once both have settled. */
function lampShare(lampWatts: number, loadWatts: number): number {
  const [volts, lamp] = [230, lampFromRating(230, lampWatts)];
  let amps = loadWatts / volts;
  for (let n = 0; n < 200; n++) {
    const watts = Math.min((amps * volts) / 2, lampWatts);
    const kelvin = lamp.thermalResistanceKelvinPerWatt * watts;
    const ohms = lamp.coldOhms * (1 + lamp.coefficientPerKelvin * kelvin);
    const left = Math.max(volts - amps * ohms, volts / 2);
    amps += 0.2 * (Math.min(loadWatts / left, volts / ohms) - amps);
  }
  const hot = lamp.coldOhms * (1 + lamp.coefficientPerKelvin * lamp.thermalResistanceKelvinPerWatt * lampWatts);
  return Math.min((amps ** 2 * hot) / lampWatts, 1);
}

const lamp: LessonModel = {
  knobs: [knob("lampWatts", 40, 200, 20, 60), knob("loadWatts", 1, 60, 1, 3)],
  view: (values) => {
    const lampWatts = of(values, "lampWatts");
    return {
      lines: [{ code: "glow", points: over(1, 60, 25).map((watts) => [watts, 100 * lampShare(lampWatts, watts)]) }],
      limits: [],
      figures: [
        { code: "glow_percent", value: 100 * lampShare(lampWatts, of(values, "loadWatts")) },
        { code: "short_amps", value: lampWatts / 230 },
      ],
    };
  },
};

/** A leak beside a sound capacitor, as a meter that tells a series capacitance shows it. */
const leakage: LessonModel = {
  knobs: [knob("leakDecades", 1.5, 6, 0.1, 3)],
  view: (values) => {
    const shown = (leakageOhms: number) => {
      const branch: CircuitBranch = {
        ...{ kind: "capacitor", from: "a", to: "b", capacitanceFarads: 10e-6, esrOhms: 0.5, eslHenrys: 0, leakageOhms },
      };
      const z = drivingPointImpedance([branch], ["a", "b"], 120);
      return { microfarads: 1e6 / (2 * Math.PI * 120 * -z.im), seriesOhms: z.re };
    };
    const now = shown(10 ** of(values, "leakDecades"));
    return {
      lines: [
        { code: "shown", points: over(1.5, 6, 30).map((decades) => [decades, shown(10 ** decades).microfarads]) },
      ],
      limits: [10],
      figures: [
        { code: "leak_ohms", value: 10 ** of(values, "leakDecades") },
        { code: "shown_microfarads", value: now.microfarads },
        { code: "shown_ohms", value: now.seriesOhms },
      ],
    };
  },
};

/** Two ripples on one rail: of the mains by the bulk, of the converter by the output's ESR. */
const twoRipples: LessonModel = {
  knobs: [knob("leftPercent", 10, 100, 5, 100), knob("outputOhms", 0.02, 1, 0.02, 0.04)],
  view: (values) => {
    const source = inductorCurrent({ switchingHertz: 65e3, loadAmps: 2, swingAmps: 0.6, dutyRatio: 0.4 });
    const switching = (esrOhms: number) =>
      steadyRipple(source, {
        before: [{ capacitanceFarads: 680e-6, esrOhms, eslHenrys: canHenrys, leakageOhms: null }],
        choke: null,
        after: [],
      }).nodeVolts[0]?.peakToPeak ?? 0;
    return {
      lines: [
        {
          code: "mains_ripple",
          points: over(bulkLeast, 1, bulkCount).map((left) => [percentOf(left), bulkAt(left, 40).peakToPeakVolts]),
        },
      ],
      limits: [],
      figures: [
        { code: "bulk_volts_100_hertz", value: bulkAt(of(values, "leftPercent") / 100, 40).peakToPeakVolts },
        { code: "output_volts_65_kilohertz", value: switching(of(values, "outputOhms")) },
      ],
    };
  },
};

/** The lowest volts of the bus by what is left of the bulk, idle and loaded. */
const unloaded: LessonModel = {
  knobs: [knob("leftPercent", 10, 100, 5, 40)],
  view: (values) => {
    const line = (watts: number): Points =>
      over(bulkLeast, 1, bulkCount).map((left) => [percentOf(left), bulkAt(left, watts).lowestVolts]);
    const left = of(values, "leftPercent") / 100;
    return {
      lines: [
        { code: "idle", points: line(1) },
        { code: "loaded", points: line(60) },
      ],
      limits: [180],
      figures: [
        { code: "idle_lowest_volts", value: bulkAt(left, 1).lowestVolts },
        { code: "loaded_lowest_volts", value: bulkAt(left, 60).lowestVolts },
      ],
    };
  },
};

const draining: LessonModel = {
  knobs: [knob("ohms", 470, 20_000, 10, 2200), knob("microfarads", 22, 680, 1, 150)],
  view: (values) => {
    const [resistanceOhms, capacitanceFarads] = [of(values, "ohms"), of(values, "microfarads") * 1e-6];
    const found = discharge({ capacitanceFarads, startVolts: 325, targetVolts: 5, resistanceOhms });
    const tau = resistanceOhms * capacitanceFarads;
    const seconds = over(0, 6 * tau, 30);
    return {
      lines: [{ code: "volts", points: seconds.map((at) => [at, decayedVolts(325, tau, at)]) }],
      limits: [60],
      figures: [
        { code: "stored_joules", value: found.storedJoules },
        { code: "seconds_to_5_volts", value: found.durationSeconds },
        { code: "peak_watts", value: found.peakPowerWatts },
      ],
    };
  },
};

const heatAndLife: LessonModel = {
  knobs: [knob("celsius", 40, 105, 1, 75)],
  view: (values) => {
    const years = (ambientCelsius: number, ratedLifeHours: number) =>
      lifeByTenKelvinRule({ ratedLifeHours, ratedTemperatureCelsius: 105, ambientCelsius }).cappedLifeHours / 8766;
    const range = over(40, 105, 27);
    const celsius = of(values, "celsius");
    return {
      lines: [
        { code: "rated_2000", points: range.map((at) => [at, years(at, 2000)]) },
        { code: "rated_8000", points: range.map((at) => [at, years(at, 8000)]) },
      ],
      limits: [],
      figures: [
        { code: "years_2000", value: years(celsius, 2000) },
        { code: "years_8000", value: years(celsius, 8000) },
      ],
    };
  },
};

const controlStart: LessonModel = {
  knobs: [knob("leftPercent", 5, 100, 5, 60)],
  view: (values) => {
    const supply = (ratio: number) =>
      controlSupplyStart({
        ...{ capacitanceFarads: 22e-6 * ratio, bulkVolts: 325, startOhms: 470e3, quiescentAmps: 4e-5 },
        ...{ startVolts: 16, stopVolts: 9, operatingAmps: 0.006, takeoverSeconds: 0.006 },
      });
    const left = of(values, "leftPercent") / 100;
    // For how long the chip runs on what it holds, against how long it has to.
    const milliseconds = (ratio: number) => (1e3 * 22e-6 * ratio * (16 - 9)) / 0.006;
    return {
      lines: [{ code: "runs_for", points: over(0.05, 1, 20).map((ratio) => [percentOf(ratio), milliseconds(ratio)]) }],
      limits: [6],
      figures: [
        { code: "runs_milliseconds", value: milliseconds(left) },
        { code: "least_microfarads", value: 1e6 * supply(left).leastFarads },
        { code: "first_try_seconds", value: supply(left).startSeconds },
      ],
    };
  },
};

const tooLittleEsr: LessonModel = {
  knobs: [knob("newOhms", 0.005, 0.06, 0.001, 0.04)],
  view: (values) => {
    const lost = (esrOhms: number) =>
      loopChange(
        { esrOhms: 0.04, capacitanceFarads: 2000e-6 },
        { esrOhms, capacitanceFarads: 2000e-6 },
        { switchingHertz: 65e3, isIsolated: true },
      ).lostDegrees;
    return {
      lines: [
        {
          code: "lost_degrees",
          points: over(0.005, 0.06, 25).map((ohms) => [Number((1e3 * ohms).toPrecision(5)), lost(ohms)]),
        },
      ],
      limits: [15, 30],
      figures: [{ code: "lost_degrees", value: lost(of(values, "newOhms")) }],
    };
  },
};

/** One reading: from a chance before it to a chance after it. */
const oneReading: LessonModel = {
  knobs: [knob("priorPercent", 1, 90, 1, 10), knob("timesLikelier", 0.05, 30, 0.05, 8)],
  view: (values) => {
    const [prior, times] = [of(values, "priorPercent") / 100, of(values, "timesLikelier")];
    const after = (p: number) => logistic(logit(p) + Math.log(times));
    return {
      lines: [{ code: "after", points: over(0.01, 0.9, 30).map((p) => [percentOf(p), 100 * after(p)]) }],
      limits: [50],
      figures: [
        { code: "after_percent", value: 100 * after(prior) },
        { code: "doubt_before_bits", value: entropyBits(prior) },
        { code: "doubt_after_bits", value: entropyBits(after(prior)) },
      ],
    };
  },
};

/** The models of the twelve lessons, in their order. */
export const lessonModels = {
  esr_by_frequency: esrByFrequency,
  masking,
  absorption,
  lamp,
  leakage,
  two_ripples: twoRipples,
  unloaded,
  draining,
  heat_and_life: heatAndLife,
  control_start: controlStart,
  too_little_esr: tooLittleEsr,
  one_reading: oneReading,
} as const satisfies Readonly<Record<string, LessonModel>>;
export type LessonCode = keyof typeof lessonModels;
export const lessonCodes = Object.keys(lessonModels) as readonly LessonCode[];

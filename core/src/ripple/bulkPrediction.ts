import type { BoardNet } from "../board/board";
import { promisedWatts } from "../board/promisedWatts";
import { OutOfRangeError } from "../errors";
import type { Topology } from "../facts/deviceProfiles";
import { boostBulk } from "./boostBulk";
import { boostSwitchingAmpsRms, resonantPrimaryAmpsRms } from "./boostSwitching";
import { converterDropout, type Dropout } from "./converterDropout";
import { mainsBulk } from "./mainsBulk";
import { primaryPulseAmpsRms } from "./primaryPulses";
import { type FilterState, filterStates, type RippleBoard, railFilter } from "./railRipple";

export interface BulkQuestion {
  readonly board: RippleBoard;
  readonly netId: string;
  readonly mainsVoltsRms: number;
  readonly mainsHertz: number;
  /** Taken from the bulk; null: from what the outputs were promised to deliver. */
  readonly loadWatts: number | null;
  readonly temperatureCelsius: number;
  /** How the supply is built; null: as a flyback. */
  readonly supplyTopology: Topology | null;
}

/** A bulk capacitor, or its bank, under its load in one state. */
export interface BulkState {
  readonly seconds: readonly number[];
  /** Over one mains cycle. */
  readonly busVolts: readonly number[];
  readonly peakToPeakVolts: number;
  readonly meanVolts: number;
  readonly valleyVolts: number;
  readonly holdUpSeconds: number;
  /** Between the volts at which usual converters of its kind give up. */
  readonly holdUpRangeSeconds: readonly [least: number, most: number];
  /** Share of each half cycle in which the mains charges; null behind a boost stage. */
  readonly conductionRatio: number | null;
  readonly lowFrequencyAmpsRms: number;
  readonly highFrequencyAmpsRms: number;
}

export interface BulkPrediction {
  readonly topology: "bridge" | "doubler" | "boost";
  readonly states: Readonly<Record<FilterState, BulkState>>;
  readonly loadWatts: number;
  readonly isLoadAssumed: boolean;
  /** At which volts the converter is taken to give up. */
  readonly dropout: Dropout;
  /** What each assumption does to the ripple as read, everything else as it is. */
  readonly effects: readonly BulkEffect[];
  readonly leftOutIds: readonly string[];
}

/** Value, and the range that usual supplies keep to. Rough. */
const assumed = {
  /** Mains, filter and a warm thermistor in series. */
  sourceOhms: [1.5, 0.5, 4],
  efficiencyRatio: [0.85, 0.75, 0.92],
} as const;
const assumedWatts = 40;
const primaryDutyRatio = 0.4;
const usualBoostVolts = 385;
const drawnPoints = 240;

/**
 * Ripple, valley, hold-up and currents of a bulk as new, as read and as replaced: behind a rectifier (mainsBulk; a series
 * bank is a doubler) or behind a boost stage (boostBulk). The converter's own pulses come on top as high-frequency current.
 *
 * @returns null where no capacitor can be reckoned with
 * @throws {OutOfRangeError} a load that this mains cannot feed
 */
export function predictBulk(question: BulkQuestion): BulkPrediction | null {
  const { board, netId } = question;
  const net = board.nets.find((one) => one.id === netId);
  if (!net) return null;
  const promised = promisedWatts(board.nets) / assumed.efficiencyRatio[0];
  const loadWatts = question.loadWatts ?? (promised > 0 ? promised : assumedWatts);
  const topology = net.section === "pfc" ? "boost" : net.network?.arrangement === "series" ? "doubler" : "bridge";
  const at = (state: FilterState, watts: number, ohms: number) =>
    bulkState(question, net, state, topology, watts, ohms);
  const [sourceOhms] = assumed.sourceOhms;
  const states = filterStates.map((state) => at(state, loadWatts, sourceOhms));
  const [healthy, measured, replaced] = states;
  if (!healthy || !measured || !replaced) return null;
  return {
    topology,
    loadWatts,
    dropout: converterDropout(question.supplyTopology, fullVolts(question, net, topology)),
    isLoadAssumed: question.loadWatts === null && promised === 0,
    effects: bulkEffects(topology, question.loadWatts === null && promised > 0, (watts, ohms) =>
      at("measured", loadWatts * watts, ohms ?? sourceOhms),
    ),
    states: { healthy: healthy.state, measured: measured.state, replaced: replaced.state },
    leftOutIds: measured.leftOutIds,
  };
}

export interface BulkEffect {
  readonly key: keyof typeof assumed;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly lowVolts: number;
  readonly highVolts: number;
}

function bulkEffects(
  topology: BulkPrediction["topology"],
  isEfficiencyAssumed: boolean,
  at: (wattsFactor: number, sourceOhms?: number) => { readonly state: BulkState } | null,
): readonly BulkEffect[] {
  const effect = (key: keyof typeof assumed, solve: (value: number) => { readonly state: BulkState } | null) => {
    const [value, low, high] = assumed[key];
    const volts = [low, high].map((one) => solve(one)?.state.peakToPeakVolts ?? 0).sort((a, b) => a - b);
    return { key, value, low, high, lowVolts: volts[0] ?? 0, highVolts: volts[1] ?? 0 };
  };
  const effects: BulkEffect[] = [];
  if (topology !== "boost") effects.push(effect("sourceOhms", (ohms) => at(1, ohms)));
  if (isEfficiencyAssumed) effects.push(effect("efficiencyRatio", (ratio) => at(assumed.efficiencyRatio[0] / ratio)));
  return effects;
}

function bulkState(
  question: BulkQuestion,
  net: BoardNet,
  state: FilterState,
  topology: BulkPrediction["topology"],
  loadWatts: number,
  sourceOhms: number,
) {
  const { mainsHertz, mainsVoltsRms, temperatureCelsius } = question;
  const filter = railFilter(question.board, net.id, { state, switchingHertz: 2 * mainsHertz, temperatureCelsius });
  if (!filter) return null;
  const parts = filter.parts.map((one) => one.capacitor);
  const farads = parts.reduce((sum, one) => sum + one.capacitanceFarads, 0);
  const siemens = parts.reduce((sum, one) => sum + 1 / one.esrOhms, 0);
  const { leftOutIds } = filter;
  const dropout = converterDropout(question.supplyTopology, fullVolts(question, net, topology));
  const isResonant = question.supplyTopology === "pfc_resonant_with_standby";
  const drawn = (busVolts: number) =>
    isResonant ? resonantPrimaryAmpsRms(loadWatts, busVolts) : pulses(loadWatts, busVolts);
  // The same charge, down to other volts: what a constant power takes goes with the difference of squares.
  const range = (seconds: number, fromVolts: number): readonly [number, number] => {
    const span = (volts: number) => Math.max(fromVolts ** 2 - volts ** 2, 0);
    const at = (volts: number) =>
      span(dropout.typicalVolts) > 0 ? (seconds * span(volts)) / span(dropout.typicalVolts) : 0;
    return [at(dropout.highVolts), at(dropout.lowVolts)];
  };
  if (topology === "boost") {
    const busVolts = fullVolts(question, net, topology);
    const found = boostBulk({
      ...{ busVolts, mainsHertz, loadWatts, capacitanceFarads: farads, esrOhms: 1 / siemens },
      dropoutVolts: dropout.typicalVolts,
    });
    const half = found.peakToPeakVolts / 2;
    const seconds = Array.from({ length: drawnPoints }, (_, n) => n / drawnPoints / mainsHertz);
    const course: BulkState = {
      seconds,
      busVolts: seconds.map((t) => busVolts - half * Math.sin(4 * Math.PI * mainsHertz * t)),
      peakToPeakVolts: found.peakToPeakVolts,
      meanVolts: busVolts,
      valleyVolts: busVolts - half,
      holdUpSeconds: found.holdUpSeconds,
      holdUpRangeSeconds: range(found.holdUpSeconds, busVolts),
      conductionRatio: null,
      lowFrequencyAmpsRms: found.lowFrequencyAmpsRms,
      highFrequencyAmpsRms: Math.hypot(
        boostSwitchingAmpsRms({
          loadWatts,
          busVolts,
          mainsVoltsRms: Math.min(mainsVoltsRms, (0.99 * busVolts) / Math.SQRT2),
        }),
        drawn(busVolts),
      ),
    };
    return { state: course, leftOutIds };
  }
  const isDoubler = topology === "doubler";
  const peak = Math.SQRT2 * mainsVoltsRms * (isDoubler ? 2 : 1);
  const found = mainsBulk({
    ...{ topology, mainsVoltsRms, mainsHertz, sourceOhms, loadWatts },
    // Of a doubler each stands by itself: the mean of those that are there.
    capacitanceFarads: isDoubler ? farads / parts.length : farads,
    esrOhms: isDoubler ? parts.length / siemens : 1 / siemens,
    dropoutVolts: Math.min(dropout.typicalVolts, 0.98 * peak),
  });
  const stride = Math.max(1, Math.floor(found.seconds.length / drawnPoints));
  const every = (values: Float64Array) => [...values].filter((_, n) => n % stride === 0);
  const course: BulkState = {
    seconds: every(found.seconds),
    busVolts: every(found.busVolts),
    peakToPeakVolts: found.peakToPeakVolts,
    meanVolts: found.meanVolts,
    valleyVolts: found.lowestVolts,
    holdUpSeconds: found.holdUpFromTrough.seconds,
    holdUpRangeSeconds: range(found.holdUpFromTrough.seconds, found.lowestVolts),
    conductionRatio: found.conductionSeconds * 2 * mainsHertz,
    lowFrequencyAmpsRms: Math.max(...found.capacitorAmpsRms),
    highFrequencyAmpsRms: drawn(found.meanVolts),
  };
  return { state: course, leftOutIds };
}

/** The crest of the mains, twice that of a doubler, or the boosted bus. */
function fullVolts({ mainsVoltsRms }: BulkQuestion, net: BoardNet, topology: BulkPrediction["topology"]): number {
  if (topology === "boost") return Math.abs(net.nominalVolts ?? usualBoostVolts);
  return Math.SQRT2 * mainsVoltsRms * (topology === "doubler" ? 2 : 1);
}

const pulses = (loadWatts: number, busVolts: number) =>
  primaryPulseAmpsRms({ loadWatts, busVolts, dutyRatio: primaryDutyRatio, rippleRatio: null });

/** Whether a failure of `predictBulk` means a mains too weak for the load. */
export const isTooWeak = (error: unknown): boolean => error instanceof OutOfRangeError;

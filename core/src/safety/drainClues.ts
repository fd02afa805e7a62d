import type { ChargeEvent, EnergyStore } from "./chargeWatch";
import { predictedDrainVolts } from "./drainPrediction";

export type DrainClueCode = "stays_full" | "falls_too_slowly" | "zero_from_start" | "creeps_back";

/** What a series of voltage readings on a store says, beyond the voltage itself. */
export interface DrainClue {
  readonly code: DrainClueCode;
  /** The reading that gave it away. */
  readonly at: string;
  readonly volts: number;
  /** What was predicted at that moment, with falls_too_slowly. */
  readonly predictedVolts: number | null;
  /** Capacitance that would explain the decay if the path is connected, with falls_too_slowly. */
  readonly impliedFarads: number | null;
}

/** Full voltage held so long tells that nothing loads the store. */
const holdSeconds = 60;
const zeroVolts = 0.5;
/** The prediction must have fallen by half a time constant before a reading above it tells anything. */
const begunShare = Math.exp(-0.5);

interface Timed {
  readonly event: ChargeEvent;
  readonly seconds: number;
  readonly volts: number;
}

/**
 * Clues from the readings since the mains was last connected:
 *
 * - `zero_from_start`: never charged, shorted, open, or a meter that is not measuring
 * - `stays_full`: at least 85 % of the first reading a minute later without a drain: the converter never started and
 *   there is no bleeder
 * - `falls_too_slowly`: half again above the prediction once that has fallen by half a time constant: more capacitance than entered, or a
 *   path that is not connected
 * - `creeps_back`: above the working voltage again after it was at or below it: dielectric absorption
 */
export function drainClues(
  store: EnergyStore,
  events: readonly ChargeEvent[],
  workingVolts: number,
): readonly DrainClue[] {
  const own = sinceMains(store, events);
  const readings = own.filter((one) => one.event.kind === "voltage_measured");
  const drain = own.filter((one) => one.event.kind === "drain_started").at(-1);
  const clues = [
    zeroFromStart(readings),
    staysFull(readings, drain),
    drain ? fallsTooSlowly(store, readings, drain) : null,
    creepsBack(readings, workingVolts),
  ];
  return clues.filter((clue) => clue !== null);
}

function sinceMains(store: EnergyStore, events: readonly ChargeEvent[]): readonly Timed[] {
  const ordered = events
    .filter((event) => event.storeId === null || event.storeId === store.id)
    .map((event): Timed => ({ event, seconds: Date.parse(event.at) / 1000, volts: Math.abs(event.volts ?? 0) }))
    .sort((a, b) => a.seconds - b.seconds);
  const mains = ordered.map((one) => one.event.kind).lastIndexOf("mains_connected");
  return ordered.slice(mains + 1);
}

function clue(code: DrainClueCode, { event, volts }: Timed, more: Partial<DrainClue> = {}): DrainClue {
  return { code, at: event.at, volts, predictedVolts: null, impliedFarads: null, ...more };
}

function zeroFromStart(readings: readonly Timed[]): DrainClue | null {
  const [first] = readings;
  if (!first || readings.some((one) => one.volts > zeroVolts)) return null;
  return clue("zero_from_start", first);
}

function staysFull(readings: readonly Timed[], drain: Timed | undefined): DrainClue | null {
  const undrained = readings.filter((one) => !drain || one.seconds < drain.seconds);
  const [first] = undrained;
  const last = undrained.at(-1);
  if (!first || !last || first.volts < 30 || last.seconds - first.seconds < holdSeconds) return null;
  return last.volts >= 0.85 * first.volts ? clue("stays_full", last) : null;
}

function fallsTooSlowly(store: EnergyStore, readings: readonly Timed[], drain: Timed): DrainClue | null {
  const { resistanceOhms, drainItem: item } = drain.event;
  const { capacitanceFarads, bleederOhms } = store;
  const startVolts = readings.filter((one) => one.seconds <= drain.seconds).at(-1)?.volts ?? store.expectedVolts;
  if (!capacitanceFarads || !startVolts) return null;
  const path = { capacitanceFarads, startVolts, bleederOhms, item, resistanceOhms };
  const predicted = (elapsed: number) => predictedDrainVolts(path, elapsed);
  const slow = readings.find((one) => {
    const elapsed = one.seconds - drain.seconds;
    const left = elapsed > 0 ? predicted(elapsed) : null;
    return left !== null && left < begunShare * startVolts && one.volts > 1.5 * left && one.volts > 5;
  });
  if (!slow) return null;
  const elapsed = slow.seconds - drain.seconds;
  const fall = Math.log(startVolts / slow.volts);
  // Only a plain resistance tells a capacitance: a lamp's resistance changes on the way.
  const ohms = item?.kind === "lamp" ? null : resistanceOhms;
  return clue("falls_too_slowly", slow, {
    predictedVolts: predicted(elapsed),
    impliedFarads: ohms && fall > 0.01 ? elapsed / (ohms * fall) : null,
  });
}

function creepsBack(readings: readonly Timed[], workingVolts: number): DrainClue | null {
  const last = readings.at(-1);
  const earlierLow = readings.slice(0, -1).some((one) => one.volts <= workingVolts);
  return last && earlierLow && last.volts > workingVolts ? clue("creeps_back", last) : null;
}

import { tradeConstants } from "../constants/tradeConstants";
import { predictedDrainVolts } from "../discharge/drainPrediction";
import type { ChargeEvent, EnergyStore } from "../facts/chargeFacts";
import { inOrder, secondsBetween } from "../readings/factMoment";

const { fullFromVolts, staysFullRatio, slowRatio, slowFromVolts, leastTellingFall } = tradeConstants.faults;

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
const { zeroVolts } = tradeConstants.safety;
/** The prediction must have fallen by half a time constant before a reading above it tells anything. */
const begunShare = Math.exp(-0.5);

interface Timed {
  readonly event: ChargeEvent;
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
 *
 * How long something took is only known between two events of one clock: others tell no time.
 */
export function drainClues(
  store: EnergyStore,
  events: readonly ChargeEvent[],
  workingVolts: number,
): readonly DrainClue[] {
  const own = sinceMains(store, events);
  const readings = own.filter((one) => one.event.kind === "voltage_measured");
  const drainIndex = own.map((one) => one.event.kind).lastIndexOf("drain_started");
  const drain = own[drainIndex];
  const before = drain ? own.slice(0, drainIndex).filter((one) => readings.includes(one)) : readings;
  const clues = [
    zeroFromStart(readings),
    staysFull(before),
    drain ? fallsTooSlowly(store, before, drain, own.slice(drainIndex + 1)) : null,
    creepsBack(readings, workingVolts),
  ];
  return clues.filter((clue) => clue !== null);
}

function sinceMains(store: EnergyStore, events: readonly ChargeEvent[]): readonly Timed[] {
  const ordered = inOrder(events)
    .filter((event) => event.storeId === null || event.storeId === store.id)
    .map((event): Timed => ({ event, volts: Math.abs(event.volts ?? 0) }));
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

/** @param undrained readings before any drain */
function staysFull(undrained: readonly Timed[]): DrainClue | null {
  const [first] = undrained;
  const last = undrained.at(-1);
  if (!first || !last || first.volts < fullFromVolts || (secondsBetween(first.event, last.event) ?? 0) < holdSeconds)
    return null;
  return last.volts >= staysFullRatio * first.volts ? clue("stays_full", last) : null;
}

function fallsTooSlowly(
  store: EnergyStore,
  before: readonly Timed[],
  drain: Timed,
  after: readonly Timed[],
): DrainClue | null {
  const { resistanceOhms, drainItem: item } = drain.event;
  const { capacitanceFarads, bleederOhms } = store;
  const startVolts = before.at(-1)?.volts ?? store.expectedVolts;
  if (!capacitanceFarads || !startVolts) return null;
  const path = { capacitanceFarads, startVolts, bleederOhms, item, resistanceOhms };
  const predicted = (elapsed: number) => predictedDrainVolts(path, elapsed);
  const elapsedAt = (one: Timed) => secondsBetween(drain.event, one.event) ?? 0;
  const slow = after.find((one) => {
    if (one.event.kind !== "voltage_measured") return false;
    const elapsed = elapsedAt(one);
    const left = elapsed > 0 ? predicted(elapsed) : null;
    return left !== null && left < begunShare * startVolts && one.volts > slowRatio * left && one.volts > slowFromVolts;
  });
  if (!slow) return null;
  const elapsed = elapsedAt(slow);
  const fall = Math.log(startVolts / slow.volts);
  // Only a plain resistance tells a capacitance: a lamp's resistance changes on the way.
  const ohms = item?.kind === "lamp" ? null : resistanceOhms;
  return clue("falls_too_slowly", slow, {
    predictedVolts: predicted(elapsed),
    impliedFarads: ohms && fall > leastTellingFall ? elapsed / (ohms * fall) : null,
  });
}

function creepsBack(readings: readonly Timed[], workingVolts: number): DrainClue | null {
  const last = readings.at(-1);
  const earlierLow = readings.slice(0, -1).some((one) => one.volts <= workingVolts);
  return last && earlierLow && last.volts > workingVolts ? clue("creeps_back", last) : null;
}

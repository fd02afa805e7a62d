import { predictedDrainVolts } from "../discharge/drainPrediction";
import type { ChargeEvent, EnergyStore, LineSide } from "../facts/chargeFacts";
import type { ChargeRules } from "../facts/jobRules";
import {
  inOrder,
  isClockAhead,
  type LoggedFact,
  secondsBetween,
  secondsSince,
  serverMilliseconds,
} from "../readings/factMoment";
import { creepBackVolts } from "./creepBack";

/** `drained_once`: read low once; whether the charge comes back is not known yet. */
export type ChargeStateName = "unknown" | "charged" | "draining" | "drained_once" | "verified";

export type UnknownReason =
  | "nothing_logged"
  /** Parts of the board that can hold charge and that nobody named as a store. */
  | "not_named"
  | "mains_connected"
  | "live_reading"
  | "dc_fed"
  | "insulation_test"
  | "meter_not_proved"
  | "verification_expired"
  /** The moment of the reading lies ahead of the server's clock. */
  | "clock_ahead"
  /** Nobody knows how the clock of the reading stands to the server's: how old it is cannot be told. */
  | "clock_unknown";

/** What is missing to a verification after a first low reading. */
export type WaitReason = "second_reading" | "other_side_of_fuse" | "creeps_back" | "drain_removed";

export interface ChargeState {
  readonly name: ChargeStateName;
  readonly storeId: string | null;
  /** Last measured voltage, where one still counts. */
  readonly volts: number | null;
  readonly at: string | null;
  /** What is left by now if the drain path is connected, while draining. */
  readonly predictedVolts: number | null;
  readonly reason: UnknownReason | null;
  /** What a store that was read low once waits for. */
  readonly waitsFor: WaitReason | null;
  /** From when on a second reading counts, by the server's clock; null where no wait runs. */
  readonly waitUntilMilliseconds: number | null;
  /** The drain hangs on the store. */
  readonly isDrainOn: boolean;
  /** Where two readings say that it creeps back above the limit: to about how much. */
  readonly creepVolts: number | null;
  /** Until when a verification counts, by the server's clock; null where nothing is verified. */
  readonly verifiedUntilMilliseconds: number | null;
  /** Designators of what nobody named, with not_named. */
  readonly designators: readonly string[];
}

/** A moment from which the charge had time to come back: a low reading, or the drain taken off. */
interface LowSince {
  readonly fact: LoggedFact;
  /** null: the drain was taken off, nothing was read. */
  readonly volts: number | null;
}

interface Fold {
  readonly state: ChargeState;
  /** The event that the state stands on. */
  readonly event: ChargeEvent | null;
  readonly lowSince: LowSince | null;
  /** Sides of the fuse on which the line was read low. */
  readonly lowSides: readonly LineSide[];
}

const noState: Omit<ChargeState, "name" | "storeId"> = {
  volts: null,
  at: null,
  predictedVolts: null,
  reason: null,
  waitsFor: null,
  waitUntilMilliseconds: null,
  isDrainOn: false,
  creepVolts: null,
  verifiedUntilMilliseconds: null,
  designators: [],
};

/** A state in which nothing counts, for a reason. */
export function unknownCharge(
  reason: UnknownReason,
  more: Partial<Pick<ChargeState, "storeId" | "at" | "designators">> = {},
): ChargeState {
  return { ...noState, name: "unknown", storeId: null, reason, ...more };
}

/**
 * The state of one store after all that was logged, in the order in which it was stored.
 *
 * Verified are two readings of a proved meter at or below the working voltage, without a drain, at least the rule's wait
 * apart, as long as the two do not say that it creeps back above it; or one with the drain left on, until that is taken
 * off: then one more reading after the wait. The line at an X capacitor is verified by one reading on each side of the
 * fuse. A zero counts like any other low reading. Mains, any live reading, d.c. fed in or an insulation test make the
 * store unknown again, and a verification expires. A reading whose clock runs ahead, or whose age nobody knows, verifies
 * nothing. The fold draws these conclusions by itself: it says what was measured and when, never that something is safe.
 *
 * @param nowMilliseconds the server's clock, for prediction and expiry
 */
export function foldChargeState(
  store: EnergyStore,
  events: readonly ChargeEvent[],
  rules: ChargeRules,
  nowMilliseconds: number,
): ChargeState {
  const start = unknownCharge("nothing_logged", { storeId: store.id });
  let fold: Fold = { state: start, event: null, lowSince: null, lowSides: [] };
  const ordered = inOrder(events).filter((event) => event.storeId === null || event.storeId === store.id);
  for (const event of ordered) fold = applyEvent(store, fold, event, rules);
  return withClock(fold, store, nowMilliseconds);
}

function applyEvent(store: EnergyStore, fold: Fold, event: ChargeEvent, rules: ChargeRules): Fold {
  switch (event.kind) {
    case "mains_connected":
    case "live_reading":
    case "dc_fed":
    case "insulation_test": {
      // A drain that nobody took off still hangs there.
      const { isDrainOn } = fold.state;
      const state = { ...unknownCharge(event.kind, { storeId: store.id, at: event.at }), isDrainOn };
      return { state, event, lowSince: null, lowSides: [] };
    }
    case "mains_disconnected":
      return fold;
    case "drain_started": {
      const { volts } = fold.state;
      const state = { ...noState, name: "draining" as const, storeId: store.id, volts, at: event.at, isDrainOn: true };
      return { state, event, lowSince: null, lowSides: [] };
    }
    case "drain_removed":
      return applyRemoval(fold, event, rules);
    case "voltage_measured":
      return applyMeasurement(store, fold, event, rules);
  }
}

/** What was verified with the drain on has to show that it stays low without. */
function applyRemoval(fold: Fold, event: ChargeEvent, rules: ChargeRules): Fold {
  const { state } = fold;
  if (!state.isDrainOn) return fold;
  if (state.name !== "verified") return { ...fold, state: { ...state, isDrainOn: false, at: event.at }, event };
  const waiting = waitsFor(state, "drain_removed", event, rules);
  return { state: { ...waiting, isDrainOn: false }, event, lowSince: { fact: event, volts: null }, lowSides: [] };
}

function applyMeasurement(store: EnergyStore, fold: Fold, event: ChargeEvent, rules: ChargeRules): Fold {
  const volts = Math.abs(event.volts ?? Number.NaN);
  if (Number.isNaN(volts)) return fold;
  const measured = { ...noState, storeId: store.id, volts: event.volts, at: event.at, isDrainOn: event.isDrainOn };
  if (volts > rules.workingVolts)
    return { state: { ...measured, name: "charged" }, event, lowSince: null, lowSides: [] };
  const because = (reason: UnknownReason): Fold => ({
    ...fold,
    state: { ...measured, name: "unknown", reason },
    event,
  });
  if (!event.isMeterProved) return because("meter_not_proved");
  if (isClockAhead(event)) return because("clock_ahead");
  const at = serverMilliseconds(event);
  if (at === null) return because("clock_unknown");
  const verified: ChargeState = {
    ...measured,
    name: "verified",
    verifiedUntilMilliseconds: at + rules.reverifySeconds * 1000,
  };
  const low = (state: ChargeState, lowSince: LowSince | null): Fold => ({ state, event, lowSince, lowSides: [] });
  if (store.kind === "x_capacitor") {
    const lowSides = [...new Set([...fold.lowSides, ...(event.lineSide ? [event.lineSide] : [])])];
    if (lowSides.length === 2) return { state: verified, event, lowSince: null, lowSides };
    const state: ChargeState = { ...measured, name: "drained_once", waitsFor: "other_side_of_fuse" };
    return { state, event, lowSince: null, lowSides };
  }
  if (event.isDrainOn) return low(verified, null);
  const { lowSince } = fold;
  if (!lowSince) return low(waitsFor(measured, "second_reading", event, rules), { fact: event, volts });
  const elapsed = apart(lowSince.fact, event);
  if (elapsed === null || elapsed < rules.waitSeconds) {
    // The first one keeps its place: whoever reads again and again still waits no longer than the rule says.
    return low(
      waitsFor(measured, "second_reading", lowSince.fact, rules),
      elapsed === null ? { fact: event, volts } : lowSince,
    );
  }
  const creepVolts = lowSince.volts === null ? volts : creepBackVolts(lowSince.volts, volts, elapsed);
  if (creepVolts <= rules.workingVolts) return low(verified, lowSince);
  return low({ ...measured, name: "drained_once", waitsFor: "creeps_back", creepVolts }, lowSince);
}

function waitsFor(
  measured: Omit<ChargeState, "name">,
  reason: WaitReason,
  since: LoggedFact,
  rules: ChargeRules,
): ChargeState {
  const from = serverMilliseconds(since);
  const waitUntilMilliseconds = from === null ? null : from + rules.waitSeconds * 1000;
  return {
    ...measured,
    name: "drained_once",
    reason: null,
    waitsFor: reason,
    waitUntilMilliseconds,
    verifiedUntilMilliseconds: null,
  };
}

/** Seconds between two facts by their own clock, or else by the server's, which knows how each stood to it. */
function apart(earlier: LoggedFact, later: LoggedFact): number | null {
  const within = secondsBetween(earlier, later);
  if (within !== null) return within;
  const [from, to] = [serverMilliseconds(earlier), serverMilliseconds(later)];
  return from === null || to === null ? null : (to - from) / 1000;
}

function withClock({ state, event }: Fold, store: EnergyStore, now: number): ChargeState {
  if (event === null) return state;
  if (state.name === "verified" && now > (state.verifiedUntilMilliseconds ?? 0)) {
    return { ...state, name: "unknown", reason: "verification_expired" };
  }
  if (state.name !== "draining" || event.kind !== "drain_started") return state;
  const elapsedSeconds = secondsSince(event, now);
  const start = state.volts ?? store.expectedVolts;
  if (elapsedSeconds === null || !store.capacitanceFarads || start === null) return state;
  const { resistanceOhms, drainItem: item } = event;
  const { capacitanceFarads, bleederOhms } = store;
  const path = { capacitanceFarads, startVolts: Math.abs(start), bleederOhms, item, resistanceOhms };
  return { ...state, predictedVolts: predictedDrainVolts(path, elapsedSeconds) };
}

const severity: Readonly<Record<ChargeStateName, number>> = {
  verified: 0,
  drained_once: 1,
  draining: 2,
  unknown: 3,
  charged: 4,
};

/**
 * The worst of a job's stores, which is what the job shows; without any store the state is unknown. The same severity:
 * the earlier verification, so that the one that expires first shows.
 */
export function worstChargeState(states: readonly ChargeState[]): ChargeState {
  return (
    states.reduce<ChargeState | null>((worst, state) => {
      if (worst === null) return state;
      const difference = severity[state.name] - severity[worst.name];
      if (difference !== 0) return difference > 0 ? state : worst;
      const until = (one: ChargeState) => one.verifiedUntilMilliseconds ?? Number.POSITIVE_INFINITY;
      return until(state) < until(worst) ? state : worst;
    }, null) ?? unknownCharge("nothing_logged")
  );
}

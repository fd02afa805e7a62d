import { tradeConstants } from "../constants/tradeConstants";
import { predictedDrainVolts } from "../discharge/drainPrediction";
import type { ChargeEvent, EnergyStore } from "../facts/chargeFacts";
import type { ChargeRules } from "../facts/jobRules";
import { inOrder, isClockAhead, secondsSince, serverMilliseconds } from "../readings/factMoment";

const { zeroVolts } = tradeConstants.safety;

export type ChargeStateName = "unknown" | "charged" | "draining" | "verified";

export type UnknownReason =
  | "nothing_logged"
  | "mains_connected"
  | "live_reading"
  | "meter_not_proved"
  | "zero_without_history"
  | "verification_expired"
  /** The moment of the reading lies ahead of the server's clock. */
  | "clock_ahead"
  /** Nobody knows how the clock of the reading stands to the server's: how old it is cannot be told. */
  | "clock_unknown";

export interface ChargeState {
  readonly name: ChargeStateName;
  readonly storeId: string | null;
  /** Last measured voltage, where one still counts. */
  readonly volts: number | null;
  readonly at: string | null;
  /** What is left by now if the drain path is connected, while draining. */
  readonly predictedVolts: number | null;
  readonly reason: UnknownReason | null;
  /** Until when a verification counts, by the server's clock; null where nothing is verified. */
  readonly verifiedUntilMilliseconds: number | null;
}

interface Fold {
  readonly state: ChargeState;
  /** A voltage was seen on this store since it was last connected. */
  readonly hasSeenVoltage: boolean;
  /** The event that the state stands on. */
  readonly event: ChargeEvent | null;
}

/**
 * The state of one store after all that was logged, in the order in which it was stored.
 *
 * Only a proved meter's reading at or below the working voltage verifies; a zero without an earlier non-zero reading
 * leaves the state unknown; connecting the mains or any live reading makes it unknown again; and a verification expires.
 * A reading whose clock runs ahead, or whose age nobody knows, verifies nothing.
 * The fold draws these conclusions by itself: it says what was measured and when, never that something is safe.
 *
 * @param nowMilliseconds the server's clock, for prediction and expiry
 */
export function foldChargeState(
  store: EnergyStore,
  events: readonly ChargeEvent[],
  rules: ChargeRules,
  nowMilliseconds: number,
): ChargeState {
  let fold: Fold = { state: unknown(store, "nothing_logged", null), hasSeenVoltage: false, event: null };
  const ordered = inOrder(events).filter((event) => event.storeId === null || event.storeId === store.id);
  for (const event of ordered) fold = applyEvent(store, fold, event, rules);
  return withClock(fold, store, nowMilliseconds);
}

function unknown(store: EnergyStore, reason: UnknownReason, at: string | null): ChargeState {
  return {
    name: "unknown",
    storeId: store.id,
    volts: null,
    at,
    predictedVolts: null,
    reason,
    verifiedUntilMilliseconds: null,
  };
}

function applyEvent(store: EnergyStore, fold: Fold, event: ChargeEvent, rules: ChargeRules): Fold {
  switch (event.kind) {
    case "mains_connected":
      return { state: unknown(store, "mains_connected", event.at), hasSeenVoltage: false, event };
    case "live_reading":
      return { state: unknown(store, "live_reading", event.at), hasSeenVoltage: false, event };
    case "mains_disconnected":
      return fold;
    case "drain_started":
      return { ...fold, state: { ...fold.state, name: "draining", at: event.at, reason: null }, event };
    case "voltage_measured":
      return applyMeasurement(store, fold, event, rules);
  }
}

function applyMeasurement(store: EnergyStore, fold: Fold, event: ChargeEvent, rules: ChargeRules): Fold {
  const volts = Math.abs(event.volts ?? Number.NaN);
  if (Number.isNaN(volts)) return fold;
  const hasSeenVoltage = fold.hasSeenVoltage || volts > zeroVolts;
  const measured = { storeId: store.id, volts: event.volts, at: event.at, predictedVolts: null, reason: null };
  const noLimit = { verifiedUntilMilliseconds: null };
  if (volts > rules.workingVolts) return { state: { ...measured, ...noLimit, name: "charged" }, hasSeenVoltage, event };
  const because = (reason: UnknownReason): Fold => ({
    state: { ...measured, ...noLimit, name: "unknown", reason },
    hasSeenVoltage,
    event,
  });
  if (rules.mustProveMeter && !event.isMeterProved) return because("meter_not_proved");
  if (!hasSeenVoltage) return because("zero_without_history");
  if (isClockAhead(event)) return because("clock_ahead");
  const at = serverMilliseconds(event);
  if (at === null) return because("clock_unknown");
  const verifiedUntilMilliseconds = at + rules.reverifySeconds * 1000;
  return { state: { ...measured, name: "verified", verifiedUntilMilliseconds }, hasSeenVoltage, event };
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

const severity: Readonly<Record<ChargeStateName, number>> = { verified: 0, draining: 1, unknown: 2, charged: 3 };

/**
 * The worst of a job's stores, which is what the job shows; without any store the state is unknown. The same severity:
 * the earlier verification, so that the one that expires first shows.
 */
export function worstChargeState(states: readonly ChargeState[]): ChargeState {
  const none: ChargeState = {
    name: "unknown",
    storeId: null,
    volts: null,
    at: null,
    predictedVolts: null,
    reason: "nothing_logged",
    verifiedUntilMilliseconds: null,
  };
  return (
    states.reduce<ChargeState | null>((worst, state) => {
      if (worst === null) return state;
      const difference = severity[state.name] - severity[worst.name];
      if (difference !== 0) return difference > 0 ? state : worst;
      const until = (one: ChargeState) => one.verifiedUntilMilliseconds ?? Number.POSITIVE_INFINITY;
      return until(state) < until(worst) ? state : worst;
    }, null) ?? none
  );
}

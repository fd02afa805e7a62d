import { type Reading, standingReadings } from "../readings/reading";
import {
  type ChargeEvent,
  type ChargeRules,
  type ChargeState,
  type EnergyStore,
  foldChargeState,
  worstChargeState,
} from "../safety/chargeWatch";

/** What the charge watch of a job is drawn from. */
export interface ChargeFacts {
  readonly energyStores: readonly EnergyStore[];
  readonly chargeEvents: readonly ChargeEvent[];
  readonly readings: readonly Reading[];
}

/** State of every energy store of a job; every reading under power counts as a live reading of its own accord. */
export function jobChargeStates(
  facts: ChargeFacts,
  rules: ChargeRules,
  nowMilliseconds: number,
): readonly ChargeState[] {
  const live = standingReadings(facts.readings)
    .filter((reading) => reading.isPowered)
    .map(
      (reading): ChargeEvent => ({
        kind: "live_reading",
        storeId: null,
        at: reading.measuredAt,
        volts: null,
        isMeterProved: false,
        resistanceOhms: null,
      }),
    );
  const events = [...facts.chargeEvents, ...live];
  return facts.energyStores.map((store) => foldChargeState(store, events, rules, nowMilliseconds));
}

/** What the frame shows: the worst store. */
export function jobChargeState(facts: ChargeFacts, rules: ChargeRules, nowMilliseconds: number): ChargeState {
  return worstChargeState(jobChargeStates(facts, rules, nowMilliseconds));
}

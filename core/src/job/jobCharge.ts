import type { ChargeEvent } from "../facts/chargeFacts";
import type { ChargeRules } from "../facts/jobRules";
import { loggedReading, type Reading, standingReadings } from "../readings/reading";
import { type ChargeState, foldChargeState, unknownCharge, worstChargeState } from "../safety/chargeWatch";
import { type StoreBoard, storeOfPosition, unnamedHolders } from "../safety/storeCoverage";

/** What the charge watch of a job is drawn from. */
export interface ChargeFacts extends StoreBoard {
  readonly chargeEvents: readonly ChargeEvent[];
  readonly readings: readonly Reading[];
}

/**
 * State of every energy store of a job, and one of what the board tells of and nobody named. Every reading under power
 * counts as a live reading of its own accord, and a voltage above the working voltage that a probe finds on a store's part
 * shows that it is charged. A low one proves nothing here: the bar does not ask whether the meter was proved.
 */
export function jobChargeStates(
  facts: ChargeFacts,
  rules: ChargeRules,
  nowMilliseconds: number,
): readonly ChargeState[] {
  const nothing = {
    volts: null,
    isMeterProved: false,
    isDrainOn: false,
    lineSide: null,
    resistanceOhms: null,
    drainItem: null,
  };
  const drawn = standingReadings(facts.readings).flatMap((reading): ChargeEvent[] => {
    const moment = loggedReading(reading);
    if (reading.isPowered) return [{ ...nothing, ...moment, kind: "live_reading", storeId: null }];
    const volts = reading.value ?? 0;
    if (reading.quantity !== "dc_voltage" || Math.abs(volts) <= rules.workingVolts) return [];
    const storeId = storeOfPosition(facts, reading.targetId)?.id;
    return storeId ? [{ ...nothing, ...moment, kind: "voltage_measured", storeId, volts }] : [];
  });
  const events = [...facts.chargeEvents, ...drawn];
  const named = facts.energyStores.map((store) => foldChargeState(store, events, rules, nowMilliseconds));
  const designators = unnamedHolders(facts).map((one) => one.designator);
  return designators.length > 0 ? [...named, unknownCharge("not_named", { designators })] : named;
}

/** What the frame shows: the worst store. */
export function jobChargeState(facts: ChargeFacts, rules: ChargeRules, nowMilliseconds: number): ChargeState {
  return worstChargeState(jobChargeStates(facts, rules, nowMilliseconds));
}

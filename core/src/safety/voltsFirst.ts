import type { BoardPosition } from "../board/board";
import type { JobFacts } from "../facts/jobFacts";
import type { ChargeRules } from "../facts/jobRules";
import { inOrder, type LoggedFact, secondsSince } from "../readings/factMoment";
import { loggedReading, type QuantityKind, standingReadings } from "../readings/reading";
import type { ChargeState } from "./chargeWatch";

/** Quantities whose measurement puts the meter's own small source across the part: a charge there destroys it. */
const endangering: readonly QuantityKind[] = ["esr", "capacitance", "voltage_loss", "resistance"];

export interface VoltsFirst {
  readonly isNeeded: boolean;
  /** Last voltage read on the part's net since it could last have been charged; null where none was. */
  readonly lastVolts: number | null;
}

/**
 * Whether DC volts have to be read on a part before ESR, capacitance or ohms.
 *
 * Not where its store is verified; not where a voltage at or below the working voltage was read on its net since the
 * last mains connection or live reading, and not longer ago than a verification counts. One reading serves a whole net:
 * its capacitors are in parallel. A reading of which nobody knows how old it is counts for nothing.
 */
export function voltsFirst(
  facts: JobFacts,
  position: BoardPosition,
  quantity: QuantityKind,
  states: readonly ChargeState[],
  rules: ChargeRules,
  nowMilliseconds: number,
): VoltsFirst {
  const store = facts.energyStores.find(
    (one) => one.positionId === position.id || (one.netId !== null && one.netId === position.netId),
  );
  const state = states.find((one) => one.storeId === store?.id);
  const last = lastVoltage(facts, position, store?.id);
  const age = last && secondsSince(last.fact, nowMilliseconds);
  const isFresh = age !== null && age <= rules.reverifySeconds;
  const isLow = isFresh && last !== null && Math.abs(last.volts) <= rules.workingVolts;
  const isNeeded = endangering.includes(quantity) && state?.name !== "verified" && !isLow;
  return { isNeeded, lastVolts: last?.volts ?? null };
}

interface Voltage {
  readonly fact: LoggedFact;
  readonly volts: number;
}

/** The last voltage read since the net could last have been charged, by the order of storing. */
function lastVoltage(facts: JobFacts, position: BoardPosition, storeId: string | undefined): Voltage | null {
  const standing = standingReadings(facts.readings);
  const sameNet = new Set(
    facts.positions
      .filter((one) => one.id === position.id || (position.netId !== null && one.netId === position.netId))
      .map((one) => one.id),
  );
  const told = [
    ...standing.map((one) => ({ ...loggedReading(one), reading: one, event: null })),
    ...facts.chargeEvents.map((event) => ({ ...event, reading: null, event })),
  ];
  let last: Voltage | null = null;
  for (const fact of inOrder(told)) {
    const { reading, event } = fact;
    if (reading?.isPowered || event?.kind === "mains_connected" || event?.kind === "live_reading") last = null;
    else if (reading?.quantity === "dc_voltage" && sameNet.has(reading.targetId)) {
      last = { fact, volts: reading.value ?? 0 };
    } else if (event?.kind === "voltage_measured" && storeId !== undefined && event.storeId === storeId) {
      last = { fact, volts: event.volts ?? 0 };
    }
  }
  return last;
}

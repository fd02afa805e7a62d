import type { BoardPosition } from "../board/board";
import type { JobFacts } from "../job/jobFacts";
import { type QuantityKind, standingReadings } from "../readings/reading";
import type { ChargeRules, ChargeState } from "./chargeWatch";

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
 * its capacitors are in parallel.
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
  const isFresh = last !== null && nowMilliseconds - last.at <= rules.reverifySeconds * 1000;
  const isLow = isFresh && Math.abs(last.volts) <= rules.workingVolts;
  const isNeeded = endangering.includes(quantity) && state?.name !== "verified" && !isLow;
  return { isNeeded, lastVolts: last?.volts ?? null };
}

interface Voltage {
  readonly at: number;
  readonly volts: number;
}

function lastVoltage(facts: JobFacts, position: BoardPosition, storeId: string | undefined): Voltage | null {
  const standing = standingReadings(facts.readings);
  const sameNet = new Set(
    facts.positions
      .filter((one) => one.id === position.id || (position.netId !== null && one.netId === position.netId))
      .map((one) => one.id),
  );
  const charged = [
    ...standing.filter((reading) => reading.isPowered).map((reading) => Date.parse(reading.measuredAt)),
    ...facts.chargeEvents
      .filter((event) => event.kind === "mains_connected" || event.kind === "live_reading")
      .map((event) => Date.parse(event.at)),
  ];
  const since = Math.max(Number.NEGATIVE_INFINITY, ...charged);
  const read = standing
    .filter((one) => one.quantity === "dc_voltage" && !one.isPowered && sameNet.has(one.targetId))
    .map((one): Voltage => ({ at: Date.parse(one.measuredAt), volts: one.value ?? 0 }));
  const logged = facts.chargeEvents
    .filter((event) => event.kind === "voltage_measured" && storeId !== undefined && event.storeId === storeId)
    .map((event): Voltage => ({ at: Date.parse(event.at), volts: event.volts ?? 0 }));
  const all = [...read, ...logged].filter((one) => one.at >= since).sort((a, b) => a.at - b.at);
  return all.at(-1) ?? null;
}

import type { BoardPosition } from "../board/board";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import type { ChargeRules } from "../facts/jobRules";
import { inOrder, type LoggedFact, secondsSince } from "../readings/factMoment";
import { loggedReading, type QuantityKind, standingReadings } from "../readings/reading";
import type { ChargeState } from "./chargeWatch";
import { chargeHolders, isReadAlone, storeOfPosition } from "./storeCoverage";

const { touchLimitVolts, highStoreFreshSeconds } = tradeConstants.safety;

/** Quantities whose measurement puts the meter's own small source across the part: a charge there destroys it. */
const endangering: readonly QuantityKind[] = ["esr", "capacitance", "voltage_loss", "resistance"];
/** What an ohmmeter does; a diode test is one. */
const byOhmmeter: readonly QuantityKind[] = ["resistance", "diode_drop"];

export interface VoltsFirst {
  readonly isNeeded: boolean;
  /** No ohmmeter belongs across it: it is above the working voltage, or a store of which nothing is known. */
  readonly isRefused: boolean;
  /** Last voltage read on the part's net since it could last have been charged; null where none was. */
  readonly lastVolts: number | null;
}

/**
 * Whether DC volts have to be read on a part before ESR, capacitance or ohms, and whether ohms are refused.
 *
 * Not needed where a voltage at or below the working voltage was read on its net since the last mains connection or live
 * reading, not longer ago than a verification counts, and no more than five minutes on what had been above 60 V; nor where
 * its store is verified and never stood above 60 V, or hangs on its drain. One reading serves a net whose parts are in
 * parallel; of two in series each is asked by itself. A reading of which nobody knows how old it is counts for nothing.
 */
export function voltsFirst(
  facts: JobFacts,
  position: BoardPosition,
  quantity: QuantityKind,
  states: readonly ChargeState[],
  rules: ChargeRules,
  nowMilliseconds: number,
): VoltsFirst {
  const store = storeOfPosition(facts, position.id);
  const state = states.find((one) => store !== undefined && one.storeId === store.id);
  const isUnnamed = state === undefined && chargeHolders(facts).some((one) => one.id === position.id);
  const { last, highestVolts } = voltages(facts, position, store?.id);
  const net = facts.nets.find((one) => one.id === position.netId);
  const expected = Math.max(store?.expectedVolts ?? 0, Math.abs(net?.nominalVolts ?? 0));
  const wasHigh = Math.max(expected, highestVolts) > touchLimitVolts;
  const age = last && secondsSince(last.fact, nowMilliseconds);
  const freshSeconds = wasHigh ? Math.min(highStoreFreshSeconds, rules.reverifySeconds) : rules.reverifySeconds;
  const isLow = last !== null && Math.abs(last.volts) <= rules.workingVolts;
  const isFresh = isLow && age !== null && age <= freshSeconds;
  const isHeld = state?.name === "verified" && (state.isDrainOn || !wasHigh);
  const isStoreOpen = state !== undefined && state.name !== "verified" && state.name !== "drained_once";
  const isRefused = byOhmmeter.includes(quantity) && ((last !== null && !isLow) || isStoreOpen || isUnnamed);
  const isNeeded = isRefused || (endangering.includes(quantity) && !isHeld && !isFresh);
  return { isNeeded, isRefused, lastVolts: last?.volts ?? null };
}

interface Voltage {
  readonly fact: LoggedFact;
  readonly volts: number;
}

/**
 * The last voltage read since the net could last have been charged, by the order of storing, and the highest ever read
 * there.
 */
function voltages(
  facts: JobFacts,
  position: BoardPosition,
  storeId: string | undefined,
): { readonly last: Voltage | null; readonly highestVolts: number } {
  const standing = standingReadings(facts.readings);
  const isAlone = isReadAlone(facts.nets, position.netId);
  const sameNet = new Set(
    facts.positions
      .filter((one) => one.id === position.id || (!isAlone && one.netId === position.netId))
      .map((one) => one.id),
  );
  const told = [
    ...standing.map((one) => ({ ...loggedReading(one), reading: one, event: null })),
    ...facts.chargeEvents.map((event) => ({ ...event, reading: null, event })),
  ];
  let last: Voltage | null = null;
  let highestVolts = 0;
  for (const fact of inOrder(told)) {
    const { reading, event } = fact;
    const volts =
      reading?.quantity === "dc_voltage" && !reading.isPowered && sameNet.has(reading.targetId)
        ? reading.value
        : event?.kind === "voltage_measured" && storeId !== undefined && event.storeId === storeId
          ? event.volts
          : null;
    if (reading?.isPowered || (event && recharges.includes(event.kind))) last = null;
    else if (volts !== null) {
      last = { fact, volts };
      highestVolts = Math.max(highestVolts, Math.abs(volts));
    }
  }
  return { last, highestVolts };
}

const recharges: readonly JobFacts["chargeEvents"][number]["kind"][] = [
  "mains_connected",
  "live_reading",
  "dc_fed",
  "insulation_test",
];

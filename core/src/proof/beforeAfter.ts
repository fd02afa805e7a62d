import type { JobAct } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import { isBefore } from "../readings/factMoment";
import { type Falsifier, falsifiedBy } from "../readings/falsified";
import { loggedReading, type QuantityKind, type Reading, standingReadings, type TargetKind } from "../readings/reading";
import { lastChange } from "./lastChange";

/** What is proved by comparing: there are no limits, so that what it was and what it is stand side by side. */
export const comparedQuantities = ["temperature", "time", "power"] as const satisfies QuantityKind[];

/** One quantity at one place, before the last work on the unit and after it. */
export interface BeforeAfter {
  readonly targetKind: TargetKind;
  readonly targetId: string;
  readonly quantity: (typeof comparedQuantities)[number];
  /** Heat in an open case is not compared with heat in a closed one. */
  readonly isCaseClosed: boolean;
  /** The last one before the last part came out or went in; where none did, every reading is `after`. */
  readonly before: Reading | null;
  readonly after: Reading | null;
  /** Through what the later one was read, where that makes it say nothing. */
  readonly afterVoidedBy: Falsifier | null;
}

/**
 * Heat, times and power before the last work and since, in the order in which the places were first read. Only
 * what was read after the last part went in or came out (on a rail: or its trim was turned) says anything of the unit as it
 * is; what was read before says what it was like. No verdict: nobody promised a number.
 */
export function beforeAfter(facts: {
  readonly readings: readonly Reading[];
  readonly ticks: readonly ReworkTick[];
  readonly acts: readonly JobAct[];
}): readonly BeforeAfter[] {
  const rows = new Map<string, BeforeAfter>();
  for (const reading of standingReadings(facts.readings)) {
    const quantity = comparedQuantities.find((one) => one === reading.quantity);
    if (!quantity || reading.value === null) continue;
    const { targetKind, targetId } = reading;
    const isCaseClosed = quantity === "temperature" && reading.rig.isCaseClosed === true;
    const key = [targetKind, targetId, quantity, isCaseClosed].join(" ");
    const nothing = { before: null, after: null, afterVoidedBy: null };
    const row = rows.get(key) ?? { targetKind, targetId, quantity, isCaseClosed, ...nothing };
    const change = lastChange(targetKind === "rail" ? targetId : null, facts);
    const isAfter = change === null || isBefore(change, loggedReading(reading));
    rows.set(
      key,
      isAfter ? { ...row, after: reading, afterVoidedBy: falsifiedBy(reading) } : { ...row, before: reading },
    );
  }
  return [...rows.values()];
}

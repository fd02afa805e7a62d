import { median } from "../numerics/median";
import type { QuantityKind } from "../readings/reading";

/** What one place read on other boards of the same type. */
export interface BaselineValue {
  readonly designator: string;
  readonly quantity: QuantityKind;
  readonly isInCircuit: boolean;
  readonly frequencyHertz: number;
  readonly typical: number;
  readonly low: number;
  readonly high: number;
  readonly unitCount: number;
  /** A unit that was measured because it is known to be good; else parts that were judged sound. */
  readonly isKnownGood: boolean;
  /** The middle of other units of the family, whose parts may be good or bad: only what reads far above it tells anything. */
  readonly isOfBrothers?: boolean | undefined;
}

/** What one good unit read at one place. */
export interface GoodReading {
  readonly unitId: string;
  /** The unit was measured because it is known to be good; else the part was judged sound at hand-over. */
  readonly isKnownGood: boolean;
  readonly designator: string;
  readonly quantity: QuantityKind;
  readonly isInCircuit: boolean;
  readonly frequencyHertz: number;
  readonly value: number;
}

/** One reading tells nothing of the spread between units: its band is this wide each way. Bench habit. */
const singleSpreadRatio = 0.25;

/**
 * What good boards of one type read, place by place: median, least and most over units, in the same state and at the same
 * frequency. Where a unit that is known to be good was measured, only such units count.
 */
export function baselineOfUnits(readings: readonly GoodReading[]): readonly BaselineValue[] {
  const groups = new Map<string, GoodReading[]>();
  for (const one of readings) {
    if (!(one.value > 0 && one.frequencyHertz > 0)) continue;
    const key = [one.designator, one.quantity, one.isInCircuit, one.frequencyHertz].join("|");
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return [...groups.values()].map((all) => {
    const known = all.filter((one) => one.isKnownGood);
    const counted = known.length > 0 ? known : all;
    const values = counted.map((one) => one.value);
    const typical = median(values);
    const { designator, quantity, isInCircuit, frequencyHertz } = counted[0] as GoodReading;
    return {
      designator,
      quantity,
      isInCircuit,
      frequencyHertz,
      typical,
      low: Math.min(...values, typical * (1 - singleSpreadRatio)),
      high: Math.max(...values, typical * (1 + singleSpreadRatio)),
      unitCount: new Set(counted.map((one) => one.unitId)).size,
      isKnownGood: known.length > 0,
    };
  });
}

/** So many other units must have been read at a place. */
const fewestBrothers = 2;

/**
 * What other units of a family read, place by place: their middle, in the same state and at the same frequency. Nobody says that
 * they are good: who reads like them is not cleared by it, who reads far above them is other than they are.
 */
export function baselineOfBrothers(readings: readonly GoodReading[]): readonly BaselineValue[] {
  return baselineOfUnits(readings.map((one) => ({ ...one, isKnownGood: false })))
    .filter((one) => one.unitCount >= fewestBrothers)
    .map((one) => ({ ...one, isOfBrothers: true }));
}

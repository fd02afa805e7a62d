import type { JobAct } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import { isBefore, secondsBetween } from "../readings/factMoment";
import { loggedReading, type Reading, standingReadings } from "../readings/reading";
import { lastChange } from "./lastChange";
import { type ThermalSettle, thermalSettle } from "./thermalSettle";

export interface HeatPoint {
  readonly seconds: number;
  readonly celsius: number;
  readonly ambientCelsius: number | null;
}

/** Temperatures of one place since the last work, from the first of them on. */
export interface HeatCurve {
  readonly targetKind: Reading["targetKind"];
  readonly targetId: string;
  /** An open case and a closed one are two courses. */
  readonly isCaseClosed: boolean;
  readonly points: readonly HeatPoint[];
  /** From five on; null: too few, or their times are not told apart. */
  readonly settle: ThermalSettle | null;
}

/** A pause longer than this begins a new run. */
const longestGapSeconds = 2 * 3600;

/**
 * How each place warms under power since the last work, and where it will settle. What lies further back than a pause of two hours
 * is another run. Times are differences by one clock.
 */
export function heatCurves(facts: {
  readonly readings: readonly Reading[];
  readonly ticks: readonly ReworkTick[];
  readonly acts: readonly JobAct[];
}): readonly HeatCurve[] {
  const change = lastChange(null, facts);
  const own = standingReadings(facts.readings).filter(
    (one) =>
      one.quantity === "temperature" &&
      one.value !== null &&
      one.isPowered &&
      (change === null || isBefore(change, loggedReading(one))),
  );
  const keyOf = (one: Reading) => `${one.targetKind} ${one.targetId} ${one.rig.isCaseClosed === true}`;
  const keys = [...new Set(own.map(keyOf))];
  return keys.flatMap((key) => {
    const list = lastRun(own.filter((one) => keyOf(one) === key));
    const first = list[0];
    if (!first) return [];
    const points = list.flatMap((one): HeatPoint[] => {
      const seconds = secondsBetween(loggedReading(first), loggedReading(one));
      return seconds === null ? [] : [{ seconds, celsius: one.value ?? 0, ambientCelsius: one.temperatureCelsius }];
    });
    // By several clocks of which nobody knows the difference: nothing can be drawn over time.
    if (points.length === 0) return [];
    const { targetKind, targetId, rig } = first;
    return [{ targetKind, targetId, isCaseClosed: rig.isCaseClosed === true, points, settle: settleOf(points) }];
  });
}

function lastRun(list: readonly Reading[]): readonly Reading[] {
  let from = 0;
  for (const [n, one] of list.entries()) {
    const before = list[n - 1];
    const gap = before ? secondsBetween(loggedReading(before), loggedReading(one)) : 0;
    if (gap === null || gap > longestGapSeconds) from = n;
  }
  return list.slice(from);
}

function settleOf(points: readonly HeatPoint[]): ThermalSettle | null {
  const rising = points.every((one, n) => n === 0 || one.seconds > (points[n - 1]?.seconds ?? 0));
  if (points.length < 5 || !rising) return null;
  const isAmbientOff = points.every((one) => one.ambientCelsius !== null);
  return thermalSettle(points, { isAmbientOff });
}

import type { CapacitorClass } from "../capacitors/capacitorClass";
import { leakageLimitAmps, usualLeakageOf } from "../capacitors/leakageLimit";
import { tradeConstants } from "../constants/tradeConstants";
import { requirePositive } from "../numerics/requireRange";

const trade = tradeConstants.stock;

export interface ReformPlan {
  /** The supply is set to each in turn. */
  readonly stepVolts: readonly number[];
  readonly seriesOhms: number;
  readonly resistorWatts: number;
  /** Into a short, at rated volts: more never flows. */
  readonly mostAmps: number;
  /** Below this the next step is taken, at the last one the part is formed. */
  readonly leakageLimitAmps: number;
  /** From half the rated volts on a step is left after so long at the latest. */
  readonly patienceSeconds: number;
  readonly lastStepSeconds: number;
  readonly mostRiseKelvin: number;
  readonly drainOhms: number;
  readonly restSeconds: number;
}

/** Values of the E12 row, one decade. */
const e12 = [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2];

/**
 * How a part that lay too long is brought back to its volts, out of its unit.
 *
 *     R: least E12 value with V/R <= 12.5 mA;  watts: twice V^2/R;  on to the next step when I < leakage limit of its class
 *
 * Bench practice, rough: the sheet of the series counts before it.
 *
 * @throws {OutOfRangeError} C or volts not above 0
 * @example reformPlan({ capacitanceFarads: 120e-6, ratedVolts: 400, capacitorClass: "lowz" }).seriesOhms // 33e3
 */
export function reformPlan(part: {
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  readonly capacitorClass: CapacitorClass | null;
}): ReformPlan {
  const volts = requirePositive("ratedVolts", part.ratedVolts);
  requirePositive("capacitanceFarads", part.capacitanceFarads);
  const least = volts / trade.reformMostAmps;
  const decade = 10 ** Math.floor(Math.log10(least));
  const seriesOhms = ([...e12, 10].find((one) => one * decade >= least * (1 - 1e-9)) ?? 10) * decade;
  return {
    stepVolts: trade.reformShares.map((share) => share * volts),
    seriesOhms,
    resistorWatts: (trade.reformWattsRatio * volts ** 2) / seriesOhms,
    mostAmps: volts / seriesOhms,
    leakageLimitAmps: leakageLimitAmps({ ...part, ...usualLeakageOf(part) }),
    ...{ patienceSeconds: trade.reformPatienceSeconds, lastStepSeconds: trade.reformLastSeconds },
    ...{ mostRiseKelvin: trade.reformMostRiseKelvin, drainOhms: trade.reformDrainOhms },
    restSeconds: trade.reformRestSeconds,
  };
}

/** One reading while a part is re-formed: which volts, since when, and what flows. */
export interface ReformReading {
  readonly stepVolts: number;
  /** Since that step was set. */
  readonly atSeconds: number;
  readonly leakageAmps: number;
  /** Over the air, where somebody read it. */
  readonly riseKelvin: number | null;
}

export type ReformAdvice = "begin" | "wait" | "next_step" | "stop_rising" | "stop_hot" | "stop_not_forming" | "formed";

/**
 * What to do now, by what was read: further only while the current falls; the part is formed when an hour at rated volts ends below
 * the limit.
 *
 * @param readings in their order
 */
export function reformAdvice(plan: ReformPlan, readings: readonly ReformReading[]): ReformAdvice {
  const last = readings.at(-1);
  if (!last) return "begin";
  if (last.riseKelvin !== null && last.riseKelvin > plan.mostRiseKelvin) return "stop_hot";
  const before = readings.at(-2);
  const isSameStep = before !== undefined && before.stepVolts === last.stepVolts;
  if (isSameStep && last.leakageAmps > before.leakageAmps) return "stop_rising";
  const rated = plan.stepVolts.at(-1) as number;
  const isBelow = last.leakageAmps < plan.leakageLimitAmps;
  if (last.stepVolts >= rated) {
    if (last.atSeconds < plan.lastStepSeconds) return "wait";
    return isBelow ? "formed" : "stop_not_forming";
  }
  const isPatienceOver =
    last.stepVolts >= trade.reformPatienceFromShare * rated && last.atSeconds >= plan.patienceSeconds;
  return isBelow || isPatienceOver ? "next_step" : "wait";
}

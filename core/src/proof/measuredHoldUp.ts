import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";

export interface HoldUpQuestion {
  readonly outputWatts: number;
  readonly efficiencyRatio: number;
  readonly holdUpSeconds: number;
  /** At the terminals of the bulk, under load, as the mains goes and as the rail falls out. */
  readonly fromVolts: number;
  readonly toVolts: number;
  readonly voltsDeviation?: number;
  readonly secondsDeviation?: number;
  readonly wattsDeviationRatio?: number;
  readonly esrOhms?: number | null;
  readonly markedFarads?: number | null;
  /** Above this share of the marking it is good. */
  readonly leastRatio?: number;
}

export interface MeasuredHoldUp {
  readonly capacitanceFarads: number;
  readonly deviationFarads: number;
  readonly markedRatio: number | null;
  readonly verdict: "ok" | "low" | "unclear" | null;
}

/**
 * Capacitance of a bulk from how long it carries the load.
 *
 *     p = P/eff;  Q = (V1^2 - V2^2)/2 - esr p ln(V1/V2);  C = p t/Q
 *     (u/C)^2 = (u_P (1 + esr p ln(V1/V2)/Q))^2 + (u_t/t)^2 + (u_V (V1 - esr p/V1)/Q)^2 + (u_V (V2 - esr p/V2)/Q)^2
 *
 * Solid; the efficiency is usual.
 *
 * @throws {OutOfRangeError} V1 not above V2, nothing left for C, efficiency not within 0 to 1
 */
export function measuredHoldUp(question: HoldUpQuestion): MeasuredHoldUp {
  const { outputWatts, efficiencyRatio, holdUpSeconds, fromVolts, toVolts, markedFarads = null } = question;
  const { voltsDeviation = 0, secondsDeviation = 0, wattsDeviationRatio = 0 } = question;
  const leastRatio = question.leastRatio ?? planningConstants.J.c_ok;
  const esrOhms = question.esrOhms ?? 0;
  for (const [name, value] of Object.entries({ outputWatts, holdUpSeconds, toVolts, leastRatio })) {
    requirePositive(name, value);
  }
  if (efficiencyRatio !== 1) requireBetween("efficiencyRatio", efficiencyRatio, 0, 1);
  for (const [name, value] of Object.entries({ voltsDeviation, secondsDeviation, wattsDeviationRatio, esrOhms })) {
    requireNonNegative(name, value);
  }
  if (markedFarads !== null) requirePositive("markedFarads", markedFarads);
  if (!(fromVolts > toVolts)) throw new OutOfRangeError("fromVolts", fromVolts, `above ${toVolts}`);
  const watts = outputWatts / efficiencyRatio;
  const fall = esrOhms * watts * Math.log(fromVolts / toVolts);
  const charge = (fromVolts ** 2 - toVolts ** 2) / 2 - fall;
  if (!(charge > 0)) throw new OutOfRangeError("esrOhms", esrOhms, "small enough to leave volts for C");
  const capacitanceFarads = (watts * holdUpSeconds) / charge;
  const relative = Math.hypot(
    wattsDeviationRatio * (1 + fall / charge),
    secondsDeviation / holdUpSeconds,
    (voltsDeviation * (fromVolts - (esrOhms * watts) / fromVolts)) / charge,
    (voltsDeviation * (toVolts - (esrOhms * watts) / toVolts)) / charge,
  );
  const deviationFarads = capacitanceFarads * relative;
  if (markedFarads === null) return { capacitanceFarads, deviationFarads, markedRatio: null, verdict: null };
  const low = (capacitanceFarads - 2 * deviationFarads) / markedFarads;
  const high = (capacitanceFarads + 2 * deviationFarads) / markedFarads;
  return {
    ...{ capacitanceFarads, deviationFarads, markedRatio: capacitanceFarads / markedFarads },
    verdict: low >= leastRatio ? "ok" : high < leastRatio ? "low" : "unclear",
  };
}

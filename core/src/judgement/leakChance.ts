import type { Section } from "../board/sections";
import { leakageLimitAmps, usualLeakageOf } from "../capacitors/leakageLimit";
import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { logistic, logit } from "../numerics/logistic";
import { normalDistribution } from "../numerics/normalDistribution";
import { groupReadings } from "../readings/groupReadings";
import { isInCircuit, type Reading } from "../readings/reading";
import type { JudgementQuestion } from "./verdict";
import { voltageLossLikelihood } from "./voltageLossLikelihood";

const { heldSeconds, leakPrior, leakSuspectedRatio, leakUnsuspectedFactor, shortOhms } = tradeConstants.judgement;

export interface LeakFinding {
  /** Over the catalogue's limit. */
  readonly ratio: number;
  readonly code: "leakage_current" | "leakage_resistance" | "short_resistance";
  readonly readingIds: readonly string[];
}

/** A net that reads less than this with the ohmmeter has something that conducts: what usual loads of its kind leave. Rough. */
export function suspiciousOhms(section: Section | undefined): number {
  const rows = tradeConstants.judgement.suspiciousOhms;
  return (section && rows[section]) || rows.output;
}

/**
 * Leakage against the catalogue's limit: a current as read, or what an ohmmeter out of circuit makes of it.
 *
 * A sound part that still charges shows R = t / C: ohms count only where R C lies below the seconds that it was held.
 */
export function findLeakage(question: JudgementQuestion): LeakFinding | null {
  const { capacitanceFarads, ratedVolts, capacitorClass } = question.subject.part;
  if (capacitanceFarads === null || ratedVolts === null) return null;
  const limit = leakageLimitAmps({ capacitanceFarads, ratedVolts, ...usualLeakageOf({ capacitorClass, ratedVolts }) });
  const current = groupReadings(question.readings, "leakage_current")[0];
  if (current && current.value > 0) {
    return { ratio: current.value / limit, code: "leakage_current", readingIds: current.readingIds };
  }
  const ohms = groupReadings(question.readings, "resistance").find((group) => !group.isInCircuit);
  if (!ohms || !(ohms.value * capacitanceFarads < heldSeconds)) return null;
  const code = ohms.value < shortOhms ? "short_resistance" : "leakage_resistance";
  return { ratio: ratedVolts / Math.max(ohms.value, 1e-3) / limit, code, readingIds: ohms.readingIds };
}

/** Readings that look for a leak: without one a part may leak, whatever else is in order. */
export const looksForLeak = (one: Reading) =>
  one.quantity === "leakage_current" ||
  one.quantity === "voltage_loss" ||
  (one.quantity === "resistance" && !one.isPowered);

/**
 * Chance that a part leaks, apart from what its ESR and C say: the share of leaky ones, what the ohmmeter makes of its bank,
 * then what was read of itself.
 */
export function leakProbability(question: JudgementQuestion, constants: JudgementConstants["B"]): number {
  const leakage = findLeakage(question);
  if (leakage) return normalDistribution(Math.log(leakage.ratio) / constants.leak_sigma);
  const loss = groupReadings(question.readings, "voltage_loss")[0];
  if (loss) {
    // C far above the marking together with a loss is charge that leaks away, not more foil.
    const marked = question.subject.part.capacitanceFarads;
    const farads = groupReadings(question.readings, "capacitance").find((group) => !group.isInCircuit)?.value ?? 0;
    const isSigned = marked !== null && farads > constants.c_high * marked && loss.value * 100 > constants.vloss_high;
    const signature = isSigned ? constants.leak_sig_llr : 0;
    return logistic(logit(leakPrior) + voltageLossLikelihood(loss.value, constants) + signature);
  }
  const ownOhms = question.readings.some((one) => one.quantity === "resistance" && !isInCircuit(one));
  if (ownOhms) return leakPrior * leakUnsuspectedFactor;
  const together = question.surroundings?.parallelOhms ?? null;
  if (together === null) return leakPrior;
  const farads = question.bank.reduce((sum, { part }) => sum + (part.capacitanceFarads ?? 0), 0);
  const isSuspected = together < suspiciousOhms(question.section) && together * farads < heldSeconds;
  return isSuspected ? leakSuspectedRatio / Math.max(question.bank.length, 1) : leakPrior * leakUnsuspectedFactor;
}

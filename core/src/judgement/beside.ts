import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { logit } from "../numerics/logistic";
import { isInCircuit, type QuantityKind, type Reading } from "../readings/reading";
import { baselineFindings } from "./baselineFindings";
import { besideNumbersShare, coarseFindings } from "./coarseEvidence";
import { isReadBadThenGood } from "./conflicts";
import { findEsr } from "./esrFinding";
import { esrLimitOhms } from "./esrLimit";
import { type Evidence, evidenceLikelihood } from "./evidenceLikelihood";
import { posteriorMeanProbability } from "./posteriorMean";
import { evidenceFromSigns } from "./signEvidence";
import type { JudgementQuestion } from "./verdict";

const { badThenGoodWeight } = tradeConstants.judgement;

/** Log-odds by which all that is no number moves "failed": looks, coarse testers, touch, good boards, the record. */
export function besideLogOdds(question: JudgementQuestion, constants: JudgementConstants): number {
  const { readings } = question;
  const hasNumbers = readings.some((one) => one.value !== null && !isInCircuit(one) && tellsOfIt.has(one.quantity));
  const coarse = coarseFindings(readings, question.bank.length > 1);
  return (
    evidenceLikelihood(weighedEvidence(question), constants.B).logLikelihoodRatio +
    coarse.reduce((sum, one) => sum + one.weight, 0) * (hasNumbers ? besideNumbersShare : 1) +
    baselineFindings(question).reduce((sum, one) => sum + one.weight, 0) +
    (isBadThenGood(question, constants) ? badThenGoodWeight : 0) +
    logit(recordPrior(question, constants)) -
    logit(constants.B.prior_fail)
  );
}

/** Numbers that say themselves what a coarse word says. */
const tellsOfIt: ReadonlySet<QuantityKind> = new Set([
  "esr",
  "capacitance",
  "voltage_loss",
  "leakage_current",
  "resistance",
]);

/** What was seen, and what was looked for in vain where the school lets that count. */
export function weighedEvidence({ signs, rules }: JudgementQuestion): Evidence {
  const evidence = evidenceFromSigns(signs);
  if (rules.cleanLookSchool === "counts_a_little") return evidence;
  return Object.fromEntries(Object.entries(evidence).filter(([, isSeen]) => isSeen !== false));
}

/** The prior of "failed" as the shop's record has it for its like; the default where it says nothing. */
export function recordPrior({ history }: JudgementQuestion, constants: JudgementConstants): number {
  if (!history || history.seenCount === 0) return constants.B.prior_fail;
  const count = { events: history.failedCount, trials: history.seenCount };
  return posteriorMeanProbability(constants.B.prior_fail, count, history.defaultWeight, constants.B);
}

/** Whether the iron may have re-formed it: bad in circuit, good right after. */
export function isBadThenGood(question: JudgementQuestion, constants: JudgementConstants): boolean {
  return isReadBadThenGood(question.readings, (one) => speaksAgainst(one, question, constants));
}

/** Whether one reading by itself says that this part, and no neighbour, is bad. */
function speaksAgainst(reading: Reading, question: JudgementQuestion, constants: JudgementConstants): boolean {
  const isWithNeighbours = isInCircuit(reading);
  if (reading.quantity === "tester_band") {
    return reading.coarseCode === "band_bad" && (!isWithNeighbours || question.bank.length === 1);
  }
  const one = { ...question, readings: isWithNeighbours ? [] : [reading], bankReadings: [reading] };
  const esr = findEsr(one, constants);
  if (!esr || esr.esrOhms === null) return false;
  return esr.esrOhms >= esrLimitOhms(constants.B.schools[question.rules.school], esr.expected, "failed");
}

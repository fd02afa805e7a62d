import { expectedEsrOfPart, partForSchool } from "../capacitors/expectedEsrOfPart";
import { leakageLimitAmps, usualLeakage } from "../capacitors/leakageLimit";
import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { VerdictWord } from "../facts/overrules";
import { logistic, logit } from "../numerics/logistic";
import { groupReadings, type ReadingGroup } from "../readings/groupReadings";
import { isInCircuit, type Reading } from "../readings/reading";
import { baselineFindings } from "./baselineFindings";
import { besideNumbersShare, coarseFindings } from "./coarseEvidence";
import { isReadBadThenGood } from "./conflicts";
import { type EsrFinding, esrUncertainty, findEsr } from "./esrFinding";
import { esrLimitOhms } from "./esrLimit";
import { gradePart, type PartFindings, type PartGrade } from "./gradePart";
import {
  baselineEntries,
  bounded,
  capacitanceEntries,
  coarseEntries,
  esrEntries,
  leakageEntry,
  lossEntry,
  missingEntries,
  ownIndex,
  recordEntry,
  ruleEntries,
  signEntries,
} from "./ledger";
import { posteriorMeanProbability } from "./posteriorMean";
import { evidenceFromSigns } from "./signEvidence";
import { measuredPriorFailed, tunedConstants } from "./tunedConstants";
import type { JudgementQuestion, PartJudgement } from "./verdict";

const { badThenGoodWeight, condemnedByStatesFrom, conductingOhms } = tradeConstants.judgement;

/**
 * Judges one fitted part: sound, worn, failed, cannot tell or not measured, with the reasons.
 *
 * Readings out of circuit (or with a lead lifted) count as the part's own. An in-circuit ESR is a statement about the
 * bank: interval arithmetic says if it condemns the part, clears it, or leaves it masked by its neighbours. In-circuit
 * capacitance counts only for a part alone on its net. A clean look by itself leaves a part "not measured". Coarse
 * testers, touch, a known-good board and the record move the prior. A person's overrule counts and is kept beside it.
 *
 * @see gradePart for the likelihood model, bankIntervals and bankStatesOfLooks for what a bank says
 */
export function judgePart(question: JudgementQuestion, constants: JudgementConstants = tunedConstants): PartJudgement {
  const { part, position } = question.subject;
  const { rules, overrule = null } = question;
  const esr = findEsr(question, constants);
  const expected =
    esr?.expected ?? expectedEsrOfPart(partForSchool(part, rules.esrSourceSchool), 100e3, 20, constants.A);
  const capacitance = findCapacitance(question);
  const loss = groupReadings(question.readings, "voltage_loss")[0] ?? null;
  const leakage = findLeakage(question);
  const hasNumbers = Boolean(esr || capacitance || loss || leakage);
  const coarse = coarseFindings(question.readings, question.bank.length > 1);
  const coarseShare = hasNumbers ? besideNumbersShare : 1;
  const baseline = baselineFindings(question);
  const evidence = weighedEvidence(question);
  const isBadSeen = Object.values(evidence).includes(true);
  const leadToLiftId = leadToLift(question, esr);
  const base = {
    positionId: position.id,
    expected,
    interval: esr?.interval ?? null,
    bankPositionIds: question.bank.map((member) => member.position.id),
    leadToLiftId,
    overrule,
  };
  const missing = missingEntries(question, esr, capacitance);
  if (!hasNumbers && !isBadSeen && coarse.length === 0) {
    const hasReading = question.readings.some((one) => one.quantity === "esr" || one.quantity === "capacitance");
    const computedVerdict = hasReading ? "cannot_tell" : "not_measured";
    return {
      ...base,
      verdict: overrule?.verdict ?? computedVerdict,
      computedVerdict,
      failedProbability: null,
      wornProbability: null,
      flags: [],
      mustReplace: false,
      ledger: [...signEntries(question, null, constants), recordEntry(question, 0), ...missing],
    };
  }
  const isBadThenGood = isReadBadThenGood(question.readings, (one) => speaksAgainst(one, question, constants));
  const prior = recordPrior(question, constants);
  const isMeasured = capacitance !== null || loss !== null || leakage !== null || esr?.esrOhms != null;
  const priorFailed = isMeasured
    ? logistic(logit(prior) - logit(constants.B.prior_fail) + logit(measuredPriorFailed))
    : prior;
  const beside =
    coarse.reduce((sum, one) => sum + one.weight * coarseShare, 0) +
    baseline.reduce((sum, one) => sum + one.weight, 0) +
    (isBadThenGood ? badThenGoodWeight : 0);
  const moved = (probability: number) => logistic(logit(probability) + beside);
  const findings: PartFindings = {
    school: rules.school,
    capacitanceRatio:
      capacitance && part.capacitanceFarads !== null ? capacitance.value / part.capacitanceFarads : null,
    capacitanceUncertaintyRatio: Math.hypot(rules.capacitanceUncertaintyRatio, capacitance?.spreadRatio ?? 0),
    esrOhms: esr?.esrOhms ?? null,
    esrUncertaintyRatio: esr ? esrUncertainty(esr.group, rules) : rules.esrUncertaintyRatio,
    // Without a marking there is no ESR to compare; any band will do because esrOhms is null then.
    expected: expected ?? { lowOhms: 1, typicalOhms: 1, highOhms: 1 },
    leakageRatio: leakage?.ratio ?? null,
    voltageLossRatio: loss?.value ?? null,
    evidence,
    priorFailed: moved(priorFailed),
    priorWorn: moved(Math.max(prior, constants.B.prior_worn)),
  };
  const grade = gradePart(findings, {
    ...constants.B,
    cut_fail: rules.failedFromRatio,
    cut_worn: rules.wornFromRatio,
    cut_sound_fail: rules.soundUpToRatio,
  });
  // Masked in its bank and nothing else known: the chance is what the bank's states leave, not the prior.
  const bankChance = esr?.bankProbabilities[ownIndex(question)] ?? null;
  const isOnlyBank =
    bankChance !== null && esr?.esrOhms === null && !capacitance && !loss && !leakage && !isBadSeen && beside === 0;
  const isCondemnedByStates = isOnlyBank && bankChance >= Math.max(rules.failedFromRatio, condemnedByStatesFrom);
  const computedVerdict = isCondemnedByStates ? "failed" : verdictWord(grade, esr, question, isBadThenGood);
  const failedProbability = isOnlyBank ? bankChance : grade.failedProbability;
  const nothing = { capacitanceRatio: null, esrOhms: null, voltageLossRatio: null, leakageRatio: null, evidence: {} };
  const alone = { ...findings, ...nothing, priorFailed: 0.5, priorWorn: null };
  const weigh = (only: Partial<PartFindings>) =>
    bounded(logit(gradePart({ ...alone, ...only }, constants.B).failedProbability));
  const isCleared = computedVerdict === "cannot_tell" && grade.grade === "sound";
  return {
    ...base,
    verdict: overrule?.verdict ?? computedVerdict,
    computedVerdict,
    failedProbability,
    wornProbability: isOnlyBank ? Math.max(failedProbability, constants.B.prior_worn) : grade.wornProbability,
    flags: grade.flags,
    mustReplace: overrule === null && grade.flags.includes("replace_mechanical"),
    ledger: [
      ...esrEntries(esr, question, findings, weigh, leadToLiftId, constants),
      ...capacitanceEntries(capacitance, question, weigh, constants),
      ...(loss ? [lossEntry(loss, weigh({ voltageLossRatio: loss.value }))] : []),
      ...(leakage ? [leakageEntry(leakage, weigh({ leakageRatio: leakage.ratio }))] : []),
      ...coarseEntries(coarse, coarseShare),
      ...signEntries(question, (name) => weigh({ evidence: { [name]: evidence[name] } }), constants),
      ...baselineEntries(baseline),
      recordEntry(question, logit(prior) - logit(constants.B.prior_fail)),
      ...ruleEntries([
        ...grade.flags,
        ...(isBadThenGood ? ["bad_then_good"] : []),
        ...(isCondemnedByStates ? ["condemned_by_states"] : []),
        ...(isCleared && !isBadThenGood ? ["in_circuit_cannot_clear"] : []),
      ]),
      ...missing,
    ],
  };
}

/** What was seen, and what was looked for in vain where the school lets that count. */
function weighedEvidence({ signs, rules }: JudgementQuestion) {
  const evidence = evidenceFromSigns(signs);
  if (rules.cleanLookSchool === "counts_a_little") return evidence;
  return Object.fromEntries(Object.entries(evidence).filter(([, isSeen]) => isSeen !== false));
}

/** The prior of "failed" as the shop's record has it for its like; the default where it says nothing. */
function recordPrior({ history }: JudgementQuestion, constants: JudgementConstants): number {
  if (!history || history.seenCount === 0) return constants.B.prior_fail;
  const count = { events: history.failedCount, trials: history.seenCount };
  return posteriorMeanProbability(constants.B.prior_fail, count, null, constants.B);
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

/**
 * The masked part of a bank whose lifted lead tells most about all of it. Lifting settles one part, so by the chain rule
 * of entropy what is learnt is that part's own doubt: the one nearest to even odds. None where nothing is masked.
 */
function leadToLift(question: JudgementQuestion, esr: EsrFinding | null): string | null {
  if (!esr?.group.isInCircuit || esr.interval?.verdict !== "masked" || question.bank.length < 2) return null;
  const doubts = question.bank
    .map((member, n) => ({
      id: member.position.id,
      doubt: Math.abs((esr.bankProbabilities[n] ?? 0) - 0.5),
    }))
    .filter((one) => !esr.knownPositionIds.includes(one.id));
  return doubts.reduce((best, one) => (one.doubt < best.doubt - 1e-9 ? one : best)).id;
}

function findCapacitance(question: JudgementQuestion): ReadingGroup | null {
  if (question.subject.part.capacitanceFarads === null) return null;
  const groups = groupReadings(question.readings, "capacitance");
  return groups.find((group) => !group.isInCircuit) ?? (question.bank.length === 1 ? groups[0] : undefined) ?? null;
}

/** Leakage against the catalogue's limit: a current as read, or what an ohmmeter out of circuit makes of it. */
function findLeakage(question: JudgementQuestion) {
  const { capacitanceFarads, ratedVolts } = question.subject.part;
  if (capacitanceFarads === null || ratedVolts === null) return null;
  const limit = leakageLimitAmps({ capacitanceFarads, ratedVolts, ...usualLeakage });
  const current = groupReadings(question.readings, "leakage_current")[0];
  if (current && current.value > 0) {
    return { ratio: current.value / limit, code: "leakage_current", readingIds: current.readingIds };
  }
  const ohms = groupReadings(question.readings, "resistance").find((group) => !group.isInCircuit);
  if (!ohms || !(ohms.value > 0 && ohms.value < conductingOhms)) return null;
  return { ratio: ratedVolts / ohms.value / limit, code: "leakage_resistance", readingIds: ohms.readingIds };
}

function verdictWord(
  grade: PartGrade,
  esr: EsrFinding | null,
  question: JudgementQuestion,
  isBadThenGood: boolean,
): VerdictWord {
  if (grade.grade === "inconclusive") return "cannot_tell";
  if (grade.grade !== "sound") return grade.grade;
  if (isBadThenGood) return "cannot_tell";
  if (!esr?.group.isInCircuit) return "sound";
  const isClearedByBound = question.rules.inCircuitSchool === "bank_bound" && esr.interval?.verdict === "cleared";
  return isClearedByBound ? "sound" : "cannot_tell";
}

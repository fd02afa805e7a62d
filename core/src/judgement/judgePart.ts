import { expectedEsrOfPart, partForSchool } from "../capacitors/expectedEsrOfPart";
import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { VerdictWord } from "../facts/overrules";
import { logit } from "../numerics/logistic";
import { groupReadings, type ReadingGroup } from "../readings/groupReadings";
import { isInCircuit, isOnlyReadOpen } from "../readings/reading";
import { baselineFindings } from "./baselineFindings";
import { isBadThenGood, recordPrior, weighedEvidence } from "./beside";
import { boardChances } from "./boardChances";
import { besideNumbersShare, coarseFindings } from "./coarseEvidence";
import { isEsrContradicted } from "./contradiction";
import { type EsrFinding, esrUncertainty, findEsr } from "./esrFinding";
import { type GradeFlag, gradePart, type PartFindings } from "./gradePart";
import { findLeakage, leakProbability, looksForLeak } from "./leakChance";
import {
  baselineEntries,
  bounded,
  capacitanceEntries,
  chanceEntries,
  coarseEntries,
  esrEntries,
  leakageEntry,
  lossEntry,
  missingEntries,
  recordEntry,
  ruleEntries,
  signEntries,
} from "./ledger";
import { tunedConstants } from "./tunedConstants";
import type { BoardChances, JudgementQuestion, PartJudgement } from "./verdict";

const { condemnedByStatesFrom } = tradeConstants.judgement;

/**
 * Judges one fitted part: sound, worn, failed, cannot tell or not measured, with the reasons.
 *
 * The chance comes from all readings of the board together (boardChances), leaks from what looks for them. Readings out of
 * circuit (or with a lead lifted) are the part's own; what a bank reads in circuit condemns only where nearly all that
 * fits it has the part failed, and clears only where the house says so. A clean look by itself leaves a part "not
 * measured". A person's overrule counts and is kept beside it.
 *
 * @see boardChances for the model, gradePart for what each entry of the ledger weighs by itself
 */
export function judgePart(
  question: JudgementQuestion,
  constants: JudgementConstants = tunedConstants,
  board: BoardChances = boardChances([question], [], constants),
): PartJudgement {
  const { part, position } = question.subject;
  const { rules, overrule = null } = question;
  const esr = findEsr(question, constants);
  const expected =
    esr?.expected ?? expectedEsrOfPart(partForSchool(part, rules.esrSourceSchool), 100e3, 20, constants.A);
  const capacitance = findCapacitance(question);
  const loss = groupReadings(question.readings, "voltage_loss")[0] ?? null;
  const leakage = findLeakage(question);
  const isOpenAlone = isOnlyReadOpen(question.readings.filter((one) => !isInCircuit(one)));
  const isOpenTogether = isOnlyReadOpen(question.bankReadings.filter(isInCircuit));
  const isOpen = isOpenAlone || isOpenTogether;
  const hasNumbers = Boolean(esr || capacitance || loss || leakage || isOpen);
  const coarse = coarseFindings(question.readings, question.bank.length > 1);
  const coarseShare = hasNumbers ? besideNumbersShare : 1;
  const baseline = baselineFindings(question);
  const evidence = weighedEvidence(question);
  const isBadSeen = Object.values(evidence).includes(true);
  const leadToLiftId = leadToLift(question, esr, board);
  const base = {
    positionId: position.id,
    expected,
    interval: esr?.interval ?? null,
    bankPositionIds: question.bank.map((member) => member.position.id),
    leadToLiftId,
    overrule,
    leads: board.leads,
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
      leakProbability: null,
      flags: [],
      mustReplace: false,
      ledger: [...signEntries(question, null, constants), recordEntry(question, 0), ...missing],
    };
  }
  const badThenGood = isBadThenGood(question, constants);
  const chance = board.byPart.get(part.id);
  const leak = leakProbability(question, constants.B);
  const parameters = chance?.failedProbability ?? constants.B.prior_fail;
  const failedProbability = 1 - (1 - parameters) * (1 - leak);
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
  };
  const flags = gradePart(findings, constants.B).flags;
  const isMechanical = flags.includes("replace_mechanical");
  const wornProbability = Math.max(
    failedProbability,
    1 - (1 - (chance?.wornProbability ?? constants.B.prior_worn)) * (1 - leak),
    isMechanical ? constants.B.mech_worn : 0,
  );
  const isOwn = question.readings.some((one) => isOwnNumber(one)) || isOpenAlone;
  const isContradicted = isEsrContradicted(part.id, question.bank.length, question.bankReadings);
  const state = { failedProbability, wornProbability, flags, isOwn, isMechanical, badThenGood, isContradicted };
  const { word, codes } = verdictWord(state, esr, question, constants);
  const nothing = { capacitanceRatio: null, esrOhms: null, voltageLossRatio: null, leakageRatio: null, evidence: {} };
  const alone = { ...findings, ...nothing, priorFailed: 0.5, priorWorn: null };
  const weigh = (only: Partial<PartFindings>) =>
    bounded(logit(gradePart({ ...alone, ...only }, constants.B).failedProbability));
  return {
    ...base,
    verdict: overrule?.verdict ?? word,
    computedVerdict: word,
    failedProbability,
    wornProbability,
    leakProbability: leak,
    flags,
    mustReplace: overrule === null && isMechanical,
    ledger: [
      ...esrEntries(esr, question, findings, weigh, leadToLiftId, constants),
      ...capacitanceEntries(capacitance, question, weigh, constants),
      ...chanceEntries(
        question,
        isOwn ? null : parameters,
        isOpenAlone ? "own" : isOpen ? "bank" : null,
        board.leads,
        chance?.seriesRatio ?? 1,
        constants,
      ),
      ...(loss ? [lossEntry(loss, weigh({ voltageLossRatio: loss.value }))] : []),
      ...(leakage ? [leakageEntry(leakage, weigh({ leakageRatio: leakage.ratio }))] : []),
      ...coarseEntries(coarse, coarseShare),
      ...signEntries(question, (name) => weigh({ evidence: { [name]: evidence[name] } }), constants),
      ...baselineEntries(baseline),
      recordEntry(question, logit(recordPrior(question, constants)) - logit(constants.B.prior_fail)),
      ...ruleEntries([...flags, ...(badThenGood ? ["bad_then_good"] : []), ...codes]),
      ...missing,
    ],
  };
}

/** A number that is the part's own and not its bank's. */
function isOwnNumber(one: JudgementQuestion["readings"][number]): boolean {
  if (one.value === null) return false;
  const isTold = one.quantity === "esr" || one.quantity === "capacitance" || one.quantity === "resistance";
  return (isTold && !isInCircuit(one)) || one.quantity === "leakage_current" || one.quantity === "voltage_loss";
}

interface JudgedState {
  readonly failedProbability: number;
  readonly wornProbability: number;
  readonly flags: readonly GradeFlag[];
  /** Whether something was read of the part by itself. */
  readonly isOwn: boolean;
  readonly isMechanical: boolean;
  readonly badThenGood: boolean;
  /** Its own ESR and its bank's cannot both be. */
  readonly isContradicted: boolean;
}

/** The word for the chances, by the house's limits; and which rules had a say in it. */
function verdictWord(
  state: JudgedState,
  esr: EsrFinding | null,
  question: JudgementQuestion,
  constants: JudgementConstants,
): { readonly word: VerdictWord; readonly codes: readonly string[] } {
  const { rules } = question;
  const { failedProbability, wornProbability } = state;
  if (state.isMechanical) return { word: failedProbability >= 0.5 ? "failed" : "worn", codes: [] };
  const isBanked = !state.isOwn && question.bank.length > 1;
  const failedFrom = isBanked ? Math.max(rules.failedFromRatio, condemnedByStatesFrom) : rules.failedFromRatio;
  if (failedProbability >= failedFrom) return { word: "failed", codes: isBanked ? ["condemned_by_states"] : [] };
  // Where a bank only makes it likely, the lead goes up before a word is said.
  if (failedProbability >= rules.failedFromRatio) return { word: "cannot_tell", codes: [] };
  if (wornProbability >= rules.wornFromRatio) return { word: isBanked ? "cannot_tell" : "worn", codes: [] };
  const isQuiet =
    failedProbability <= rules.soundUpToRatio &&
    wornProbability <= constants.B.cut_sound_worn &&
    esr !== null &&
    !state.flags.includes("c_high_unexplained");
  if (!isQuiet) return { word: "cannot_tell", codes: [] };
  if (state.badThenGood) return { word: "cannot_tell", codes: [] };
  if (state.isContradicted) return { word: "cannot_tell", codes: ["read_again"] };
  const hasLooked = question.readings.some(looksForLeak) || (question.surroundings?.parallelOhms ?? null) !== null;
  const unlooked = hasLooked ? [] : ["leak_not_looked_for"];
  if (esr && !esr.group.isInCircuit) return { word: "sound", codes: unlooked };
  const isClearedByBound = rules.inCircuitSchool === "bank_bound" && esr?.interval?.verdict === "cleared";
  return isClearedByBound
    ? { word: "sound", codes: unlooked }
    : { word: "cannot_tell", codes: ["in_circuit_cannot_clear"] };
}

/**
 * The masked part of a bank whose lifted lead tells most about all of it. Lifting settles one part, so by the chain rule
 * of entropy what is learnt is that part's own doubt: the one nearest to even odds. None where nothing is masked.
 */
function leadToLift(question: JudgementQuestion, esr: EsrFinding | null, board: BoardChances): string | null {
  if (!esr?.group.isInCircuit || esr.interval?.verdict !== "masked" || question.bank.length < 2) return null;
  const doubts = question.bank
    .map(({ position, part }) => ({
      id: position.id,
      doubt: Math.abs((board.byPart.get(part.id)?.failedProbability ?? 0) - 0.5),
    }))
    .filter((one) => !esr.knownPositionIds.includes(one.id));
  return doubts.length === 0 ? null : doubts.reduce((best, one) => (one.doubt < best.doubt - 1e-9 ? one : best)).id;
}

function findCapacitance(question: JudgementQuestion): ReadingGroup | null {
  if (question.subject.part.capacitanceFarads === null) return null;
  const groups = groupReadings(question.readings, "capacitance");
  const isAlone = question.bank.length === 1 && (question.surroundings?.acrossChoke.length ?? 0) === 0;
  return groups.find((group) => !group.isInCircuit) ?? (isAlone ? groups[0] : undefined) ?? null;
}

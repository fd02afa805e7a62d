import type { BoardPosition, FittedPart } from "../board/board";
import type { ExpectedEsr } from "../capacitors/expectedEsr";
import type { JudgementConstants, SchoolName } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { bankIntervals, type PartInterval } from "../incircuit/bankIntervals";
import { logit } from "../numerics/logistic";
import type { Reading } from "../readings/reading";
import { bankProbabilities } from "./bankProbabilities";
import { type EsrSourceSchool, expectedEsrOfPart, partForSchool } from "./expectedEsrOfPart";
import { type GradeFlag, gradePart, type PartFindings, type PartGrade } from "./gradePart";
import { groupReadings, type ReadingGroup } from "./partReadings";
import { evidenceFromSigns, evidenceOfSign, type SignState, type VisualSign, visualSigns } from "./visualSigns";

export const verdictWords = ["sound", "worn", "failed", "cannot_tell", "not_measured"] as const;
export type VerdictWord = (typeof verdictWords)[number];

/** `condemn_only`: in circuit condemns, out of circuit clears. `bank_bound`: a bound over the whole bank clears too. */
export type InCircuitSchool = "condemn_only" | "bank_bound";

/** Whether a look that found nothing counts for a part. It never clears one. */
export type CleanLookSchool = "means_nothing" | "counts_a_little";

export interface JudgementRules {
  readonly school: SchoolName;
  readonly inCircuitSchool: InCircuitSchool;
  readonly esrSourceSchool: EsrSourceSchool;
  readonly cleanLookSchool: CleanLookSchool;
  /** A part is called failed from this chance on. */
  readonly failedFromRatio: number;
  /** One standard deviation of an ESR reading, relative. */
  readonly esrUncertaintyRatio: number;
  /** Contact and lead resistance left after zeroing, one standard deviation. */
  readonly contactOhms: number;
  readonly capacitanceUncertaintyRatio: number;
}

/** One line of the evidence ledger: facts, worded by the interface. */
export interface LedgerEntry {
  readonly kind: "esr" | "capacitance" | "voltage_loss" | "sign" | "bank" | "rule" | "missing";
  readonly code: string;
  readonly value: number | null;
  readonly expectation: { readonly low: number; readonly typical: number; readonly high: number } | null;
  /** Limit at which the school calls the part failed, in the unit of the value. */
  readonly failedLimit: number | null;
  readonly source: string;
  /**
   * How far this entry alone moves the log-odds of "failed" from the prior; positive speaks against the part. Entries
   * overlap, so weights do not simply add up to the verdict.
   */
  readonly weight: number | null;
  readonly readingIds: readonly string[];
}

export interface PartJudgement {
  readonly positionId: string;
  readonly verdict: VerdictWord;
  readonly failedProbability: number | null;
  readonly wornProbability: number | null;
  readonly flags: readonly GradeFlag[];
  /** A vent, leak or lifted base: replace whatever the readings say. */
  readonly mustReplace: boolean;
  readonly expected: ExpectedEsr | null;
  readonly interval: PartInterval | null;
  readonly bankPositionIds: readonly string[];
  readonly ledger: readonly LedgerEntry[];
}

/** A fitted part with the place it sits at. */
export interface PlacedPart {
  readonly position: BoardPosition;
  readonly part: FittedPart;
}

export interface JudgementQuestion {
  readonly subject: PlacedPart;
  /** Every part of the bank, the subject included. */
  readonly bank: readonly PlacedPart[];
  /** Standing readings on the subject. */
  readonly readings: readonly Reading[];
  /** Standing readings on any part of the bank or on the bank itself. */
  readonly bankReadings: readonly Reading[];
  readonly signs: Readonly<Partial<Record<VisualSign, SignState>>>;
  readonly rules: JudgementRules;
}

/** An ESR that may be weighed against this one part, and how it was got. */
interface EsrFinding {
  readonly group: ReadingGroup;
  readonly esrOhms: number | null;
  readonly interval: PartInterval | null;
  readonly expected: ExpectedEsr;
  /** Chance of this part by all states of its bank; null alone, out of circuit, or where no state fits. */
  readonly bankProbability: number | null;
}

/**
 * Judges one fitted part: sound, worn, failed, cannot tell or not measured, with the reasons.
 *
 * Readings out of circuit (or with a lead lifted) count as the part's own. An in-circuit ESR is a statement about the
 * bank: interval arithmetic says if it condemns the part, clears it, or leaves it masked by its neighbours. In-circuit
 * capacitance counts only for a part alone on its net. A clean look by itself leaves a part "not measured".
 *
 * @see gradePart for the likelihood model, bankIntervals for the in-circuit bounds
 */
export function judgePart(
  question: JudgementQuestion,
  constants: JudgementConstants = judgementConstants,
): PartJudgement {
  const { part, position } = question.subject;
  const esr = findEsr(question, constants);
  const { esrSourceSchool, cleanLookSchool } = question.rules;
  const expected = esr?.expected ?? expectedEsrOfPart(partForSchool(part, esrSourceSchool), 100e3, 20, constants.A);
  const capacitance = findCapacitance(question);
  const loss = groupReadings(question.readings, "voltage_loss")[0] ?? null;
  const evidence = weighedEvidence(question.signs, cleanLookSchool);
  const isBadSeen = Object.values(evidence).includes(true);
  const base = {
    positionId: position.id,
    expected,
    interval: esr?.interval ?? null,
    bankPositionIds: question.bank.map((member) => member.position.id),
  };
  const missing = missingEntries(question, esr, capacitance);
  if (!esr && !capacitance && !loss && !isBadSeen) {
    const hasReading = question.readings.some(
      (reading) => reading.quantity === "esr" || reading.quantity === "capacitance",
    );
    return {
      ...base,
      verdict: hasReading ? "cannot_tell" : "not_measured",
      failedProbability: null,
      wornProbability: null,
      flags: [],
      mustReplace: false,
      ledger: [...signEntries(question, null, constants), ...missing],
    };
  }
  const findings: PartFindings = {
    school: question.rules.school,
    capacitanceRatio:
      capacitance && part.capacitanceFarads !== null ? capacitance.value / part.capacitanceFarads : null,
    capacitanceUncertaintyRatio: Math.hypot(question.rules.capacitanceUncertaintyRatio, capacitance?.spreadRatio ?? 0),
    esrOhms: esr?.esrOhms ?? null,
    esrUncertaintyRatio: esr ? esrUncertainty(esr.group, question.rules) : question.rules.esrUncertaintyRatio,
    // Without a marking there is no ESR to compare; any band will do because esrOhms is null then.
    expected: expected ?? { lowOhms: 1, typicalOhms: 1, highOhms: 1 },
    leakageRatio: null,
    voltageLossRatio: loss?.value ?? null,
    evidence,
  };
  const grade = gradePart(findings, { ...constants.B, cut_fail: question.rules.failedFromRatio });
  const verdict = verdictWord(grade, esr, question);
  // Masked in its bank and nothing else known: the chance is what the bank's states leave, not the prior.
  const isOnlyBank = esr?.bankProbability != null && esr.esrOhms === null && !capacitance && !loss && !isBadSeen;
  const failedProbability = isOnlyBank ? (esr.bankProbability as number) : grade.failedProbability;
  const nothing = { capacitanceRatio: null, esrOhms: null, voltageLossRatio: null, evidence: {} };
  const weigh = (only: Partial<PartFindings>) =>
    bounded(logit(gradePart({ ...findings, ...nothing, ...only }, constants.B).failedProbability)) -
    logit(constants.B.prior_fail);
  return {
    ...base,
    verdict,
    failedProbability,
    wornProbability: isOnlyBank ? Math.max(failedProbability, constants.B.prior_worn) : grade.wornProbability,
    flags: grade.flags,
    mustReplace: grade.flags.includes("replace_mechanical"),
    ledger: [
      ...esrEntries(esr, question, findings, weigh, constants),
      ...capacitanceEntries(capacitance, question, weigh, constants),
      ...(loss ? [lossEntry(loss, weigh({ voltageLossRatio: loss.value }))] : []),
      ...signEntries(question, (name) => weigh({ evidence: { [name]: evidence[name] } }), constants),
      ...ruleEntries(grade, verdict),
      ...missing,
    ],
  };
}

/** What was seen, and what was looked for in vain where the school lets that count. */
function weighedEvidence(signs: JudgementQuestion["signs"], school: CleanLookSchool) {
  const evidence = evidenceFromSigns(signs);
  if (school === "counts_a_little") return evidence;
  return Object.fromEntries(Object.entries(evidence).filter(([, isSeen]) => isSeen !== false));
}

/** Log-odds of 0 and 1 are infinite; 40 is beyond anything that is ever shown. */
function bounded(logOdds: number): number {
  return Math.min(Math.max(logOdds, -40), 40);
}

function esrUncertainty(group: ReadingGroup, rules: JudgementRules): number {
  const contact = group.value > 0 ? rules.contactOhms / group.value : 0;
  return Math.hypot(rules.esrUncertaintyRatio, contact, group.spreadRatio / Math.sqrt(group.count));
}

function findEsr(question: JudgementQuestion, constants: JudgementConstants): EsrFinding | null {
  const own = groupReadings(question.readings, "esr").find((group) => !group.isInCircuit);
  const group = own ?? groupReadings(question.bankReadings, "esr").find((candidate) => candidate.isInCircuit);
  if (!group) return null;
  const expectation = (member: PlacedPart) =>
    expectedEsrOfPart(
      partForSchool(member.part, question.rules.esrSourceSchool),
      group.frequencyHertz,
      group.temperatureCelsius,
      constants.A,
    );
  const expected = expectation(question.subject);
  if (!expected) return null;
  const alone = { interval: null, expected, bankProbability: null };
  if (own) return { group, esrOhms: group.value, ...alone };

  const bank = question.bank.map(expectation);
  if (bank.includes(null)) return { group, esrOhms: null, ...alone };
  if (!(group.value > 0)) return { group, esrOhms: question.bank.length === 1 ? 0 : null, ...alone };
  const intervals = bankIntervals(
    {
      typicalEsrOhms: bank.map((member) => (member as ExpectedEsr).typicalOhms),
      readingOhms: group.value,
      standardUncertaintyOhms: group.value * esrUncertainty(group, question.rules),
      leadOhms: 0,
      mode: "any",
    },
    constants.C,
  );
  const index = question.bank.findIndex((member) => member.position.id === question.subject.position.id);
  const interval = intervals.parts[index] ?? null;
  const esrOhms = esrInCircuit(question.bank.length, group.value, interval, expected);
  const members = question.bank.map(({ part }, n) => ({ part, expected: bank[n] as ExpectedEsr }));
  const uncertaintyRatio = esrUncertainty(group, question.rules);
  const bankProbability = bankProbabilities(members, group, uncertaintyRatio, constants.C)[index] ?? null;
  return { group, esrOhms, interval, expected, bankProbability };
}

/** Alone on the net the reading is the part's; in a bank only a bound is, and only where it decides. */
function esrInCircuit(
  bankSize: number,
  readingOhms: number,
  interval: PartInterval | null,
  expected: ExpectedEsr,
): number | null {
  if (bankSize === 1) return readingOhms;
  if (interval?.verdict === "condemned" && Number.isFinite(interval.multipleMin)) {
    return (interval.multipleMin as number) * expected.typicalOhms;
  }
  if (interval?.verdict === "cleared" && Number.isFinite(interval.multipleMax)) {
    return (interval.multipleMax as number) * expected.typicalOhms;
  }
  return null;
}

function findCapacitance(question: JudgementQuestion): ReadingGroup | null {
  if (question.subject.part.capacitanceFarads === null) return null;
  const groups = groupReadings(question.readings, "capacitance");
  return groups.find((group) => !group.isInCircuit) ?? (question.bank.length === 1 ? groups[0] : undefined) ?? null;
}

function verdictWord(grade: PartGrade, esr: EsrFinding | null, question: JudgementQuestion): VerdictWord {
  if (grade.grade === "inconclusive") return "cannot_tell";
  if (grade.grade !== "sound" || !esr?.group.isInCircuit) return grade.grade;
  const isClearedByBound = question.rules.inCircuitSchool === "bank_bound" && esr.interval?.verdict === "cleared";
  return isClearedByBound ? "sound" : "cannot_tell";
}

type Weigh = (only: Partial<PartFindings>) => number;

function esrEntries(
  esr: EsrFinding | null,
  question: JudgementQuestion,
  findings: PartFindings,
  weigh: Weigh,
  constants: JudgementConstants,
): LedgerEntry[] {
  if (!esr) return [];
  const school = constants.B.schools[question.rules.school];
  const { expected } = esr;
  const reference = school.ref === "high" ? expected.highOhms : expected.typicalOhms;
  const entries: LedgerEntry[] = [
    {
      kind: "esr",
      code: esr.group.isInCircuit ? "esr_in_circuit" : "esr_out_of_circuit",
      value: esr.group.value,
      expectation: { low: expected.lowOhms, typical: expected.typicalOhms, high: expected.highOhms },
      failedLimit: reference * school.r_f,
      source: expected.source,
      weight: findings.esrOhms === null ? 0 : weigh({ esrOhms: findings.esrOhms }),
      readingIds: esr.group.readingIds,
    },
  ];
  if (esr.group.isInCircuit && esr.interval) {
    entries.push({
      kind: "bank",
      code: `bank_${esr.interval.verdict}`,
      value: esr.interval.hiddenFaultMultiple,
      expectation: null,
      failedLimit: null,
      source: "bank_interval",
      weight: null,
      readingIds: esr.group.readingIds,
    });
  }
  if (esr.bankProbability !== null) {
    entries.push({
      kind: "bank",
      code: "bank_states",
      value: esr.bankProbability,
      expectation: null,
      failedLimit: null,
      source: "bank_states",
      weight: bounded(logit(esr.bankProbability)) - logit(constants.B.prior_fail),
      readingIds: esr.group.readingIds,
    });
  }
  return entries;
}

function capacitanceEntries(
  capacitance: ReadingGroup | null,
  question: JudgementQuestion,
  weigh: Weigh,
  constants: JudgementConstants,
): LedgerEntry[] {
  const marked = question.subject.part.capacitanceFarads;
  if (!capacitance || marked === null) return [];
  const school = constants.B.schools[question.rules.school];
  return [
    {
      kind: "capacitance",
      code: capacitance.isInCircuit ? "capacitance_in_circuit" : "capacitance_out_of_circuit",
      value: capacitance.value,
      expectation: { low: 0.8 * marked, typical: marked, high: 1.2 * marked },
      failedLimit: school.c_f * marked,
      source: "marking",
      weight: weigh({ capacitanceRatio: capacitance.value / marked }),
      readingIds: capacitance.readingIds,
    },
  ];
}

function lossEntry(loss: ReadingGroup, weight: number): LedgerEntry {
  return {
    kind: "voltage_loss",
    code: "voltage_loss",
    value: loss.value,
    expectation: null,
    failedLimit: 0.1,
    source: "loss_table",
    weight,
    readingIds: loss.readingIds,
  };
}

function signEntries(
  question: JudgementQuestion,
  weigh: ((evidenceName: string) => number) | null,
  constants: JudgementConstants,
): LedgerEntry[] {
  const seen = visualSigns.filter((sign) => question.signs[sign] === "seen");
  const looked = visualSigns.some((sign) => question.signs[sign] === "not_seen");
  const entry = (code: string, weight: number | null): LedgerEntry => ({
    kind: "sign",
    code,
    value: null,
    expectation: null,
    failedLimit: null,
    source: "looked",
    weight,
    readingIds: [],
  });
  if (seen.length === 0)
    return looked
      ? [
          entry(
            "none_seen",
            weigh && question.rules.cleanLookSchool === "counts_a_little" ? constants.B.visual_floor : 0,
          ),
        ]
      : [];
  return seen.map((sign) => {
    const name = evidenceOfSign[sign];
    return entry(sign, name && weigh ? weigh(name) : null);
  });
}

function ruleEntries(grade: PartGrade, verdict: VerdictWord): LedgerEntry[] {
  const codes: string[] = [...grade.flags];
  if (grade.grade === "sound" && verdict === "cannot_tell") codes.push("in_circuit_cannot_clear");
  return codes.map((code) => ({
    kind: "rule",
    code,
    value: null,
    expectation: null,
    failedLimit: null,
    source: "house_rule",
    weight: null,
    readingIds: [],
  }));
}

function missingEntries(
  question: JudgementQuestion,
  esr: EsrFinding | null,
  capacitance: ReadingGroup | null,
): LedgerEntry[] {
  const { part } = question.subject;
  const codes: string[] = [];
  if (part.capacitanceFarads === null || part.ratedVolts === null) codes.push("marking_missing");
  if (!esr) codes.push("esr_missing");
  if (!capacitance) codes.push("capacitance_missing");
  return codes.map((code) => ({
    kind: "missing",
    code,
    value: null,
    expectation: null,
    failedLimit: null,
    source: "none",
    weight: null,
    readingIds: [],
  }));
}

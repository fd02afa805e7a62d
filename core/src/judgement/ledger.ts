import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { visualSigns } from "../facts/visualSigns";
import { logit } from "../numerics/logistic";
import type { ReadingGroup } from "../readings/groupReadings";
import { isInCircuit, isReadOpen } from "../readings/reading";
import type { BaselineFinding } from "./baselineFindings";
import type { CoarseFinding } from "./coarseEvidence";
import type { EsrFinding } from "./esrFinding";
import { esrLimitOhms } from "./esrLimit";
import type { PartFindings } from "./gradePart";
import { evidenceOfSign } from "./signEvidence";
import type { JudgementQuestion, LeadsFinding, LedgerEntry } from "./verdict";

const { mostLogOdds, voltageLossFailedRatio, leads, series } = tradeConstants.judgement;
const tellLeadsFrom = leads.tellFromRatio;
const tellSeriesFrom = Math.log(series.tellFromFactor);

/** How far some findings alone move the log-odds of "failed" from the prior. */
export type Weigh = (only: Partial<PartFindings>) => number;

/** Log-odds of 0 and 1 are infinite; 40 is beyond anything that is ever shown. */
export function bounded(logOdds: number): number {
  return Math.min(Math.max(logOdds, -mostLogOdds), mostLogOdds);
}

function entry(kind: LedgerEntry["kind"], code: string, source: string, more: Partial<LedgerEntry> = {}): LedgerEntry {
  return {
    kind,
    code,
    value: null,
    expectation: null,
    failedLimit: null,
    source,
    weight: null,
    readingIds: [],
    ...more,
  };
}

/** ESR as it counts, what its bank makes of it, and repeats that do not agree. */
export function esrEntries(
  esr: EsrFinding | null,
  question: JudgementQuestion,
  findings: PartFindings,
  weigh: Weigh,
  leadToLift: string | null,
  constants: JudgementConstants,
): LedgerEntry[] {
  if (!esr) return [];
  const school = constants.B.schools[question.rules.school];
  const { expected, group, interval } = esr;
  const { readingIds } = group;
  const entries = [
    entry("esr", group.isInCircuit ? "esr_in_circuit" : "esr_out_of_circuit", expected.source, {
      value: group.value,
      expectation: { low: expected.lowOhms, typical: expected.typicalOhms, high: expected.highOhms },
      failedLimit: esrLimitOhms(school, expected, "failed"),
      weight: findings.esrOhms === null ? 0 : weigh({ esrOhms: findings.esrOhms }),
      readingIds,
    }),
  ];
  if (expected.basis === "interpolated" || expected.basis === "extrapolated") {
    entries.push(entry("rule", `esr_${expected.basis}`, expected.source));
  }
  if (question.rules.leadOhms > 0 || question.rules.testerShows === "magnitude") {
    entries.push(entry("rule", "esr_compensated", "house_rule", { value: question.rules.leadOhms }));
  }
  if (esr.isConflicting) {
    entries.push(entry("rule", "repeats_conflict", "repeats", { value: group.spreadRatio, readingIds }));
  }
  if (group.isInCircuit && interval) {
    const hiddenOhms =
      interval.hiddenFaultMultiple === null ? null : interval.hiddenFaultMultiple * expected.typicalOhms;
    entries.push(
      entry("bank", `bank_${interval.verdict}`, "bank_interval", {
        value: interval.verdict === "masked" ? hiddenOhms : null,
        expectation: { low: expected.lowOhms, typical: expected.typicalOhms, high: expected.highOhms },
        readingIds,
      }),
    );
  }
  if (esr.knownPositionIds.length > 0) entries.push(entry("bank", "bank_known", "bank_interval"));
  if (leadToLift) entries.push(entry("bank", "bank_lift", leadToLift));
  return [...entries, ...surroundingEntries(question, group.isInCircuit)];
}

/** What the board's readings say beside the part's own: its bank, an open reading, leads, a series that reads otherwise. */
export function chanceEntries(
  question: JudgementQuestion,
  bankProbability: number | null,
  open: "own" | "bank" | null,
  leads: LeadsFinding,
  seriesRatio: number,
  constants: JudgementConstants,
): LedgerEntry[] {
  const entries: LedgerEntry[] = [];
  const inCircuit = question.bankReadings.filter((one) => one.quantity === "esr" && isInCircuit(one));
  if (bankProbability !== null && question.bank.length > 1 && inCircuit.length > 0) {
    entries.push(
      entry("bank", "bank_states", "bank_states", {
        value: bankProbability,
        weight: bounded(logit(bankProbability) - logit(constants.B.prior_fail)),
        readingIds: inCircuit.map((one) => one.id),
      }),
    );
  }
  if (open !== null) {
    const of =
      open === "own" ? question.readings.filter((one) => !isInCircuit(one)) : question.bankReadings.filter(isInCircuit);
    entries.push(
      entry("esr", open === "own" ? "open_out_of_circuit" : "open_in_circuit", "reading", {
        readingIds: of.filter(isReadOpen).map((one) => one.id),
      }),
    );
  }
  const hasEsr = [...question.readings, ...question.bankReadings].some((one) => one.quantity === "esr");
  if (hasEsr && leads.probability >= tellLeadsFrom && leads.ohms > 0) {
    entries.push(entry("esr", leads.isMeasured ? "leads_measured" : "leads_likely", "leads", { value: leads.ohms }));
  }
  if (hasEsr && Math.abs(Math.log(seriesRatio)) > tellSeriesFrom) {
    entries.push(entry("esr", seriesRatio > 1 ? "series_higher" : "series_lower", "series", { value: seriesRatio }));
  }
  return entries;
}

/** What stands around the bank and was reckoned with. */
function surroundingEntries({ surroundings }: JudgementQuestion, isInCircuit: boolean): LedgerEntry[] {
  if (!surroundings || !isInCircuit) return [];
  const entries: LedgerEntry[] = [];
  if (surroundings.isSeries) entries.push(entry("bank", "bank_series", "board"));
  if (surroundings.acrossChoke.length > 0) {
    entries.push(entry("bank", "bank_choke", "board", { value: surroundings.chokeHenrys }));
  }
  if (surroundings.parallelOhms !== null) {
    entries.push(entry("bank", "bank_parallel", "board", { value: surroundings.parallelOhms }));
  }
  return entries;
}

export function capacitanceEntries(
  capacitance: ReadingGroup | null,
  question: JudgementQuestion,
  weigh: Weigh,
  constants: JudgementConstants,
): LedgerEntry[] {
  const marked = question.subject.part.capacitanceFarads;
  if (!capacitance || marked === null) return [];
  const school = constants.B.schools[question.rules.school];
  return [
    entry("capacitance", capacitance.isInCircuit ? "capacitance_in_circuit" : "capacitance_out_of_circuit", "marking", {
      value: capacitance.value,
      expectation: { low: 0.8 * marked, typical: marked, high: 1.2 * marked },
      failedLimit: school.c_f * marked,
      weight: weigh({ capacitanceRatio: capacitance.value / marked }),
      readingIds: capacitance.readingIds,
    }),
  ];
}

export function lossEntry(loss: ReadingGroup, weight: number): LedgerEntry {
  return entry("voltage_loss", "voltage_loss", "loss_table", {
    value: loss.value,
    failedLimit: voltageLossFailedRatio,
    weight,
    readingIds: loss.readingIds,
  });
}

/** Leakage as a current, or as a resistance out of circuit; the value is its ratio to the catalogue's limit. */
export function leakageEntry(
  leakage: { readonly ratio: number; readonly code: string; readonly readingIds: readonly string[] },
  weight: number,
): LedgerEntry {
  return entry("leakage", leakage.code, "leakage_limit", {
    value: leakage.ratio,
    failedLimit: 1,
    weight,
    readingIds: leakage.readingIds,
  });
}

export function coarseEntries(findings: readonly CoarseFinding[], share: number): LedgerEntry[] {
  return findings.map(({ kind, code, value, weight, readingIds }) =>
    entry(kind, code, "coarse", { value, weight: weight * share, readingIds }),
  );
}

export function baselineEntries(findings: readonly BaselineFinding[]): LedgerEntry[] {
  return findings.map(({ group, baseline, weight }) =>
    entry(
      "baseline",
      `baseline_${baseline.quantity}_${baseline.isInCircuit ? "in" : "out"}`,
      baselineSource(baseline),
      {
        value: group.value,
        expectation: { low: baseline.low, typical: baseline.typical, high: baseline.high },
        weight,
        readingIds: group.readingIds,
      },
    ),
  );
}

const baselineSource = (baseline: BaselineFinding["baseline"]) =>
  `${baseline.isOfBrothers ? "brothers" : baseline.isKnownGood ? "known_good" : "board_type"}:${baseline.unitCount}`;

/** What the shop's record says of its like; without one a line that it counts for nothing. */
export function recordEntry({ history }: JudgementQuestion, weight: number): LedgerEntry {
  if (!history || history.seenCount === 0) return entry("record", "record_neutral", "record", { weight: 0 });
  return entry(
    "record",
    `record_${history.level}`,
    `record:${history.failedCount}:${history.seenCount}:${history.subject}`,
    {
      value: history.failedCount / history.seenCount,
      weight,
    },
  );
}

export function signEntries(
  question: JudgementQuestion,
  weigh: ((evidenceName: string) => number) | null,
  constants: JudgementConstants,
): LedgerEntry[] {
  const seen = visualSigns.filter((sign) => question.signs[sign] === "seen");
  if (seen.length > 0) {
    return seen.map((sign) => {
      const name = evidenceOfSign[sign];
      return entry("sign", sign, "looked", { weight: name && weigh ? weigh(name) : null });
    });
  }
  if (!visualSigns.some((sign) => question.signs[sign] === "not_seen")) return [];
  const counts = weigh !== null && question.rules.cleanLookSchool === "counts_a_little";
  return [entry("sign", "none_seen", "looked", { weight: counts ? constants.B.visual_floor : 0 })];
}

export function ruleEntries(codes: readonly string[]): LedgerEntry[] {
  return codes.map((code) => entry("rule", code, "house_rule"));
}

export function missingEntries(
  question: JudgementQuestion,
  esr: EsrFinding | null,
  capacitance: ReadingGroup | null,
): LedgerEntry[] {
  const { part } = question.subject;
  const codes: string[] = [];
  if (part.capacitanceFarads === null || part.ratedVolts === null) codes.push("marking_missing");
  if (!esr) codes.push("esr_missing");
  if (!capacitance) codes.push("capacitance_missing");
  return codes.map((code) => entry("missing", code, "none"));
}

import {
  acceptedReasons,
  acrossBoards,
  type HouseRuleValues,
  type JobDetail,
  jobFacts,
  jobRules,
  type RunRow,
} from "@pale-cap/contract";
import {
  type ChargeState,
  explainJob,
  type JobExplanation,
  type JobFacts,
  type JobRules,
  jobChargeStates,
  judgeBoard,
  judgeDevices,
  type OpenPoint,
  type Outcome,
  openPoints,
  outcomeOf,
  type PartJudgement,
  roundNumber,
  roundView,
  type StepFinding,
  worstChargeState,
} from "@pale-cap/core";
import { summaryOf } from "../explanationWords";
import { type DeviceRow, deviceRows, type ReportRow, reportRows } from "./reportRows";

/** What a report is made from: rows as they are stored, and nothing that is not. */
export interface ReportInput {
  readonly detail: JobDetail;
  readonly houseRules: HouseRuleValues;
  readonly runs: readonly (RunRow & { readonly findings: readonly (StepFinding | null)[] })[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly instruments: readonly { readonly name: string; readonly checkedOn: string | null }[];
  /** How often the job was opened again after it was closed. */
  readonly reopenings: readonly { readonly at: string; readonly note: string | null }[];
  readonly coreVersion: string;
  readonly nowMilliseconds: number;
}

/** What one round found and did, as it stands for good once the next began. */
export interface ReportRound {
  readonly number: number;
  readonly rows: readonly ReportRow[];
  readonly judgements: ReadonlyMap<string, PartJudgement>;
  /** What the model says of it; null where nothing speaks to it. */
  readonly summary: string | null;
}

/** A job with everything that its reports are drawn from: computed once, for the customer's and for the record. */
export interface ReportModel extends ReportInput {
  /** All boards of the unit and all rounds. */
  readonly facts: JobFacts;
  readonly rules: JobRules;
  readonly rounds: readonly ReportRound[];
  readonly devices: readonly DeviceRow[];
  readonly explanation: JobExplanation | null;
  readonly outcome: Outcome;
  readonly points: readonly OpenPoint[];
  /** Why a point was accepted, by its key. */
  readonly accepted: ReadonlyMap<string, string>;
  readonly charge: ChargeState;
}

/**
 * All that a report says, computed from a job's rows: pure, so that the screen and the paper cannot differ.
 *
 * @param input the unit with all its boards, and what hangs on it
 */
export function reportModel(input: ReportInput): ReportModel {
  const detail = acrossBoards(input.detail);
  const facts = jobFacts(detail);
  const rules = jobRules(input.houseRules);
  const rounds = Array.from(
    { length: roundNumber(facts.acts) },
    (_, n): ReportRound & { explained: JobExplanation | null } => {
      const seen = roundView(facts, n + 1);
      const judgements = judgeBoard(seen, rules.judgement);
      const explained = explainJob(seen, judgements, rules);
      const rows = reportRows(roundView(detail, n + 1), seen, judgements);
      return { number: n + 1, rows, judgements, summary: summaryOf(explained), explained };
    },
  );
  const last = rounds.at(-1);
  const current = roundView(facts);
  const explanation = last?.explained ?? null;
  const charge = worstChargeState(jobChargeStates(facts, rules.charge, input.nowMilliseconds));
  return {
    ...input,
    ...{ detail, facts, rules, rounds, explanation, charge },
    devices: deviceRows(roundView(detail), judgeDevices(current, "found"), judgeDevices(current)),
    outcome: outcomeOf(facts.acts),
    points: openPoints(facts, rules, input.nowMilliseconds, last?.judgements, explanation),
    accepted: acceptedReasons(detail),
  };
}

/** Who did something; nobody where it was not said. */
export const personName = ({ people }: Pick<ReportModel, "people">, id: string | null | undefined): string | null =>
  people.find((one) => one.id === id)?.name ?? null;

/** A day of the shop's own calendar. */
export function shopDay({ houseRules }: Pick<ReportModel, "houseRules">, instant: string): string {
  // A day without a clock belongs to no zone.
  const isDay = /^\d{4}-\d{2}-\d{2}$/.test(instant);
  const timeZone = isDay ? "UTC" : houseRules["shop.timeZone"];
  return new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone }).format(
    new Date(instant),
  );
}

/** A day with its time, in the shop's own zone. */
export function shopMoment(model: Pick<ReportModel, "houseRules">, instant: string): string {
  const timeZone = model.houseRules["shop.timeZone"];
  const time = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone }).format(
    new Date(instant),
  );
  return `${shopDay(model, instant)}, ${time}`;
}

export const jobNumberText = (number: number): string => String(number).padStart(4, "0");

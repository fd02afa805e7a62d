import { type BenchLine, type JobDetail, jobFacts, lateFactCount } from "@pale-cap/contract";
import {
  coreVersion,
  type JobRules,
  jobChargeState,
  judgeBoard,
  lensProgress,
  lensReached,
  openPoints,
  roundView,
} from "@pale-cap/core";
import type { CaseSurroundings } from "../casebook/caseRows";
import { type CaseEntry, caseEntry, loadSurroundings, storeCase } from "../casebook/storeCase";
import type { Database } from "../database/database";
import type { JobSummaryRow } from "../database/models/jobSummaries";
import { noCaller, type Scope } from "../database/scope";
import { loadJobs } from "../records/loadJobs";
import { loadJobRules } from "../records/rules";

/** So many jobs are loaded and folded at once: open ones first, newest first. */
const jobsAtOnce = 10;

/**
 * Folds the summaries that a write marked. One that is marked again while it is folded stays marked.
 *
 * @returns whether there may be more
 */
export async function foldSummaries(database: Database, now: Date): Promise<boolean> {
  const folded = await database.read(now, async (scope) => {
    const marks = await scope.sql<{ jobId: string; marked: number }>(
      `SELECT job_id AS "jobId", marked FROM job_summaries WHERE is_stale AND realm IN ($1, 'practice')
       ORDER BY is_closed, number DESC LIMIT ${jobsAtOnce}`,
      [scope.realm],
    );
    const rules = await loadJobRules(scope);
    const details = await loadJobs(
      scope,
      marks.map((mark) => mark.jobId),
    );
    const surroundings = await loadSurroundings(
      scope,
      marks.map((mark) => mark.jobId),
    );
    return marks.flatMap(({ jobId, marked }) => {
      const detail = details.find((one) => one.job.id === jobId);
      const around = surroundings.get(jobId);
      if (!detail || !around) return [];
      const entry = detail.job.realm === scope.realm ? entryOrNothing(detail, rules, around) : null;
      return [{ jobId, marked, number: detail.job.number, values: foldedOrNothing(detail, rules, now), entry }];
    });
  });
  for (const { jobId, marked, number, values, entry } of folded) {
    await database.write(now, noCaller, async (scope) => {
      const count = await scope.rows.jobSummaries.update(values, { jobId, marked });
      // What was overtaken by a write is folded again.
      if (count > 0 && entry) await storeCase(scope, jobId, number, entry);
    });
  }
  return folded.length === jobsAtOnce;
}

/** One that cannot be drawn is not in the casebook, and keeps nobody waiting. */
function entryOrNothing(detail: JobDetail, rules: JobRules, around: CaseSurroundings): CaseEntry | null {
  try {
    return caseEntry(detail, rules, around);
  } catch {
    return null;
  }
}

/** A job that cannot be folded must not keep the others waiting: its charge reads unknown until the next write. */
function foldedOrNothing(detail: JobDetail, rules: JobRules, now: Date): Partial<JobSummaryRow> {
  try {
    return summaryOf(detail, rules, now);
  } catch {
    const nothing = { chargeName: "unknown", chargeVolts: null, chargeAt: null, chargeUntil: null } as const;
    return { ...nothing, isStale: false, foldedBy: coreVersion, isClosed: detail.job.handedOverAt !== null };
  }
}

/** What the bench tells of a job; what time alone changes is kept as a moment and looked at when it is read. */
function summaryOf(detail: JobDetail, rules: JobRules, now: Date): Partial<JobSummaryRow> {
  const { job } = detail;
  const facts = jobFacts(detail);
  const judgements = judgeBoard(roundView(facts), rules.judgement);
  const points = openPoints(facts, rules, now.getTime(), judgements);
  const charge = jobChargeState(facts, rules.charge, now.getTime());
  const until = charge.verifiedUntilMilliseconds;
  const searched = [
    String(job.number).padStart(4, "0"),
    job.deviceKind,
    job.deviceMaker,
    job.deviceModel,
    job.deviceSerial,
    job.complaint,
    job.customerName,
  ];
  return {
    isStale: false,
    foldedBy: coreVersion,
    isClosed: job.handedOverAt !== null,
    lens: lensReached(lensProgress(facts, rules, now.getTime(), judgements, points)),
    openPointCount: points.length,
    chargeName: charge.name,
    // While it drains the voltage is another one by the time that somebody reads this.
    chargeVolts: charge.name === "draining" ? null : charge.volts,
    chargeAt: charge.at === null ? null : new Date(charge.at),
    chargeUntil: charge.name === "verified" && until !== null ? new Date(until) : null,
    dueOn: job.dueOn,
    lateFactCount: lateFactCount(detail),
    searchText: searched.filter(Boolean).join(" ").toLowerCase(),
  };
}

interface SummaryLine extends Omit<BenchLine, "chargeAt" | "createdAt" | "handedOverAt"> {
  readonly isStale: boolean;
  readonly chargeAt: Date | null;
  readonly chargeUntil: Date | null;
  readonly createdAt: Date;
  readonly handedOverAt: Date | null;
}

/** Columns of a line, from the summary `s` and its job `j`. */
const summaryColumns = `s.job_id AS id, s.number, j.device_kind AS "deviceKind", j.device_maker AS "deviceMaker",
  j.device_model AS "deviceModel", j.complaint, s.lens, s.open_point_count AS "openPointCount",
  s.charge_name AS "chargeName", s.charge_volts AS "chargeVolts", s.charge_at AS "chargeAt",
  s.charge_until AS "chargeUntil", to_char(j.due_on, 'YYYY-MM-DD') AS "dueOn", j.created_at AS "createdAt",
  j.handed_over_at AS "handedOverAt", s.late_fact_count AS "lateFactCount", s.is_stale AS "isStale"`;

/** Lines as they read now: a charge that is stale or has expired is unknown. */
export async function readLines(scope: Scope, where: string, bind: readonly unknown[]): Promise<BenchLine[]> {
  const rows = await scope.sql<SummaryLine>(
    `SELECT ${summaryColumns} FROM job_summaries s JOIN jobs j ON j.id = s.job_id ${where}`,
    bind,
  );
  return rows.map(({ isStale, chargeUntil, ...row }): BenchLine => {
    const hasExpired = chargeUntil !== null && chargeUntil.getTime() < scope.now.getTime();
    const isUnknown = isStale || hasExpired;
    return {
      ...row,
      chargeName: isUnknown ? "unknown" : row.chargeName,
      chargeVolts: isUnknown ? null : row.chargeVolts,
      chargeAt: isUnknown ? null : (row.chargeAt?.toISOString() ?? null),
      createdAt: row.createdAt.toISOString(),
      handedOverAt: row.handedOverAt?.toISOString() ?? null,
    };
  });
}

import type { RunEventKind, RunPlan, RunStop } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Append-only: what becomes of a run stands in its events. */
export interface ProofRunRow {
  id: string;
  jobId: string;
  plan: RunPlan;
  isAttendedOnly: boolean;
  isSimulated: boolean;
  /** What stood between the mains and the unit. */
  rig: { readonly isIsolationTransformer: boolean; readonly isCaseClosed: boolean };
  personId: string | null;
  begunAt: Date;
  sequence: number;
}

export const proofRuns = (sequelize: Sequelize) =>
  defineTable<ProofRunRow>(sequelize, "proof_runs", {
    id: column.key,
    jobId: column.id,
    plan: column.json,
    isAttendedOnly: column.flag,
    isSimulated: column.flag,
    rig: column.json,
    personId: column.id,
    begunAt: column.moment,
    sequence: column.count,
  });

/** Append-only. */
export interface ProofRunEventRow {
  id: string;
  runId: string;
  kind: RunEventKind;
  seconds: number;
  step: number | null;
  stop: RunStop | null;
  personId: string | null;
  at: Date;
  sequence: number;
}

export const proofRunEvents = (sequelize: Sequelize) =>
  defineTable<ProofRunEventRow>(sequelize, "proof_run_events", {
    id: column.key,
    runId: column.id,
    kind: column.text,
    seconds: column.real,
    step: column.whole,
    stop: column.json,
    personId: column.id,
    at: column.moment,
    sequence: column.count,
  });

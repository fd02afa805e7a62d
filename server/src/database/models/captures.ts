import type { CaptureRig } from "@pale-cap/contract";
import type { CaptureAnalysis } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** A ripple capture of a rail; its samples are a blob, gzipped. */
export interface CaptureDbRow extends FactColumns {
  id: string;
  jobId: string;
  version: number;
  netId: string;
  name: string;
  loadAmps: number | null;
  rig: CaptureRig;
  analysis: CaptureAnalysis;
  /** The core that made it. */
  coreVersion: string;
  instrument: string | null;
  isSimulated: boolean;
  samplesSha256: string;
  isRemoved: boolean;
  measuredAt: Date;
  personId: string | null;
}

export const captures = (sequelize: Sequelize) =>
  defineTable<CaptureDbRow>(sequelize, "captures", {
    id: column.key,
    jobId: column.id,
    version: column.whole,
    netId: column.id,
    name: column.text,
    loadAmps: column.real,
    rig: column.json,
    analysis: column.json,
    coreVersion: column.text,
    instrument: column.text,
    isSimulated: column.flag,
    samplesSha256: column.text,
    isRemoved: column.flag,
    measuredAt: column.moment,
    personId: column.id,
    ...factColumns,
  });

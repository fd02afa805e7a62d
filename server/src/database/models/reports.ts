import type { ReportAudience, ReportDocument } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** Append-only: what was handed over, version by version, one a closing. */
export interface ReportRow {
  id: string;
  jobId: string;
  closingId: string;
  number: number;
  coreVersion: string;
  madeAt: Date;
  sequence: number;
}

export const reports = (sequelize: Sequelize) =>
  defineTable<ReportRow>(sequelize, "reports", {
    id: column.key,
    jobId: column.id,
    closingId: column.id,
    number: column.whole,
    coreVersion: column.text,
    madeAt: column.moment,
    sequence: column.count,
  });

/** Its words, apart from it: a customer's name can stand in them, and is taken out by the owner's own function alone. */
export interface ReportDocumentRow {
  reportId: string;
  jobId: string;
  audience: ReportAudience;
  document: ReportDocument;
}

export const reportDocuments = (sequelize: Sequelize) =>
  defineTable<ReportDocumentRow>(sequelize, "report_documents", {
    reportId: column.key,
    jobId: column.id,
    audience: column.textKey,
    document: column.json,
  });

/** Its bytes as they were printed; gone where a name was taken out of the words, and made of what is left. */
export interface ReportFileRow {
  reportId: string;
  jobId: string;
  audience: ReportAudience;
  pdf: Buffer;
}

export const reportFiles = (sequelize: Sequelize) =>
  defineTable<ReportFileRow>(sequelize, "report_files", {
    reportId: column.key,
    jobId: column.id,
    audience: column.textKey,
    pdf: column.bytes,
  });

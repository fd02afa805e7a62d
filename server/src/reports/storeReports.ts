import { randomUUID } from "node:crypto";
import { type ReportAudience, reportAudiences } from "@pale-cap/contract";
import { coreVersion } from "@pale-cap/core";
import type { Database } from "../database/database";
import { noCaller, type Scope } from "../database/scope";
import type { HeavyWork } from "../heavy/heavyWork";
import { HttpProblem } from "../http/problems";
import type { ReportDocuments } from "./drawReport";

/** Keeps both reports of a closing as they are handed over: the next version of the job's. */
export async function storeReports(
  scope: Scope,
  {
    jobId,
    closingId,
    documents,
  }: {
    readonly jobId: string;
    readonly closingId: string;
    readonly documents: ReportDocuments;
  },
): Promise<void> {
  const id = randomUUID();
  const number = (await scope.rows.reports.count({ jobId })) + 1;
  await scope.rows.reports.insert({ id, jobId, closingId, number, coreVersion, madeAt: scope.now });
  for (const audience of reportAudiences) {
    await scope.rows.reportDocuments.insert({ reportId: id, jobId, audience, document: documents[audience] });
  }
}

/** The words of a stored report. @throws {HttpProblem} where the job has no such report */
export async function storedReport(scope: Scope, jobId: string, reportId: string, audience: ReportAudience) {
  const report = await scope.rows.reports.first({ id: reportId, jobId });
  const words = report && (await scope.rows.reportDocuments.first({ reportId, audience }));
  if (!report || !words) throw new HttpProblem("not_found", "There is no such report on this job.");
  return { document: words.document, madeAt: report.madeAt };
}

/**
 * The bytes of a stored report: printed once from its stored words, and kept. They are missing right after the closing, and where
 * they went with a name.
 */
export async function storedFile(
  { database, heavy, now }: { readonly database: Database; readonly heavy: HeavyWork; readonly now: () => Date },
  asked: { readonly jobId: string; readonly reportId: string; readonly audience: ReportAudience },
): Promise<Uint8Array> {
  const { jobId, reportId, audience } = asked;
  const found = await database.read(now(), async (scope) => ({
    ...(await storedReport(scope, jobId, reportId, audience)),
    file: await scope.rows.reportFiles.first({ reportId, audience }),
  }));
  if (found.file) return found.file.pdf;
  const { document, madeAt } = found;
  const pdf = Buffer.from(await heavy.reportFile(jobId, { audience, document, paper: null, madeAt }));
  await database.write(now(), noCaller, async ({ sql }) => {
    // Kept only while the words are still those that were printed: a name may have been taken out meanwhile.
    await sql(
      `INSERT INTO report_files (report_id, job_id, audience, pdf)
       SELECT report_id, job_id, audience, $3 FROM report_documents
       WHERE report_id = $1 AND audience = $2 AND document = $4::jsonb
       ON CONFLICT DO NOTHING RETURNING report_id`,
      [reportId, audience, pdf, JSON.stringify(document)],
    );
  });
  return pdf;
}

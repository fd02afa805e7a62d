import type { PaperSize, ReportAudience, ReportDocument } from "@pale-cap/contract";
import { customerReport, type ReportInput, recordReport, reportModel } from "@pale-cap/wording";
import sharp from "sharp";
import type { Database } from "../database/database";
import type { Scope } from "../database/scope";
import { readBlob } from "../records/blobStore";
import { loadReportInput } from "../records/loadReportInput";

const draw = { customer: customerReport, record: recordReport } as const;
/** Longest side of a photo on paper: a third of a page at 200 dots to the inch. */
const pictureSidePixels = 1000;

export type ReportDocuments = Readonly<Record<ReportAudience, ReportDocument>>;

/** Both reports of a job, from one model. */
export function drawReports(input: ReportInput): ReportDocuments {
  const model = reportModel(input);
  return { customer: draw.customer(model), record: draw.record(model) };
}

/** One report of a job as it stands; no connection is held while it is drawn. */
export async function drawReport(
  database: Database,
  now: Date,
  jobId: string,
  audience: ReportAudience,
): Promise<ReportDocument> {
  const input = await database.read(now, (scope) => loadReportInput(scope, jobId, null));
  return draw[audience](reportModel(input));
}

/** A report on paper, with the photos that it names. */
export async function printReport(
  database: Database,
  now: Date,
  question: {
    readonly jobId: string;
    readonly document: ReportDocument;
    readonly paper: PaperSize;
    readonly madeAt: Date;
  },
): Promise<Buffer> {
  const { jobId, document, paper, madeAt } = question;
  const stored = await database.read(now, (scope) => loadPhotos(scope, jobId, document));
  const pictures = new Map<string, string>();
  for (const [id, bytes] of stored) {
    const small = await sharp(bytes)
      .resize(pictureSidePixels, pictureSidePixels, { fit: "inside", withoutEnlargement: true })
      .jpeg({ quality: 78 })
      .toBuffer();
    pictures.set(id, `data:image/jpeg;base64,${small.toString("base64")}`);
  }
  // Loaded when it is wanted: what puts type on paper would be a fifth of each start.
  const { reportPdf } = await import("../papers/reportPdf");
  return reportPdf(document, { paper, madeAt, pictures });
}

async function loadPhotos(scope: Scope, jobId: string, { blocks }: ReportDocument): Promise<Map<string, Buffer>> {
  const photos = new Map<string, Buffer>();
  for (const block of blocks) {
    if (block.kind !== "photo") continue;
    const photo = await scope.rows.photos.first({ id: block.photoId, jobId });
    const bytes = photo && (await readBlob(scope, photo.imageSha256));
    if (bytes) photos.set(block.photoId, bytes);
  }
  return photos;
}

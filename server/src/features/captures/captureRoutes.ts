import { createHash } from "node:crypto";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { gunzip } from "node:zlib";
import { type CaptureRow, captureLimits, newCaptureSchema, routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { CaptureDbRow } from "../../database/models/captures";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { fileProblem, receiveUpload } from "../../http/receiveUpload";
import { idParameter } from "../../http/validate";
import { blobChunks, findBlob, saveBlob } from "../../records/blobStore";
import { toCapture } from "../../records/loadJobs";
import { requireNetOfJob } from "../../records/ownership";

const receiveSamples = receiveUpload({
  noun: "capture",
  aboutField: "about",
  about: newCaptureSchema,
  mostBytes: captureLimits.uploadBytes,
});
const unzip = promisify(gunzip);
const bytesPerSample = 4;

/** Ripple captures of a job: taken in, read back, taken off. */
export function captureRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  const find = async (id: string, transaction?: Transaction) => {
    const row = await models.captures.findOne({ where: { id, isRemoved: false }, transaction, raw: true });
    if (!row) throw new HttpProblem("not_found", "There is no such capture.");
    return row as unknown as CaptureDbRow;
  };
  const read = async (id: string, transaction: Transaction) =>
    JSON.parse(JSON.stringify(toCapture(await find(id, transaction)))) as CaptureRow;

  router.post(routes.captures, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const { about, bytes } = await receiveSamples(request, response);
    await requireSamples(bytes, about.analysis.sampleCount);
    const sha256 = createHash("sha256").update(bytes).digest("hex");
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: about.id, kind: `capture ${jobId}`, body: { ...about, sha256 } },
      async (transaction) => {
        await requireNetOfJob(database, jobId, about.netId, transaction);
        const blob = { bytes, mediaType: "application/octet-stream", createdAt: now() };
        const samplesSha256 = await saveBlob(database, blob, transaction);
        const row = { ...about, jobId, samplesSha256, isRemoved: false, measuredAt: new Date(about.measuredAt) };
        await models.captures.create(row as Partial<CaptureDbRow>, { transaction });
        return read(about.id, transaction);
      },
      (transaction) => read(about.id, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.get(routes.captureSamples, async (request, response) => {
    const { samplesSha256 } = await find(idParameter(request.params.captureId));
    const blob = await findBlob(database, samplesSha256);
    if (!blob) throw new HttpProblem("not_found", "The samples are not stored.");
    // Stored as it travels: the browser unpacks it.
    response.set({ "Content-Type": "application/octet-stream", "Content-Encoding": "gzip" });
    await pipeline(blobChunks(database, blob), response);
  });

  router.delete(routes.capture, async (request, response) => {
    const { id } = await find(idParameter(request.params.captureId));
    await models.captures.update({ isRemoved: true }, { where: { id } });
    response.status(204).end();
  });

  return router;
}

/** The samples must be what is said of them: so many finite numbers, and no more when unpacked. */
async function requireSamples(bytes: Buffer, sampleCount: number): Promise<void> {
  let unpacked: Buffer;
  try {
    unpacked = await unzip(bytes, { maxOutputLength: captureLimits.samples * bytesPerSample });
  } catch {
    throw fileProblem("capture", "The samples are not packed as they should be, or are too many. Nothing was stored.");
  }
  if (unpacked.length !== sampleCount * bytesPerSample) {
    throw fileProblem("capture", "There are not as many samples as were announced. Nothing was stored.");
  }
  for (let n = 0; n < sampleCount; n++) {
    if (!Number.isFinite(unpacked.readFloatLE(n * bytesPerSample))) {
      throw fileProblem("capture", `Sample ${n + 1} is no number. Nothing was stored.`);
    }
  }
}

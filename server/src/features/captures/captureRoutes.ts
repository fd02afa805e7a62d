import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { gunzip } from "node:zlib";
import {
  type CaptureAnalysisEdit,
  captureAnalysisEditSchema,
  captureLimits,
  type NewCapture,
  newCaptureSchema,
  removalSchema,
  routes,
} from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import type { BlobRow } from "../../database/models/blobs";
import type { CaptureDbRow } from "../../database/models/captures";
import type { Scope } from "../../database/scope";
import type { HeavyWork } from "../../heavy/heavyWork";
import { HttpProblem } from "../../http/problems";
import { fileProblem, receiveUpload } from "../../http/receiveUpload";
import { type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { blobChunks, findBlob, saveBlob } from "../../records/blobStore";
import { factMoment } from "../../records/facts";
import { requireRoom } from "../../records/jobRoom";
import { toCapture, toWire } from "../../records/loadJobs";
import { requireNetOfJob } from "../../records/ownership";
import { requireSeen } from "../../records/seen";
import { simulatedHere } from "../../records/simulated";

const receiveSamples = receiveUpload({
  noun: "capture",
  aboutField: "about",
  about: newCaptureSchema,
  mostBytes: captureLimits.uploadBytes,
});
const unzip = promisify(gunzip);
const bytesPerSample = 4;

/** Ripple captures of a job: taken in, read back, taken off. */
export const captureRoutes = ({ database, heavy }: AppContext): readonly Route[] => [
  write({
    method: "post",
    path: routes.captures,
    kind: "capture",
    isTakenWhenClosed: true,
    right: "measure",
    creates: true,
    schema: newCaptureSchema,
    receive: receiveSamples,
    prepare: ({ body, bytes }) => requireSamples(heavy, bytes as Buffer, body.analysis.sampleCount),
    write: async (scope, { body, params, bytes }) => {
      const jobId = params.jobId as string;
      const { clockId, measuredAt, ...about } = body as NewCapture;
      await requireNetOfJob(scope, jobId, about.netId);
      await requireRoom(scope, jobId, (bytes as Buffer).length);
      const samplesSha256 = await saveBlob(scope, bytes as Buffer, "application/octet-stream");
      const isSimulated = await simulatedHere(scope, about);
      const moment = await factMoment(scope, clockId);
      const row = {
        ...about,
        isSimulated,
        ...moment,
        jobId,
        samplesSha256,
        isRemoved: false,
        measuredAt: new Date(measuredAt),
      };
      await scope.rows.captures.insert(row as Partial<CaptureDbRow>);
    },
    answer: async (scope, { body }) => toWire(toCapture(await captureOf(scope, body.id))),
  }),
  read({
    path: routes.captureSamples,
    right: "read",
    read: async (scope, { params }) => {
      const { samplesSha256, jobId } = await captureOf(scope, params.captureId as string);
      await requireSeen(scope, jobId);
      const blob = await findBlob(scope, samplesSha256);
      if (!blob) throw new HttpProblem("not_found", "The samples are not stored.");
      return blob;
    },
    send: async (response, blob: BlobRow) => {
      // Stored as it travels: the browser unpacks it.
      response.set({ "Content-Type": "application/octet-stream", "Content-Encoding": "gzip" });
      await pipeline(blobChunks(database, blob), response);
    },
  }),
  write({
    method: "put",
    path: routes.captureAnalysis,
    kind: "capture analysis",
    right: "measure",
    schema: captureAnalysisEditSchema,
    write: async (scope, { body, params }) => {
      const { jobId, captureId } = params as { jobId: string; captureId: string };
      const stored = await captureOf(scope, captureId);
      if (body.analysis.sampleCount !== stored.analysis.sampleCount) {
        throw new HttpProblem("conflict", "This analysis is not of the stored samples.");
      }
      const key = { id: captureId, version: body.version, where: { jobId } };
      const { analysis, coreVersion } = body as CaptureAnalysisEdit;
      await updateFromVersion(scope.rows.captures, key, { analysis, coreVersion });
    },
    answer: async (scope, { params }) => toWire(toCapture(await captureOf(scope, params.captureId as string))),
  }),
  write({
    method: "delete",
    path: routes.capture,
    kind: "capture removal",
    right: "measure",
    schema: removalSchema(),
    write: async (scope, { body, params }) => {
      const { jobId, captureId } = params as { jobId: string; captureId: string };
      const key = { id: captureId, version: body.version, where: { jobId } };
      await updateFromVersion(scope.rows.captures, key, { isRemoved: true });
    },
    answer: async () => undefined,
  }),
];

async function captureOf(scope: Scope, id: string): Promise<CaptureDbRow> {
  const row = await scope.rows.captures.first({ id, isRemoved: false });
  if (!row) throw new HttpProblem("not_found", "There is no such capture.");
  return row;
}

/** The samples must be what is said of them: so many finite numbers, and no more when unpacked. */
async function requireSamples(heavy: HeavyWork, bytes: Buffer, sampleCount: number): Promise<void> {
  let unpacked: Buffer;
  try {
    unpacked = await unzip(bytes, { maxOutputLength: captureLimits.samples * bytesPerSample });
  } catch {
    throw fileProblem("capture", "The samples are not packed as they should be, or are too many. Nothing was stored.");
  }
  if (unpacked.length !== sampleCount * bytesPerSample) {
    throw fileProblem("capture", "There are not as many samples as were announced. Nothing was stored.");
  }
  const index = await heavy.firstNotFinite(unpacked);
  if (index >= 0) throw fileProblem("capture", `Sample ${index + 1} is no number. Nothing was stored.`);
}

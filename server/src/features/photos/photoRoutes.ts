import { createHash } from "node:crypto";
import { pipeline } from "node:stream/promises";
import { photoEditSchema, routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, type Response, Router } from "express";
import type { Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { PhotoDbRow } from "../../database/models/photos";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { blobChunks, findBlob, saveBlob } from "../../records/blobStore";
import { toPhoto } from "../../records/loadJobs";
import { requireJob } from "../../records/ownership";
import { preparePicture } from "./preparePicture";
import { receivePicture } from "./receivePicture";

/** Photos of a job: taken in, marked, taken off and brought back, and their pixels. */
export function photoRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  const find = async (id: string, transaction?: Transaction) =>
    (await models.photos.findByPk(id, { transaction, raw: true })) as unknown as PhotoDbRow | null;
  const read = async (id: string, transaction: Transaction) => toPhoto((await find(id, transaction)) as PhotoDbRow);

  router.post(routes.photos, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const { about: photo, bytes } = await receivePicture(request, response);
    const prepared = await preparePicture(bytes);
    const body = { ...photo, sha256: createHash("sha256").update(bytes).digest("hex") };
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: photo.id, kind: `photo ${jobId}`, body },
      async (transaction) => {
        await requireJob(database, jobId, transaction);
        const { mediaType, widthPixels, heightPixels } = prepared;
        const save = (content: Buffer) =>
          saveBlob(database, { bytes: content, mediaType, createdAt: now() }, transaction);
        const imageSha256 = await save(prepared.bytes);
        const thumbnailSha256 = await save(prepared.thumbnail);
        const pixels = { imageSha256, thumbnailSha256, widthPixels, heightPixels };
        const row = { ...photo, ...pixels, jobId, marks: [], takenAt: new Date(photo.takenAt) };
        await models.photos.create(row, { transaction });
        return read(photo.id, transaction);
      },
      (transaction) => read(photo.id, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.patch(routes.photo, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const photoId = idParameter(request.params.photoId);
    const body = parseBody(photoEditSchema, request.body);
    const { result } = await writeOnce(
      database,
      now,
      { id: body.writeId, kind: `photo ${photoId}`, body },
      async (transaction) => {
        const key = { id: photoId, version: body.version, scope: { jobId } };
        await updateFromVersion(models.photos, key, body.values, transaction);
        return read(photoId, transaction);
      },
      (transaction) => read(photoId, transaction),
    );
    response.json(result);
  });

  router.get(routes.photoImage, async (request, response) => {
    await sendBlob(response, (await findOrRefuse(request.params.photoId)).imageSha256);
  });
  router.get(routes.photoThumbnail, async (request, response) => {
    await sendBlob(response, (await findOrRefuse(request.params.photoId)).thumbnailSha256);
  });

  async function findOrRefuse(id: unknown): Promise<PhotoDbRow> {
    const photo = await find(idParameter(id));
    if (!photo) throw new HttpProblem("not_found", "There is no photo with this id.");
    return photo;
  }

  /** The pixels of a photo never change: marks lie beside them. */
  async function sendBlob(response: Response, sha256: string): Promise<void> {
    const blob = await findBlob(database, sha256);
    if (!blob) throw new HttpProblem("not_found", "The picture is not stored.");
    response.set({
      "Content-Type": blob.mediaType,
      "Content-Length": String(blob.sizeBytes),
      "Cache-Control": "private, max-age=31536000, immutable",
      ETag: `"${sha256}"`,
    });
    await pipeline(blobChunks(database, blob), response);
  }

  return router;
}

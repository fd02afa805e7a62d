import { pipeline } from "node:stream/promises";
import { newPhotoSchema, photoEditSchema, routes } from "@pale-cap/contract";
import type { Response } from "express";
import type { AppContext } from "../../appContext";
import type { BlobRow } from "../../database/models/blobs";
import type { PhotoDbRow } from "../../database/models/photos";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { asFile, servedType } from "../../http/servedType";
import { updateFromVersion } from "../../http/versions";
import { blobChunks, findBlob, saveBlob } from "../../records/blobStore";
import { requireRoom } from "../../records/jobRoom";
import { toPhoto } from "../../records/loadJobs";
import { requireSeen } from "../../records/seen";
import { preparePicture } from "./preparePicture";
import { receivePicture } from "./receivePicture";

/** Photos of a job: taken in, marked, taken off and brought back, and their pixels. */
export function photoRoutes({ database }: AppContext): readonly Route[] {
  const pixels = (path: string, hashOf: (photo: PhotoDbRow) => string) =>
    read({
      path,
      right: "read",
      read: async (scope, { params }) => {
        const photo = await photoOf(scope, params.photoId as string);
        await requireSeen(scope, photo.jobId);
        const blob = await findBlob(scope, hashOf(photo));
        if (!blob) throw new HttpProblem("not_found", "The picture is not stored.");
        return blob;
      },
      send: async (response: Response, blob: BlobRow) => {
        const [type, length] = [servedType(blob.mediaType), String(blob.sizeBytes)];
        response.set({ ...asFile, "Content-Type": type, "Content-Length": length });
        await pipeline(blobChunks(database, blob), response);
      },
    });
  return [
    write({
      method: "post",
      path: routes.photos,
      kind: "photo",
      right: "take_in",
      creates: true,
      schema: newPhotoSchema,
      receive: receivePicture,
      prepare: ({ bytes }) => preparePicture(bytes as Buffer),
      write: async (scope, { body, params }, { bytes, thumbnail, mediaType, widthPixels, heightPixels }) => {
        await requireRoom(scope, params.jobId as string, bytes.length + thumbnail.length);
        const imageSha256 = await saveBlob(scope, bytes, mediaType);
        const thumbnailSha256 = await saveBlob(scope, thumbnail, mediaType);
        const stored = { imageSha256, thumbnailSha256, widthPixels, heightPixels };
        const jobId = params.jobId as string;
        await scope.rows.photos.insert({ ...body, ...stored, jobId, marks: [], takenAt: new Date(body.takenAt) });
      },
      answer: async (scope, { body }) => toPhoto(await photoOf(scope, body.id)),
    }),
    write({
      method: "patch",
      path: routes.photo,
      kind: "photo edit",
      right: "take_in",
      schema: photoEditSchema,
      write: async (scope, { body, params }) => {
        const { jobId, photoId } = params as { jobId: string; photoId: string };
        await updateFromVersion(
          scope.rows.photos,
          { id: photoId, version: body.version, where: { jobId } },
          body.values,
        );
      },
      answer: async (scope, { params }) => toPhoto(await photoOf(scope, params.photoId as string)),
    }),
    pixels(routes.photoImage, (photo) => photo.imageSha256),
    pixels(routes.photoThumbnail, (photo) => photo.thumbnailSha256),
  ];
}

async function photoOf(scope: Scope, id: string): Promise<PhotoDbRow> {
  const photo = await scope.rows.photos.first({ id });
  if (!photo) throw new HttpProblem("not_found", "There is no photo with this id.");
  return photo;
}

import { pipeline } from "node:stream/promises";
import { attachmentLimits, benchNotesEditSchema, newAttachmentSchema, removalSchema, routes } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import type { BlobRow } from "../../database/models/blobs";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { receiveUpload } from "../../http/receiveUpload";
import { type Route, read, write } from "../../http/route";
import { asFile, servedType } from "../../http/servedType";
import { updateFromVersion } from "../../http/versions";
import { blobChunks, findBlob, saveBlob } from "../../records/blobStore";
import { papersOf } from "../../records/boardTypePapers";
import { cleanPaperName, preparePaper } from "./preparePaper";

const receivePaper = receiveUpload({
  noun: "paper",
  aboutField: "about",
  about: newAttachmentSchema,
  mostBytes: attachmentLimits.uploadBytes,
});

/** What is kept with a kind of board beside its places: how it is run on the bench, and its papers. */
export const paperRoutes = ({ database }: AppContext): readonly Route[] => [
  read({
    path: routes.boardTypePapers,
    right: "read",
    read: (scope, { params }) => papersOf(scope, params.boardTypeId as string),
  }),
  write({
    method: "put",
    path: routes.boardTypePapers,
    kind: "bench notes",
    right: "edit_board",
    schema: benchNotesEditSchema,
    write: ({ rows }, { body, params }) => {
      const { version, benchNotes } = body;
      return updateFromVersion(rows.boardTypes, { id: params.boardTypeId as string, version }, { benchNotes });
    },
    answer: (scope, { params }) => papersOf(scope, params.boardTypeId as string),
  }),
  write({
    method: "post",
    path: routes.boardTypeAttachments,
    kind: "paper",
    right: "edit_board",
    creates: true,
    schema: newAttachmentSchema,
    receive: receivePaper,
    prepare: ({ bytes }) => preparePaper(bytes as Buffer),
    write: async (scope, { body, params }, { bytes, mediaType }) => {
      const boardTypeId = params.boardTypeId as string;
      await papersOf(scope, boardTypeId);
      const sha256 = await saveBlob(scope, bytes, mediaType);
      const name = cleanPaperName(body.name, mediaType);
      const kept = { version: 1, isRemoved: false, addedAt: scope.now };
      await scope.rows.boardTypeAttachments.insert({ ...body, ...kept, name, boardTypeId, mediaType, sha256 });
    },
    answer: (scope, { params }) => papersOf(scope, params.boardTypeId as string),
  }),
  read({
    path: routes.attachment,
    right: "read",
    read: async (scope, { params }) => {
      const paper = await paperOf(scope, params.attachmentId as string);
      const blob = await findBlob(scope, paper.sha256);
      if (!blob) throw new HttpProblem("not_found", "The paper is not stored.");
      return { blob, name: paper.name };
    },
    send: async (response, { blob, name }: { readonly blob: BlobRow; readonly name: string }) => {
      response.set({
        ...asFile,
        "Content-Type": servedType(blob.mediaType),
        "Content-Length": String(blob.sizeBytes),
        // Never run in the page of this product, whatever is in it. A name from before names were cleaned is cleaned here.
        "Content-Disposition": `attachment; filename*=UTF-8''${encodeURIComponent(cleanPaperName(name, blob.mediaType))}`,
      });
      await pipeline(blobChunks(database, blob), response);
    },
  }),
  write({
    method: "delete",
    path: routes.attachment,
    kind: "paper removal",
    right: "edit_board",
    schema: removalSchema(),
    write: ({ rows }, { body, params }) => {
      const key = { id: params.attachmentId as string, version: body.version };
      return updateFromVersion(rows.boardTypeAttachments, key, { isRemoved: true });
    },
    answer: async (scope, { params }) => {
      const removed = await scope.rows.boardTypeAttachments.first({ id: params.attachmentId as string });
      return papersOf(scope, removed?.boardTypeId ?? "");
    },
  }),
];

async function paperOf(scope: Scope, id: string) {
  const paper = await scope.rows.boardTypeAttachments.first({ id, isRemoved: false });
  if (!paper) throw new HttpProblem("not_found", "There is no paper with this id.");
  return paper;
}

import { createHash } from "node:crypto";
import { pipeline } from "node:stream/promises";
import {
  attachmentLimits,
  type BenchNotes,
  type BoardTypePapers,
  benchNotesEditSchema,
  newAttachmentSchema,
  routes,
} from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import { QueryTypes, type Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { BoardTypeAttachmentRow } from "../../database/models/boardTypeAttachments";
import type { BoardTypeRow } from "../../database/models/boardTypes";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { fileProblem, receiveUpload } from "../../http/receiveUpload";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { blobChunks, findBlob, saveBlob } from "../../records/blobStore";

const noNotes: BenchNotes = { pins: [], note: null };

const receivePaper = receiveUpload({
  noun: "paper",
  aboutField: "about",
  about: newAttachmentSchema,
  mostBytes: attachmentLimits.uploadBytes,
});

/** What is kept with a kind of board beside its places: how it is run on the bench, and its papers. */
export function paperRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models, sequelize } = database;

  router.get(routes.boardTypePapers, async (request, response) => {
    response.json(await papersOf(idParameter(request.params.boardTypeId)));
  });

  router.put(routes.boardTypePapers, async (request, response) => {
    const id = idParameter(request.params.boardTypeId);
    const { version, benchNotes } = parseBody(benchNotesEditSchema, request.body);
    await sequelize.transaction((transaction) =>
      updateFromVersion(models.boardTypes, { id, version }, { benchNotes }, transaction),
    );
    response.json(await papersOf(id));
  });

  router.post(routes.boardTypeAttachments, async (request, response) => {
    const boardTypeId = idParameter(request.params.boardTypeId);
    const { about, bytes } = await receivePaper(request, response);
    const mediaType = mediaTypeOf(bytes);
    const sha256 = createHash("sha256").update(bytes).digest("hex");
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: about.id, kind: `paper ${boardTypeId}`, body: { ...about, sha256 } },
      async (transaction) => {
        await papersOf(boardTypeId, transaction);
        await saveBlob(database, { bytes, mediaType, createdAt: now() }, transaction);
        const row = { ...about, boardTypeId, mediaType, sha256, isRemoved: false, addedAt: now() };
        await models.boardTypeAttachments.create(row, { transaction });
        return papersOf(boardTypeId, transaction);
      },
      (transaction) => papersOf(boardTypeId, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.get(routes.attachment, async (request, response) => {
    const paper = await find(request.params.attachmentId);
    const blob = await findBlob(database, paper.sha256);
    if (!blob) throw new HttpProblem("not_found", "The paper is not stored.");
    response.set({
      "Content-Type": blob.mediaType,
      "Content-Length": String(blob.sizeBytes),
      // Never run in the page of this product, whatever is in it.
      "Content-Disposition": `attachment; filename*=UTF-8''${encodeURIComponent(paper.name)}`,
      "X-Content-Type-Options": "nosniff",
    });
    await pipeline(blobChunks(database, blob), response);
  });

  router.delete(routes.attachment, async (request, response) => {
    const { id, boardTypeId } = await find(request.params.attachmentId);
    await models.boardTypeAttachments.update({ isRemoved: true }, { where: { id } });
    response.json(await papersOf(boardTypeId));
  });

  async function find(id: unknown): Promise<BoardTypeAttachmentRow> {
    const row = await models.boardTypeAttachments.findOne({
      where: { id: idParameter(id), isRemoved: false },
      raw: true,
    });
    if (!row) throw new HttpProblem("not_found", "There is no paper with this id.");
    return row as unknown as BoardTypeAttachmentRow;
  }

  async function papersOf(boardTypeId: string, transaction?: Transaction): Promise<BoardTypePapers> {
    const row = await models.boardTypes.findByPk(boardTypeId, { transaction, raw: true });
    const type = row as unknown as BoardTypeRow | null;
    if (!type) throw new HttpProblem("not_found", "There is no board type with this id.");
    const attachments = await sequelize.query<BoardTypePapers["attachments"][number]>(
      `SELECT a.id, a.kind, a.name, a.media_type AS "mediaType", b.size_bytes AS "sizeBytes"
       FROM board_type_attachments a JOIN blobs b ON b.sha256 = a.sha256
       WHERE a.board_type_id = $1 AND NOT a.is_removed ORDER BY a.added_at, a.id`,
      { bind: [boardTypeId], type: QueryTypes.SELECT, transaction },
    );
    return { boardTypeId, version: type.version, benchNotes: type.benchNotes ?? noNotes, attachments };
  }

  return router;
}

/** Told by the first bytes, not by what the sender says it is. */
function mediaTypeOf(bytes: Buffer): string {
  if (bytes.subarray(0, 5).toString("latin1") === "%PDF-") return "application/pdf";
  if (bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return "image/png";
  if (bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return "image/jpeg";
  throw fileProblem("paper", "A paper is a PDF, PNG or JPEG file. Nothing was stored.");
}

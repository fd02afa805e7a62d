import {
  type BoardTypeLine,
  type BoardTypeOfJob,
  routes,
  saveBoardTypeSchema,
  takeBoardTypeSchema,
} from "@pale-cap/contract";
import { boardDifferences } from "@pale-cap/core";
import { type Router as ExpressRouter, Router } from "express";
import { QueryTypes, type Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { BoardTypeRevisionRow } from "../../database/models/boardTypeRevisions";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { fillBoard, loadBoardParts, toContent, toPlaces, withoutPromises } from "../../records/boardCopies";
import { loadJob } from "../../records/loadJobs";

/** Boards that are kept for the next unit of their kind. */
export function boardTypeRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models, sequelize } = database;

  router.get(routes.boardTypes, async (_request, response) => {
    response.json(
      await sequelize.query<BoardTypeLine>(
        `SELECT DISTINCT ON (lower(t.name), t.id) t.id AS "boardTypeId", t.name, r.id AS "revisionId",
           r.number AS "revisionNumber", jsonb_array_length(r.content->'positions') AS "partCount"
         FROM board_types t JOIN board_type_revisions r ON r.board_type_id = t.id
         ORDER BY lower(t.name), t.id, r.number DESC`,
        { type: QueryTypes.SELECT },
      ),
    );
  });

  router.get(routes.boardTypeOfJob, async (request, response) => {
    response.json(await typeOfJob(idParameter(request.params.jobId)));
  });

  router.post(routes.boardTypeOfJob, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(saveBoardTypeSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `board type ${jobId}`, body },
      async (transaction) => {
        const parts = await partsOf(jobId, transaction);
        if (parts.positions.length === 0) {
          throw new HttpProblem("conflict", "An empty board is no type: put its parts on it first.");
        }
        const boardTypeId = body.boardTypeId ?? body.id;
        const name = body.name?.trim() ?? "";
        if (!body.boardTypeId) await models.boardTypes.create({ id: boardTypeId, name, version: 1 }, { transaction });
        const type = await models.boardTypes.findByPk(boardTypeId, { transaction, lock: true });
        if (!type) throw new HttpProblem("conflict", "The board type is not stored.");
        const last = await latestRevision(boardTypeId, transaction);
        const revision = { id: body.id, boardTypeId, number: (last?.number ?? 0) + 1, createdAt: now() };
        await models.boardTypeRevisions.create(
          { ...revision, content: withoutPromises(toContent(parts)) },
          { transaction },
        );
        await models.boards.update({ boardTypeRevisionId: body.id }, { where: { id: parts.board.id }, transaction });
        return typeOfJob(jobId, transaction);
      },
      (transaction) => typeOfJob(jobId, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.post(routes.boardTypeUse, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(takeBoardTypeSchema, request.body);
    const { result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `use board type ${jobId}`, body },
      async (transaction) => {
        const parts = await partsOf(jobId, transaction);
        if (parts.positions.length > 0) {
          throw new HttpProblem("conflict", "There are parts on this board already: a type fills an empty board only.");
        }
        const row = await models.boardTypeRevisions.findByPk(body.revisionId, { transaction, raw: true });
        const revision = row as unknown as BoardTypeRevisionRow | null;
        if (!revision) throw new HttpProblem("conflict", "The board type is not stored.");
        const { id, version } = parts.board;
        const values = { ...revision.content.board, boardTypeRevisionId: revision.id, version: version + 1 };
        await models.boards.update(values, { where: { id }, transaction });
        await fillBoard(database, id, revision.content, transaction);
        return boardRows(jobId, transaction);
      },
      (transaction) => boardRows(jobId, transaction),
    );
    response.json(result);
  });

  async function partsOf(jobId: string, transaction?: Transaction) {
    const parts = await loadBoardParts(database, jobId, transaction);
    if (!parts) throw new HttpProblem("not_found", "There is no job with this id.");
    return parts;
  }

  async function boardRows(jobId: string, transaction: Transaction) {
    const { board, nets, positions, fittedParts } = await loadJob(database, jobId, transaction);
    return { board, nets, positions, fittedParts };
  }

  async function latestRevision(boardTypeId: string, transaction?: Transaction): Promise<BoardTypeRevisionRow | null> {
    const row = await models.boardTypeRevisions.findOne({
      where: { boardTypeId },
      order: [["number", "DESC"]],
      transaction,
      raw: true,
    });
    return row as unknown as BoardTypeRevisionRow | null;
  }

  async function typeOfJob(jobId: string, transaction?: Transaction): Promise<BoardTypeOfJob | null> {
    const parts = await partsOf(jobId, transaction);
    const { boardTypeRevisionId } = parts.board;
    if (!boardTypeRevisionId) return null;
    const row = await models.boardTypeRevisions.findByPk(boardTypeRevisionId, { transaction, raw: true });
    const revision = row as unknown as BoardTypeRevisionRow;
    const type = await models.boardTypes.findByPk(revision.boardTypeId, { transaction, raw: true });
    return {
      boardTypeId: revision.boardTypeId,
      name: (type as unknown as { name: string }).name,
      revisionNumber: revision.number,
      latestNumber: (await latestRevision(revision.boardTypeId, transaction))?.number ?? revision.number,
      differences: boardDifferences(revision.content, toPlaces(parts)),
    };
  }

  return router;
}

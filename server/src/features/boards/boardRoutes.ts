import { type BoardChange, type BoardEdit, boardEditSchema, routes } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { Table } from "../../database/models/table";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem, toHttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { loadJob } from "../../records/loadJobs";

interface AnyRow {
  id: string;
  version: number;
}

/** Edits of a board: one batch, all or nothing. Returns the board's rows as they stand afterwards. */
export function boardRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  router.post(routes.boardEdits, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const edit = parseBody(boardEditSchema, request.body) as unknown as BoardEdit;
    const read = async (transaction: Transaction) => {
      const { board, nets, positions, fittedParts } = await loadJob(database, jobId, transaction);
      return { board, nets, positions, fittedParts };
    };
    const { result } = await writeOnce(
      database,
      now,
      { id: edit.id, kind: `board ${jobId}`, body: edit },
      async (transaction) => {
        const boardId = await boardOfJob(jobId, transaction);
        for (const [index, change] of edit.changes.entries()) {
          try {
            await applyChange(boardId, change, transaction);
          } catch (error) {
            throw atIndex(error, index);
          }
        }
        return read(transaction);
      },
      read,
    );
    response.json(result);
  });

  async function boardOfJob(jobId: string, transaction: Transaction): Promise<string> {
    const board = await models.boards.findOne({ where: { jobId }, attributes: ["id"], transaction, raw: true });
    if (!board) throw new HttpProblem("not_found", "There is no job with this id.");
    return (board as unknown as { id: string }).id;
  }

  async function applyChange(boardId: string, change: BoardChange, transaction: Transaction): Promise<void> {
    if (change.table === "board") {
      if (change.operation !== "update") throw new HttpProblem("conflict", "A board is only ever updated.");
      await requireOwnPhoto(boardId, change.values?.underlay?.photoId, transaction);
      const key = { id: boardId, version: change.version ?? 0 };
      await updateFromVersion(models.boards, key, change.values ?? {}, transaction);
      return;
    }
    if (change.table === "fittedPart") {
      await applyPartChange(boardId, change, transaction);
      return;
    }
    const table = (change.table === "net" ? models.nets : models.positions) as unknown as Table<AnyRow>;
    if (change.operation === "insert") {
      const row = { ...change.values, id: change.id, boardId, lineageId: change.id, version: 1 };
      await requireOwnNet(boardId, change, transaction);
      await table.create(row as never, { transaction });
      return;
    }
    await requireOwnNet(boardId, change, transaction);
    const deleted = { delete: { deletedAt: now() }, restore: { deletedAt: null }, update: change.values }[
      change.operation
    ];
    const key = { id: change.id, version: change.version ?? 0, scope: { boardId } as never };
    await updateFromVersion(table, key, deleted as never, transaction);
  }

  /** Only a photo of this job lies beneath its board. */
  async function requireOwnPhoto(
    boardId: string,
    photoId: string | undefined,
    transaction: Transaction,
  ): Promise<void> {
    if (!photoId) return;
    const board = await models.boards.findByPk(boardId, { attributes: ["jobId"], transaction, raw: true });
    const { jobId } = board as unknown as { jobId: string };
    if (await models.photos.findOne({ where: { id: photoId, jobId }, transaction })) return;
    throw new HttpProblem("conflict", "The photo is not of this job.", { errors: [fieldError("underlay")] });
  }

  /** A position may only sit on a net of its own board. */
  async function requireOwnNet(boardId: string, change: BoardChange, transaction: Transaction): Promise<void> {
    if (change.table !== "position" || !change.values?.netId) return;
    const net = await models.nets.findOne({ where: { id: change.values.netId, boardId }, transaction });
    if (!net) throw new HttpProblem("conflict", "The net is not on this board.", { errors: [fieldError("netId")] });
  }

  async function applyPartChange(
    boardId: string,
    change: Extract<BoardChange, { table: "fittedPart" }>,
    transaction: Transaction,
  ): Promise<void> {
    if (change.operation === "delete" || change.operation === "restore" || !change.values) {
      throw new HttpProblem("conflict", "A part leaves by being removed in Rework, not by an edit.");
    }
    const where = { id: change.values.positionId, boardId };
    if (!(await models.positions.findOne({ where, transaction }))) {
      throw new HttpProblem("conflict", "The position is not on this board.", { errors: [fieldError("positionId")] });
    }
    if (change.operation === "insert") {
      const row = { ...change.values, id: change.id, origin: "found" as const };
      await models.fittedParts.create(row, { transaction });
      return;
    }
    const scope = { positionId: change.values.positionId };
    await updateFromVersion(
      models.fittedParts,
      { id: change.id, version: change.version ?? 0, scope },
      change.values,
      transaction,
    );
  }

  return router;
}

function fieldError(path: string) {
  return { path, message: "is not on this board" };
}

/** Says which row of the batch a problem belongs to. */
function atIndex(error: unknown, index: number): unknown {
  const problem = toHttpProblem(error);
  if (problem.code === "internal") return error;
  const errors = problem.facts.errors?.map((one) => ({ ...one, path: `changes[${index}].values.${one.path}` }));
  return new HttpProblem(problem.code, problem.detail, { ...problem.facts, errors });
}

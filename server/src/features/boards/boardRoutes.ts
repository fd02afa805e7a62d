import {
  type BoardChange,
  type BoardEdit,
  boardEditSchema,
  newBoardSchema,
  removalSchema,
  routes,
} from "@pale-cap/contract";
import { Op, type WhereOptions } from "sequelize";
import type { Rows } from "../../database/rows";
import type { Scope } from "../../database/scope";
import { HttpProblem, toHttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { assumedBoard } from "../../records/assumedBoard";
import { loadBoardRows } from "../../records/loadJobs";
import { requireNoNetBehindItself } from "./netOrder";

interface BoardBound {
  id: string;
  version: number;
  boardId: string;
  lineageId: string;
  deletedAt: Date | null;
}

/** Edits of a board: one batch, all or nothing. Answers with the board's rows as they stand afterwards. */
export const boardRoutes = (): readonly Route[] => [
  write({
    method: "post",
    path: routes.boardEdits,
    kind: "board",
    right: "edit_board",
    schema: boardEditSchema,
    write: async (scope, { body, params }) => {
      const { changes, boardId = null } = body as BoardEdit;
      const unit = await boardsOf(scope, params.jobId as string, boardId);
      for (const [index, change] of changes.entries()) {
        try {
          await applyChange(scope, unit, change);
        } catch (error) {
          throw atIndex(error, index);
        }
      }
      if (changes.some((change) => change.table === "net")) {
        await requireNoNetBehindItself(scope, unit.boardIds, changes);
      }
    },
    answer: (scope, { params }) => loadBoardRows(scope, params.jobId as string),
  }),
  write({
    method: "post",
    path: routes.boards,
    kind: "new board",
    right: "edit_board",
    creates: true,
    schema: newBoardSchema,
    write: async (scope, { body, params }) => {
      const jobId = params.jobId as string;
      const last = await scope.rows.boards.first({ jobId }, [["place", "DESC"]]);
      await scope.rows.boards.insert({ ...assumedBoard, ...body, jobId, place: (last?.place ?? 0) + 1 });
    },
    answer: (scope, { params }) => loadBoardRows(scope, params.jobId as string),
  }),
  write({
    method: "delete",
    path: routes.board,
    kind: "board removed",
    right: "edit_board",
    schema: removalSchema(),
    write: async (scope, { body, params }) => {
      const { jobId, boardId } = params as { jobId: string; boardId: string };
      await requireEmptyBoard(scope, jobId, boardId);
      const key = { id: boardId, version: body.version, where: { jobId, deletedAt: null } };
      await updateFromVersion(scope.rows.boards, key, { deletedAt: scope.now });
    },
    answer: (scope, { params }) => loadBoardRows(scope, params.jobId as string),
  }),
];

/** A unit keeps one board, and a board what is on it. */
async function requireEmptyBoard(scope: Scope, jobId: string, boardId: string): Promise<void> {
  const left = await scope.rows.boards.all({ jobId, deletedAt: null }, [["place", "ASC"]]);
  if (left.length < 2) throw new HttpProblem("conflict", "A unit has at least one board.");
  const onIt = { boardId, deletedAt: null };
  const isBare =
    !(await scope.rows.nets.has(onIt)) &&
    !(await scope.rows.positions.has(onIt)) &&
    !(await scope.rows.energyStores.has({ boardId }));
  if (!isBare) throw new HttpProblem("conflict", "Parts, rails or stores are on this board: it stays.");
}

/** The boards of a unit, and the one where what is new goes. */
interface UnitBoards {
  readonly boardIds: string[];
  readonly newOn: string;
}

async function boardsOf(scope: Scope, jobId: string, boardId: string | null): Promise<UnitBoards> {
  const boards = await scope.rows.boards.all({ jobId, deletedAt: null }, [["place", "ASC"]]);
  const named = boards.find((one) => boardId === null || one.id === boardId);
  if (!named) throw new HttpProblem("conflict", "The board is not of this unit.", { errors: [notOnBoard("boardId")] });
  return { boardIds: boards.map((one) => one.id), newOn: named.id };
}

async function applyChange(scope: Scope, unit: UnitBoards, change: BoardChange): Promise<void> {
  if (change.table === "board") {
    if (change.operation !== "update") throw new HttpProblem("conflict", "A board is only ever updated.");
    await requireOwnPhoto(scope, change.values?.underlay?.photoId);
    const key = { id: change.id, version: change.version ?? 0, where: { jobId: scope.job?.id as string } };
    await updateFromVersion(scope.rows.boards, key, change.values ?? {});
    return;
  }
  if (change.table === "fittedPart") {
    await applyPartChange(scope, unit, change);
    return;
  }
  await requireOwnNet(scope, unit, change);
  if (change.table === "net") await applyRowChange(scope.rows.nets, scope.now, unit, change);
  else await applyRowChange(scope.rows.positions, scope.now, unit, change);
}

/** A rail or a position: both belong to a board, have a lineage, and stay where they are when they are deleted. */
async function applyRowChange<Row extends BoardBound>(
  rows: Rows<Row>,
  now: Date,
  { boardIds, newOn }: UnitBoards,
  change: { readonly id: string; readonly operation: BoardChange["operation"]; readonly version: number | null } & {
    readonly values?: Partial<Row> | null;
  },
): Promise<void> {
  const bound = (row: Partial<BoardBound>) => row as Partial<Row>;
  if (change.operation === "insert") {
    const made = bound({ id: change.id, boardId: newOn, lineageId: change.id, version: 1 });
    await rows.insert({ ...change.values, ...made });
    return;
  }
  const values = {
    delete: bound({ deletedAt: now }),
    restore: bound({ deletedAt: null }),
    update: change.values ?? bound({}),
  };
  const where = { boardId: { [Op.in]: boardIds } } as WhereOptions<Row>;
  await updateFromVersion(rows, { id: change.id, version: change.version ?? 0, where }, values[change.operation]);
}

/** Only a photo of this job lies beneath its board. */
async function requireOwnPhoto(scope: Scope, photoId: string | undefined): Promise<void> {
  if (!photoId || (await scope.rows.photos.has({ id: photoId, jobId: scope.job?.id as string }))) return;
  throw new HttpProblem("conflict", "The photo is not of this job.", { errors: [notOnBoard("underlay")] });
}

/** A position may only sit on a net of its own board. */
async function requireOwnNet(scope: Scope, { newOn }: UnitBoards, change: BoardChange): Promise<void> {
  if (change.table !== "position" || !change.values?.netId) return;
  const standing = change.operation === "insert" ? undefined : await scope.rows.positions.first({ id: change.id });
  if (await scope.rows.nets.has({ id: change.values.netId, boardId: standing?.boardId ?? newOn })) return;
  throw new HttpProblem("conflict", "The net is not on this board.", { errors: [notOnBoard("netId")] });
}

async function applyPartChange(
  scope: Scope,
  { boardIds }: UnitBoards,
  change: Extract<BoardChange, { table: "fittedPart" }>,
): Promise<void> {
  if (change.operation === "delete" || change.operation === "restore" || !change.values) {
    throw new HttpProblem("conflict", "A part leaves by being removed in Rework, not by an edit.");
  }
  const { positionId } = change.values;
  if (!(await scope.rows.positions.has({ id: positionId, boardId: { [Op.in]: boardIds } }))) {
    throw new HttpProblem("conflict", "The position is not on this board.", { errors: [notOnBoard("positionId")] });
  }
  if (change.operation === "insert") {
    await scope.rows.fittedParts.insert({ ...change.values, id: change.id, origin: "found" });
    return;
  }
  const key = { id: change.id, version: change.version ?? 0, where: { positionId } };
  await updateFromVersion(scope.rows.fittedParts, key, change.values);
}

function notOnBoard(path: string) {
  return { path, code: "not_on_board" } as const;
}

/** Says which row of the batch a problem belongs to. */
function atIndex(error: unknown, index: number): unknown {
  const problem = toHttpProblem(error);
  if (problem.code === "internal" || problem.isForAll) return error;
  const errors = problem.facts.errors?.map((one) => ({ ...one, path: `changes[${index}].values.${one.path}` }));
  return new HttpProblem(problem.code, problem.detail, { ...problem.facts, errors });
}

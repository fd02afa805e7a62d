import { type BoardChange, type BoardEdit, boardEditSchema, routes } from "@pale-cap/contract";
import type { Rows } from "../../database/rows";
import type { Scope } from "../../database/scope";
import { HttpProblem, toHttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { loadJob } from "../../records/loadJobs";
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
      const board = await scope.rows.boards.first({ jobId: params.jobId as string });
      if (!board) throw new HttpProblem("not_found", "There is no job with this id.");
      const { changes } = body as BoardEdit;
      for (const [index, change] of changes.entries()) {
        try {
          await applyChange(scope, board.id, change);
        } catch (error) {
          throw atIndex(error, index);
        }
      }
      if (changes.some((change) => change.table === "net")) await requireNoNetBehindItself(scope, board.id, changes);
    },
    answer: async (scope, { params }) => {
      const { board, nets, positions, fittedParts } = await loadJob(scope, params.jobId as string);
      return { board, nets, positions, fittedParts };
    },
  }),
];

async function applyChange(scope: Scope, boardId: string, change: BoardChange): Promise<void> {
  if (change.table === "board") {
    if (change.operation !== "update") throw new HttpProblem("conflict", "A board is only ever updated.");
    await requireOwnPhoto(scope, change.values?.underlay?.photoId);
    await updateFromVersion(scope.rows.boards, { id: boardId, version: change.version ?? 0 }, change.values ?? {});
    return;
  }
  if (change.table === "fittedPart") {
    await applyPartChange(scope, boardId, change);
    return;
  }
  await requireOwnNet(scope, boardId, change);
  if (change.table === "net") await applyRowChange(scope.rows.nets, scope.now, boardId, change);
  else await applyRowChange(scope.rows.positions, scope.now, boardId, change);
}

/** A rail or a position: both belong to a board, have a lineage, and stay where they are when they are deleted. */
async function applyRowChange<Row extends BoardBound>(
  rows: Rows<Row>,
  now: Date,
  boardId: string,
  change: { readonly id: string; readonly operation: BoardChange["operation"]; readonly version: number | null } & {
    readonly values?: Partial<Row> | null;
  },
): Promise<void> {
  const bound = (row: Partial<BoardBound>) => row as Partial<Row>;
  if (change.operation === "insert") {
    await rows.insert({ ...change.values, ...bound({ id: change.id, boardId, lineageId: change.id, version: 1 }) });
    return;
  }
  const values = {
    delete: bound({ deletedAt: now }),
    restore: bound({ deletedAt: null }),
    update: change.values ?? bound({}),
  };
  const key = { id: change.id, version: change.version ?? 0, where: bound({ boardId }) };
  await updateFromVersion(rows, key, values[change.operation]);
}

/** Only a photo of this job lies beneath its board. */
async function requireOwnPhoto(scope: Scope, photoId: string | undefined): Promise<void> {
  if (!photoId || (await scope.rows.photos.has({ id: photoId, jobId: scope.job?.id as string }))) return;
  throw new HttpProblem("conflict", "The photo is not of this job.", { errors: [fieldError("underlay")] });
}

/** A position may only sit on a net of its own board. */
async function requireOwnNet(scope: Scope, boardId: string, change: BoardChange): Promise<void> {
  if (change.table !== "position" || !change.values?.netId) return;
  if (await scope.rows.nets.has({ id: change.values.netId, boardId })) return;
  throw new HttpProblem("conflict", "The net is not on this board.", { errors: [fieldError("netId")] });
}

async function applyPartChange(
  scope: Scope,
  boardId: string,
  change: Extract<BoardChange, { table: "fittedPart" }>,
): Promise<void> {
  if (change.operation === "delete" || change.operation === "restore" || !change.values) {
    throw new HttpProblem("conflict", "A part leaves by being removed in Rework, not by an edit.");
  }
  const { positionId } = change.values;
  if (!(await scope.rows.positions.has({ id: positionId, boardId }))) {
    throw new HttpProblem("conflict", "The position is not on this board.", { errors: [fieldError("positionId")] });
  }
  if (change.operation === "insert") {
    await scope.rows.fittedParts.insert({ ...change.values, id: change.id, origin: "found" });
    return;
  }
  const key = { id: change.id, version: change.version ?? 0, where: { positionId } };
  await updateFromVersion(scope.rows.fittedParts, key, change.values);
}

function fieldError(path: string) {
  return { path, code: "not_on_board" } as const;
}

/** Says which row of the batch a problem belongs to. */
function atIndex(error: unknown, index: number): unknown {
  const problem = toHttpProblem(error);
  if (problem.code === "internal" || problem.isForAll) return error;
  const errors = problem.facts.errors?.map((one) => ({ ...one, path: `changes[${index}].values.${one.path}` }));
  return new HttpProblem(problem.code, problem.detail, { ...problem.facts, errors });
}

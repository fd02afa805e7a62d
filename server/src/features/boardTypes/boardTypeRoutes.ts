import {
  type BoardTypeLine,
  type BoardTypeOfJob,
  boardTypeQuerySchema,
  routes,
  saveBoardTypeSchema,
  takeBoardTypeSchema,
} from "@pale-cap/contract";
import { boardDifferences } from "@pale-cap/core";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { fillBoard, loadBoardParts, toContent, toPlaces, withoutPromises } from "../../records/boardCopies";
import { loadBoardRows } from "../../records/loadJobs";

/** Boards that are kept for the next unit of their kind. */
export const boardTypeRoutes = (): readonly Route[] => [
  read({
    path: routes.boardTypes,
    right: "read",
    read: (scope) =>
      scope.sql<BoardTypeLine>(
        `SELECT DISTINCT ON (lower(t.name), t.id) t.id AS "boardTypeId", t.name, r.id AS "revisionId",
           r.number AS "revisionNumber", jsonb_array_length(r.content->'positions') AS "partCount"
         FROM board_types t JOIN board_type_revisions r ON r.board_type_id = t.id
         ORDER BY lower(t.name), t.id, r.number DESC`,
      ),
  }),
  read({
    path: routes.boardTypeOfJob,
    right: "read",
    schema: boardTypeQuerySchema,
    query: ({ board }) => ({ board: typeof board === "string" ? board : null }),
    read: (scope, { body, params }) => typeOfBoard(scope, params.jobId as string, body.board),
  }),
  write({
    method: "post",
    path: routes.boardTypeOfJob,
    kind: "board type",
    isTakenWhenClosed: true,
    right: "edit_board",
    creates: true,
    schema: saveBoardTypeSchema,
    write: async (scope, { body, params }) => {
      const { rows } = scope;
      const parts = await partsOf(scope, params.jobId as string, body.boardId);
      if (parts.positions.length === 0) {
        throw new HttpProblem("conflict", "An empty board is no type: put its parts on it first.");
      }
      const boardTypeId = body.boardTypeId ?? body.id;
      if (!body.boardTypeId)
        await rows.boardTypes.insert({ id: boardTypeId, name: body.name?.trim() ?? "", version: 1 });
      if (!(await rows.boardTypes.locked({ id: boardTypeId }))) {
        throw new HttpProblem("conflict", "The board type is not stored.");
      }
      const last = await rows.boardTypeRevisions.first({ boardTypeId }, [["number", "DESC"]]);
      const content = withoutPromises(toContent(parts));
      const revision = { id: body.id, boardTypeId, number: (last?.number ?? 0) + 1, createdAt: scope.now, content };
      await rows.boardTypeRevisions.insert(revision);
      await rows.boards.update({ boardTypeRevisionId: body.id }, { id: parts.board.id });
    },
    answer: (scope, { body, params }) => typeOfBoard(scope, params.jobId as string, body.boardId),
  }),
  write({
    method: "post",
    path: routes.boardTypeUse,
    kind: "use board type",
    right: "edit_board",
    schema: takeBoardTypeSchema,
    write: async (scope, { body, params }) => {
      const parts = await partsOf(scope, params.jobId as string, body.boardId);
      if (parts.positions.length > 0) {
        throw new HttpProblem("conflict", "There are parts on this board already: a type fills an empty board only.");
      }
      const revision = await scope.rows.boardTypeRevisions.first({ id: body.revisionId });
      if (!revision) throw new HttpProblem("conflict", "The board type is not stored.");
      const { id, version } = parts.board;
      const values = { ...revision.content.board, boardTypeRevisionId: revision.id, version: version + 1 };
      await scope.rows.boards.update(values, { id });
      await fillBoard(scope, id, revision.content);
    },
    answer: (scope, { params }) => loadBoardRows(scope, params.jobId as string),
  }),
];

async function partsOf(scope: Scope, jobId: string, boardId: string | null = null) {
  const parts = await loadBoardParts(scope, jobId, boardId);
  if (!parts) throw new HttpProblem("not_found", "There is no such board in this job.");
  return parts;
}

async function typeOfBoard(scope: Scope, jobId: string, boardId?: string | null): Promise<BoardTypeOfJob | null> {
  const parts = await partsOf(scope, jobId, boardId);
  const { boardTypeRevisionId } = parts.board;
  const revision = boardTypeRevisionId && (await scope.rows.boardTypeRevisions.first({ id: boardTypeRevisionId }));
  if (!revision) return null;
  const { boardTypeId, number } = revision;
  const latest = await scope.rows.boardTypeRevisions.first({ boardTypeId }, [["number", "DESC"]]);
  return {
    boardTypeId,
    name: (await scope.rows.boardTypes.first({ id: boardTypeId }))?.name ?? "",
    revisionNumber: number,
    latestNumber: latest?.number ?? number,
    differences: boardDifferences(revision.content, toPlaces(parts)),
  };
}

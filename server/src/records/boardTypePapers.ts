import type { BenchNotes, BoardTypePapers } from "@pale-cap/contract";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

const noNotes: BenchNotes = { pins: [], note: null };

/** How a kind of board is run on the bench, and its papers. */
export async function papersOf(scope: Scope, boardTypeId: string): Promise<BoardTypePapers> {
  const type = await scope.rows.boardTypes.first({ id: boardTypeId });
  if (!type) throw new HttpProblem("not_found", "There is no board type with this id.");
  const attachments = await scope.sql<BoardTypePapers["attachments"][number]>(
    `SELECT a.id, a.version, a.kind, a.name, a.media_type AS "mediaType", b.size_bytes AS "sizeBytes"
     FROM board_type_attachments a JOIN blobs b ON b.sha256 = a.sha256
     WHERE a.board_type_id = $1 AND NOT a.is_removed ORDER BY a.added_at, a.id`,
    [boardTypeId],
  );
  return { boardTypeId, version: type.version, benchNotes: type.benchNotes ?? noNotes, attachments };
}

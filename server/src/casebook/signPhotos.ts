import type { SignPhoto } from "@pale-cap/contract";
import type { Scope } from "../database/scope";

const mostPhotos = 12;

/**
 * Photos of closed jobs on which a pen mark names a place where somebody saw a sign: what such a sign looks like on parts of a kind.
 * Newest first, a few of each sign.
 */
export async function signPhotos(scope: Scope, partKind: string | null): Promise<readonly SignPhoto[]> {
  return scope.sql<SignPhoto>(
    `SELECT "photoId", "jobId", "jobNumber", designator, "partKind", sign FROM (
       SELECT h.id AS "photoId", j.id AS "jobId", j.number AS "jobNumber", p.designator, p.kind AS "partKind", o.sign,
         row_number() OVER (PARTITION BY o.sign ORDER BY j.number DESC, h.id) AS place
       FROM photos h JOIN jobs j ON j.id = h.job_id AND j.realm = $1 AND j.handed_over_at IS NOT NULL
       JOIN LATERAL jsonb_array_elements(h.marks) AS mark ON trim(mark->>'text') <> ''
       JOIN boards b ON b.job_id = j.id AND b.deleted_at IS NULL
       JOIN positions p ON p.board_id = b.id AND p.deleted_at IS NULL AND upper(p.designator) = upper(split_part(trim(mark->>'text'), ' ', 1))
       LEFT JOIN fitted_parts f ON f.position_id = p.id AND f.origin = 'found'
       JOIN LATERAL (SELECT DISTINCT ON (s.sign) s.sign, s.state FROM sign_observations s
         WHERE s.fitted_part_id = f.id OR s.position_id = p.id ORDER BY s.sign, s.sequence DESC) o ON o.state = 'seen'
       WHERE NOT h.is_removed AND ($2::text IS NULL OR p.kind = $2)) AS shown
     WHERE place <= 3 ORDER BY sign, "jobNumber" DESC LIMIT ${mostPhotos}`,
    [scope.realm, partKind],
  );
}

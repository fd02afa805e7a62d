import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

/** A hundred photos as a camera makes them and some dozen captures: more is a mistake, or meant to fill the disk. */
export const mostBytesOfJob = 1_000_000_000;

/**
 * Whether a job's photos and captures leave room for one more; one that is stored already, under any job, takes none.
 *
 * @throws {HttpProblem} with what is stored and what may be
 */
export async function requireRoom(scope: Scope, jobId: string, bytes: number, most = mostBytesOfJob): Promise<void> {
  const [row] = await scope.sql<{ stored: number }>(
    `SELECT coalesce(sum(b.size_bytes), 0)::bigint AS stored FROM blobs b WHERE b.sha256 IN (
       SELECT image_sha256 FROM photos WHERE job_id = $1 UNION SELECT thumbnail_sha256 FROM photos WHERE job_id = $1
       UNION SELECT samples_sha256 FROM captures WHERE job_id = $1)`,
    [jobId],
  );
  const stored = row?.stored ?? 0;
  if (stored + bytes <= most) return;
  const [has, may] = [stored, most].map((one) => Math.round(one / 1e6));
  throw new HttpProblem(
    "conflict",
    `This job holds ${has} MB of photos and captures; ${may} MB is the most. Nothing was stored.`,
  );
}

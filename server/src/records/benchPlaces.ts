import type { BenchPlace } from "@pale-cap/contract";
import type { Scope } from "../database/scope";

/** Each bench of the shop: who is at it, what lies on it, what stands there. */
export async function benchPlaces(scope: Scope): Promise<readonly BenchPlace[]> {
  const benches = await scope.sql<{ id: string; name: string; instrumentCount: number }>(
    `SELECT b.id, b.name, (SELECT count(*) FROM instruments i WHERE i.bench_id = b.id AND NOT i.is_removed)::int AS "instrumentCount"
     FROM benches b WHERE b.practice_job_id IS NULL ORDER BY b.simulated_set`,
  );
  const people = await scope.sql<{ benchId: string; personId: string; name: string }>(
    `SELECT DISTINCT s.sess->>'benchId' AS "benchId", p.id AS "personId", p.name
     FROM sessions s JOIN accounts a ON a.id::text = s.sess->'who'->>'accountId' AND a.is_active JOIN people p ON p.id = a.person_id
     WHERE s.sess->>'benchId' IS NOT NULL AND s.expire > now() AT TIME ZONE current_setting('TimeZone') ORDER BY p.name`,
  );
  const jobs = await scope.sql<{
    benchId: string;
    id: string;
    number: number;
    maker: string | null;
    model: string | null;
    kind: string;
  }>(
    `SELECT l.bench_id AS "benchId", j.id, j.number, j.device_maker AS maker, j.device_model AS model, j.device_kind AS kind
     FROM bench_jobs l JOIN jobs j ON j.id = l.job_id WHERE j.handed_over_at IS NULL AND j.realm = $1 ORDER BY l.since`,
    [scope.realm],
  );
  return benches.map((bench) => ({
    ...bench,
    people: people.filter((one) => one.benchId === bench.id).map(({ personId, name }) => ({ personId, name })),
    jobs: jobs
      .filter((one) => one.benchId === bench.id)
      .map(({ id, number, maker, model, kind }) => ({
        id,
        number,
        deviceKind: kind,
        deviceMaker: maker,
        deviceModel: model,
      })),
  }));
}

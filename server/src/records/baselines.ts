import {
  type BaselineValue,
  baselineOfBrothers,
  baselineOfUnits,
  type GoodReading,
  type VerdictWord,
} from "@pale-cap/core";
import type { Scope } from "../database/scope";

interface GoodRow {
  readonly typeId: string;
  readonly jobId: string;
  readonly isKnownGood: boolean;
  readonly positionId: string;
  readonly designator: string;
  readonly quantity: GoodReading["quantity"];
  readonly circuitState: string | null;
  readonly frequencyHertz: number | null;
  readonly value: number;
  readonly result: Readonly<Record<string, { readonly verdict: VerdictWord }>> | null;
}

/** Cold ESR readings on found parts, of units that are known to be good or that were handed over, by board type. */
const goodReadings = `
  SELECT r.board_type_id AS "typeId", b.job_id AS "jobId", p.id AS "positionId", p.designator, m.quantity,
    m.circuit_state AS "circuitState", m.frequency_hertz AS "frequencyHertz", m.value,
    coalesce((j.intake_details->>'isKnownGood')::boolean, false) AS "isKnownGood", s.result
  FROM readings m
  JOIN positions p ON p.id = m.target_id AND p.deleted_at IS NULL
  JOIN fitted_parts f ON f.id = m.fitted_part_id AND f.origin = 'found'
  JOIN boards b ON b.id = p.board_id
  JOIN board_type_revisions r ON r.id = b.board_type_revision_id
  JOIN jobs j ON j.id = b.job_id
  LEFT JOIN LATERAL (SELECT result FROM judgement_snapshots WHERE job_id = j.id ORDER BY sequence DESC LIMIT 1) s ON true
  WHERE r.board_type_id = ANY($1::uuid[]) AND m.quantity = 'esr' AND m.value IS NOT NULL AND NOT m.is_powered
    AND NOT m.is_withdrawn AND NOT EXISTS (SELECT 1 FROM readings x WHERE x.supersedes_id = m.id)
    AND j.realm = $2 AND NOT (m.came_after_closing AND j.handed_over_at IS NOT NULL)
    AND (j.handed_over_at IS NOT NULL OR coalesce((j.intake_details->>'isKnownGood')::boolean, false))`;

/** The same of a brother in the family that is known to be good: it needs no board type. */
const goodBrothers = `
  SELECT j.job_family_id AS "typeId", b.job_id AS "jobId", p.id AS "positionId", p.designator, m.quantity,
    m.circuit_state AS "circuitState", m.frequency_hertz AS "frequencyHertz", m.value, true AS "isKnownGood", NULL AS result
  FROM readings m
  JOIN positions p ON p.id = m.target_id AND p.deleted_at IS NULL
  JOIN fitted_parts f ON f.id = m.fitted_part_id AND f.origin = 'found'
  JOIN boards b ON b.id = p.board_id AND b.board_type_revision_id IS NULL
  JOIN jobs j ON j.id = b.job_id
  WHERE j.job_family_id = ANY($1::uuid[]) AND m.quantity = 'esr' AND m.value IS NOT NULL AND NOT m.is_powered
    AND NOT m.is_withdrawn AND NOT EXISTS (SELECT 1 FROM readings x WHERE x.supersedes_id = m.id)
    AND j.realm = $2 AND coalesce((j.intake_details->>'isKnownGood')::boolean, false)`;

/** What good units of the same board type read, for each of these jobs; its own readings never count for a job itself. */
export async function loadBaselines(
  scope: Scope,
  jobIds: readonly string[],
): Promise<ReadonlyMap<string, readonly BaselineValue[]>> {
  const types = await scope.sql<{ jobId: string; typeId: string }>(
    `SELECT b.job_id AS "jobId", r.board_type_id AS "typeId" FROM boards b
     JOIN board_type_revisions r ON r.id = b.board_type_revision_id WHERE b.job_id = ANY($1::uuid[])`,
    [[...jobIds]],
  );
  const related = await scope.sql<{ jobId: string; typeId: string; hasGood: boolean }>(
    `SELECT j.id AS "jobId", j.job_family_id AS "typeId",
       bool_or(coalesce((g.intake_details->>'isKnownGood')::boolean, false)) AS "hasGood"
     FROM jobs j JOIN jobs g ON g.job_family_id = j.job_family_id AND g.id <> j.id
     WHERE j.id = ANY($1::uuid[]) GROUP BY j.id, j.job_family_id`,
    [[...jobIds]],
  );
  const families = related.filter((one) => one.hasGood);
  const idsOf = (list: readonly { readonly typeId: string }[]) => [...new Set(list.map((one) => one.typeId))];
  const rows = [
    ...(types.length > 0 ? await scope.sql<GoodRow>(goodReadings, [idsOf(types), scope.realm]) : []),
    ...(families.length > 0 ? await scope.sql<GoodRow>(goodBrothers, [idsOf(families), scope.realm]) : []),
  ];
  const asked = [...types, ...families];
  const brothers = await loadBrothers(
    scope,
    related.map((one) => one.jobId),
  );
  return new Map(
    jobIds.flatMap((jobId) => {
      const mine = new Set(asked.filter((one) => one.jobId === jobId).map((one) => one.typeId));
      const own = rows.filter((row) => mine.has(row.typeId) && row.jobId !== jobId);
      // What is known to be good stands first: a reading is held against the first that fits.
      const values = [...baselineOfUnits(own.flatMap(goodReading)), ...baselineOfBrothers(brothers.get(jobId) ?? [])];
      return values.length === 0 ? [] : [[jobId, values] as const];
    }),
  );
}

/** A row as core takes it; none where nobody judged the part sound. */
function goodReading(row: GoodRow): GoodReading[] {
  if (!row.isKnownGood && row.result?.[row.positionId]?.verdict !== "sound") return [];
  const { designator, quantity, value, isKnownGood, circuitState } = row;
  return [
    {
      unitId: row.jobId,
      isKnownGood,
      designator,
      quantity,
      isInCircuit: circuitState === null || circuitState === "in_circuit",
      frequencyHertz: row.frequencyHertz ?? 100e3,
      value,
    },
  ];
}

interface BrotherRow extends Omit<GoodReading, "unitId" | "isKnownGood" | "isInCircuit"> {
  readonly jobId: string;
  readonly unitId: string;
  readonly circuitState: string | null;
}

/** What the other units of each job's family read last at its places: the same by lineage, whatever they are called there. */
async function loadBrothers(
  scope: Scope,
  jobIds: readonly string[],
): Promise<ReadonlyMap<string, readonly GoodReading[]>> {
  // Most jobs have no family, and planning this takes longer than all else that is read of them.
  if (jobIds.length === 0) return new Map();
  const rows = await scope.sql<BrotherRow>(
    `SELECT DISTINCT ON (own.id, j.id, p.lineage_id, m.circuit_state, m.frequency_hertz)
       own.id AS "jobId", j.id AS "unitId", here.designator, m.quantity, m.circuit_state AS "circuitState",
       coalesce(m.frequency_hertz, 100000) AS "frequencyHertz", m.value
     FROM jobs own
     JOIN jobs j ON j.job_family_id = own.job_family_id AND j.id <> own.id AND j.realm = own.realm
     JOIN boards b ON b.job_id = j.id AND b.deleted_at IS NULL
     JOIN positions p ON p.board_id = b.id AND p.deleted_at IS NULL
     JOIN fitted_parts f ON f.position_id = p.id AND f.origin = 'found'
     JOIN readings m ON m.job_id = j.id AND m.target_id = p.id AND m.fitted_part_id = f.id
     JOIN boards mine ON mine.job_id = own.id AND mine.deleted_at IS NULL
     JOIN positions here ON here.board_id = mine.id AND here.deleted_at IS NULL AND here.lineage_id = p.lineage_id
     WHERE own.id = ANY($1::uuid[]) AND m.quantity = 'esr' AND m.value > 0 AND NOT m.is_powered AND NOT m.is_withdrawn
       AND NOT EXISTS (SELECT 1 FROM readings x WHERE x.supersedes_id = m.id)
     ORDER BY own.id, j.id, p.lineage_id, m.circuit_state, m.frequency_hertz, m.sequence DESC`,
    [[...jobIds]],
  );
  const byJob = new Map<string, GoodReading[]>();
  for (const { jobId, circuitState, ...row } of rows) {
    const isInCircuit = circuitState === null || circuitState === "in_circuit";
    byJob.set(jobId, [...(byJob.get(jobId) ?? []), { ...row, isInCircuit, isKnownGood: false }]);
  }
  return byJob;
}

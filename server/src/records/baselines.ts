import { type BaselineValue, baselineOfUnits, type GoodReading, type VerdictWord } from "@pale-cap/core";
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
  const families = await scope.sql<{ jobId: string; typeId: string }>(
    `SELECT j.id AS "jobId", j.job_family_id AS "typeId" FROM jobs j
     WHERE j.id = ANY($1::uuid[]) AND EXISTS (SELECT 1 FROM jobs g WHERE g.job_family_id = j.job_family_id
       AND g.id <> j.id AND coalesce((g.intake_details->>'isKnownGood')::boolean, false))`,
    [[...jobIds]],
  );
  const idsOf = (list: readonly { readonly typeId: string }[]) => [...new Set(list.map((one) => one.typeId))];
  const rows = [
    ...(types.length > 0 ? await scope.sql<GoodRow>(goodReadings, [idsOf(types), scope.realm]) : []),
    ...(families.length > 0 ? await scope.sql<GoodRow>(goodBrothers, [idsOf(families), scope.realm]) : []),
  ];
  const asked = [...types, ...families];
  return new Map(
    jobIds.flatMap((jobId) => {
      const mine = new Set(asked.filter((one) => one.jobId === jobId).map((one) => one.typeId));
      const own = rows.filter((row) => mine.has(row.typeId) && row.jobId !== jobId);
      return own.length === 0 ? [] : [[jobId, baselineOfUnits(own.flatMap(goodReading))] as const];
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

import { type Family, type JobDetail, jobFacts } from "@pale-cap/contract";
import { type FamilyUnit, familyFindings, type JobRules, judgeBoard } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { loadJobs } from "./loadJobs";
import { loadJobRules } from "./rules";

/** The units of a job's family, without what is drawn from them. */
export async function loadFamilyUnits(scope: Scope, jobId: string): Promise<Omit<Family, "findings">> {
  const own = await scope.rows.jobs.first({ id: jobId });
  if (!own) throw new HttpProblem("not_found", "There is no job with this id.");
  if (!own.jobFamilyId) return { name: null, units: [] };
  const family = await scope.rows.jobFamilies.first({ id: own.jobFamilyId });
  const jobs = await scope.rows.jobs.all({ jobFamilyId: own.jobFamilyId, realm: own.realm }, [["number", "ASC"]]);
  const units = jobs.map(({ id, number, deviceSerial: serial, handedOverAt }) => ({
    id,
    number,
    serial,
    handedOverAt: handedOverAt?.toISOString() ?? null,
  }));
  return { name: family?.name ?? null, units };
}

/** The same with what the other units mean for this one: every board of the family is judged. */
export async function loadFamily(scope: Scope, jobId: string): Promise<Family> {
  const { name, units } = await loadFamilyUnits(scope, jobId);
  if (units.length === 0) return { name, units, findings: [] };
  const ids = units.map((unit) => unit.id);
  const rules = await loadJobRules(scope);
  const lineage = await loadLineage(scope, ids);
  const judged = (await loadJobs(scope, ids)).map((detail) => familyUnit(detail, rules, lineage));
  const self = judged.find((unit) => unit.jobId === jobId) as FamilyUnit;
  const others = judged.filter((unit) => unit !== self);
  return { name, units, findings: familyFindings(self, others, rules) };
}

async function loadLineage(scope: Scope, jobIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await scope.sql<{ id: string; lineageId: string }>(
    `SELECT r.id, r.lineage_id AS "lineageId" FROM (
       SELECT id, lineage_id, board_id FROM positions UNION ALL SELECT id, lineage_id, board_id FROM nets
     ) r JOIN boards b ON b.id = r.board_id WHERE b.job_id = ANY($1::uuid[])`,
    [[...jobIds]],
  );
  return new Map(rows.map((row) => [row.id, row.lineageId]));
}

function familyUnit(detail: JobDetail, rules: JobRules, lineage: ReadonlyMap<string, string>): FamilyUnit {
  const facts = jobFacts(detail);
  return {
    jobId: detail.job.id,
    number: detail.job.number,
    facts,
    judgements: judgeBoard(facts, rules.judgement),
    lineageOf: (rowId) => lineage.get(rowId) ?? rowId,
  };
}

import {
  type Family,
  type FamilyGrid,
  type FamilyGridUnit,
  type FamilyNeed,
  type JobDetail,
  jobFacts,
} from "@pale-cap/contract";
import {
  type FamilyUnit,
  familyFindings,
  familyGrid,
  formatMarkedCapacitance,
  isChosen,
  type JobRules,
  jobChargeState,
  judgeBoard,
} from "@pale-cap/core";
import { chargeWords } from "@pale-cap/wording";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { loadJobs } from "./loadJobs";
import { loadJobRules } from "./rules";
import { behindStudy, type Shared, sharedOf } from "./studyShare";

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

/** Every unit of a job's family side by side: verdicts, readings, what goes in, and what the study has that a unit has not. */
export async function loadFamilyGrid(scope: Scope, jobId: string): Promise<FamilyGrid> {
  const { name, units } = await loadFamilyUnits(scope, jobId);
  const ids = units.length > 0 ? units.map((unit) => unit.id) : [jobId];
  const rules = await loadJobRules(scope);
  const lineage = await loadLineage(scope, ids);
  const details = [...(await loadJobs(scope, ids))].sort((a, b) => a.job.number - b.job.number);
  const judged = details.map((detail) => familyUnit(detail, rules, lineage));
  const labels = await loadPartLabels(scope, details);
  const places = familyGrid(judged);
  const shares = details.map((detail) => sharedOf(detail, (id) => lineage.get(id) ?? id));
  return {
    name,
    units: details.map((detail, n) => gridUnit(detail, rules, scope.now, n === 0 ? null : [shares[0], shares[n]])),
    places,
    goesIn: places.map(({ cells }) =>
      cells.map((cell, n) => {
        const plan = details[n]?.plans.find((one) => one.positionId === cell?.positionId);
        if (!plan) return null;
        if (plan.isLeftEmpty) return "left empty";
        if (plan.cataloguePartId) return labels.get(plan.cataloguePartId) ?? "a part of the catalogue";
        return isChosen(plan) ? (plan.otherPart ?? "chosen") : null;
      }),
    ),
    needs: await needsOf(scope, details, labels),
  };
}

function gridUnit(
  detail: JobDetail,
  rules: JobRules,
  now: Date,
  shares: readonly (Shared | undefined)[] | null,
): FamilyGridUnit {
  const { id, number, deviceSerial: serial, handedOverAt, intakeDetails } = detail.job;
  const charge = jobChargeState(jobFacts(detail), rules.charge, now.getTime());
  const [study, own] = shares ?? [];
  return {
    ...{ id, number, serial, handedOverAt, isKnownGood: intakeDetails.isKnownGood },
    ...{ chargeName: charge.name, charge: chargeWords(charge, detail.energyStores, now.getTime()) },
    behind: study && own ? behindStudy(study, own) : null,
  };
}

async function loadPartLabels(scope: Scope, details: readonly JobDetail[]): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(details.flatMap((detail) => detail.plans.flatMap((plan) => plan.cataloguePartId ?? [])))];
  const parts = await scope.rows.catalogueParts.all({ id: ids }, [["id", "ASC"]]);
  return new Map(
    parts.map((part) => [
      part.id,
      `${part.maker} ${part.series} ${formatMarkedCapacitance(part.capacitanceFarads)} ${part.ratedVolts} V`,
    ]),
  );
}

/** What was chosen for open units and is not in yet, against drawers and what is on its way. */
async function needsOf(
  scope: Scope,
  details: readonly JobDetail[],
  labels: ReadonlyMap<string, string>,
): Promise<readonly FamilyNeed[]> {
  const needed = new Map<string, string[]>();
  for (const detail of details.filter((one) => one.job.handedOverAt === null)) {
    for (const { cataloguePartId, positionId } of detail.plans) {
      const place = detail.positions.find((one) => one.id === positionId);
      const isIn = detail.fittedParts.some(
        (part) => part.positionId === positionId && part.origin === "replacement" && part.fittedAt && !part.removedAt,
      );
      if (!cataloguePartId || !place || isIn) continue;
      needed.set(cataloguePartId, [...(needed.get(cataloguePartId) ?? []), place.designator]);
    }
  }
  const ids = [...needed.keys()];
  const free = await scope.sql<{ id: string; count: number }>(
    `SELECT s.catalogue_part_id AS id, sum(m.count_delta - m.reserved_delta)::int AS count
     FROM stock_items s JOIN stock_movements m ON m.item_id = s.id
     WHERE s.catalogue_part_id = ANY($1::uuid[]) AND s.set_aside_reason IS NULL GROUP BY s.catalogue_part_id`,
    [ids],
  );
  const ordered = await scope.sql<{ id: string; count: number }>(
    `SELECT l.catalogue_part_id AS id, sum(l.count - coalesce((SELECT sum(m.count_delta) FROM stock_movements m
         WHERE m.order_line_id = l.id), 0))::int AS count
     FROM order_lines l JOIN orders o ON o.id = l.order_id AND NOT o.is_closed
     WHERE l.catalogue_part_id = ANY($1::uuid[]) GROUP BY l.catalogue_part_id`,
    [ids],
  );
  return ids.map((cataloguePartId) => {
    const places = needed.get(cataloguePartId) ?? [];
    return {
      ...{ cataloguePartId, label: labels.get(cataloguePartId) ?? "", neededCount: places.length },
      places: [...new Set(places)],
      freeCount: free.find((one) => one.id === cataloguePartId)?.count ?? 0,
      orderedCount: Math.max(ordered.find((one) => one.id === cataloguePartId)?.count ?? 0, 0),
    };
  });
}

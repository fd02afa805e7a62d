import {
  type ClosedJobs,
  type Family,
  foldHouseRules,
  type JobDetail,
  jobFacts,
  jobRules,
  newUnitsSchema,
  routes,
} from "@pale-cap/contract";
import { type FamilyUnit, familyFindings, type JobRules, judgeBoard } from "@pale-cap/core";
import { type Router as ExpressRouter, Router } from "express";
import { QueryTypes, type Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { JobFamilyRow } from "../../database/models/jobFamilies";
import type { JobRow } from "../../database/models/jobs";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { loadJobs } from "../../records/loadJobs";
import { loadRuleChanges } from "../../records/ruleChanges";
import { copyUnit } from "./copyUnit";

/** Identical units: made from one, told of each other; and what the shop's closed jobs of a kind took. */
export function familyRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  router.get(routes.family, async (request, response) => {
    response.json(await loadFamily(idParameter(request.params.jobId)));
  });

  router.post(routes.familyUnits, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(newUnitsSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `units ${jobId}`, body },
      async (transaction) => {
        const source = (await models.jobs.findByPk(jobId, { transaction, raw: true, lock: true })) as unknown as JobRow;
        if (!source) throw new HttpProblem("not_found", "There is no job with this id.");
        const familyId = source.jobFamilyId ?? body.id;
        if (!source.jobFamilyId) {
          await models.jobFamilies.create({ id: familyId, name: body.familyName, createdAt: now() }, { transaction });
          await models.jobs.update({ jobFamilyId: familyId }, { where: { id: jobId }, transaction });
        }
        for (const unit of body.units) {
          await copyUnit(database, source, { ...unit, familyId, createdAt: now() }, transaction);
        }
        return loadFamily(jobId, transaction);
      },
      (transaction) => loadFamily(jobId, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.get(routes.closedJobs, async (request, response) => {
    response.json(await loadClosedJobs(idParameter(request.params.jobId)));
  });

  async function loadFamily(jobId: string, transaction?: Transaction): Promise<Family> {
    const own = (await models.jobs.findByPk(jobId, { transaction, raw: true })) as unknown as JobRow | null;
    if (!own) throw new HttpProblem("not_found", "There is no job with this id.");
    if (!own.jobFamilyId) return { name: null, units: [], findings: [] };
    const family = await models.jobFamilies.findByPk(own.jobFamilyId, { transaction, raw: true });
    const rows = await models.jobs.findAll({
      where: { jobFamilyId: own.jobFamilyId },
      order: [["number", "ASC"]],
      transaction,
      raw: true,
    });
    const ids = (rows as unknown as JobRow[]).map((row) => row.id);
    const details = await loadJobs(database, ids, transaction);
    const rules = jobRules(foldHouseRules(await loadRuleChanges(database)));
    const lineage = await loadLineage(ids, transaction);
    const units = details.map((detail) => familyUnit(detail, rules, lineage));
    const self = units.find((unit) => unit.jobId === jobId) as FamilyUnit;
    return {
      name: (family as unknown as JobFamilyRow | null)?.name ?? null,
      units: details
        .map(({ job }) => ({
          id: job.id,
          number: job.number,
          serial: job.deviceSerial,
          handedOverAt: job.handedOverAt,
        }))
        .sort((a, b) => a.number - b.number),
      findings: familyFindings(
        self,
        units.filter((unit) => unit !== self),
        rules,
      ),
    };
  }

  async function loadLineage(jobIds: readonly string[], transaction?: Transaction) {
    const rows = await database.sequelize.query<{ id: string; lineageId: string }>(
      `SELECT r.id, r.lineage_id AS "lineageId" FROM (
         SELECT id, lineage_id, board_id FROM positions UNION ALL SELECT id, lineage_id, board_id FROM nets
       ) r JOIN boards b ON b.id = r.board_id WHERE b.job_id = ANY($1::uuid[])`,
      { bind: [[...jobIds]], type: QueryTypes.SELECT, transaction },
    );
    return new Map(rows.map((row) => [row.id, row.lineageId]));
  }

  /** Minutes as told at hand-over, parts as they were fitted. */
  async function loadClosedJobs(jobId: string): Promise<ClosedJobs> {
    return database.sequelize.query<ClosedJobs[number]>(
      `SELECT j.spent_minutes AS "spentMinutes", sum(c.price_minor)::float8 AS "partsMinor"
       FROM jobs own JOIN jobs j ON j.device_kind = own.device_kind AND j.id <> own.id
       LEFT JOIN boards b ON b.job_id = j.id
       LEFT JOIN positions p ON p.board_id = b.id
       LEFT JOIN fitted_parts f ON f.position_id = p.id AND f.origin = 'replacement' AND f.removed_at IS NULL
       LEFT JOIN catalogue_parts c ON c.id = f.catalogue_part_id
       WHERE own.id = $1 AND j.handed_over_at IS NOT NULL
       GROUP BY j.id ORDER BY j.handed_over_at DESC LIMIT 200`,
      { bind: [jobId], type: QueryTypes.SELECT },
    );
  }

  return router;
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

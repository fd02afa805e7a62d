import { randomUUID } from "node:crypto";
import {
  acceptanceSchema,
  createJobSchema,
  foldHouseRules,
  type HandOver,
  handOverSchema,
  type Intake,
  intakeEditSchema,
  jobFacts,
  jobRules,
  routes,
} from "@pale-cap/contract";
import { judgeBoard, tunedConstants } from "@pale-cap/core";
import { type Router as ExpressRouter, Router } from "express";
import { QueryTypes, type Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { JobCustomerRow } from "../../database/models/jobCustomers";
import { writeOnce } from "../../http/idempotency";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { loadJob } from "../../records/loadJobs";
import { loadRuleChanges } from "../../records/ruleChanges";

/** A new board's size, until somebody measures: a common supply board. */
const assumedBoard = { widthMetres: 0.18, depthMetres: 0.12, barrierMetres: 0.09, lidZones: [] };

export const coreVersion = "0.1.0";

export function jobRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  router.get(routes.job, async (request, response) => {
    response.json(await loadJob(database, idParameter(request.params.jobId)));
  });

  router.post(routes.jobs, async (request, response) => {
    const body = parseBody(createJobSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: "job", body },
      async (transaction) => {
        await models.jobs.create({ ...body, createdAt: now(), symptoms: [] }, { transaction });
        await models.boards.create({ id: randomUUID(), jobId: body.id, ...assumedBoard }, { transaction });
        return loadJob(database, body.id, transaction);
      },
      (transaction) => loadJob(database, body.id, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.patch(routes.intake, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(intakeEditSchema, request.body);
    const { result } = await writeOnce(
      database,
      now,
      { id: body.writeId, kind: `intake ${jobId}`, body },
      async (transaction) => {
        const { customerName, customerContact, ownersWords, ...values } = body.values;
        await updateFromVersion(models.jobs, { id: jobId, version: body.version }, values, transaction);
        await storeCustomer(jobId, body.values, transaction);
        return (await loadJob(database, jobId, transaction)).job;
      },
      async (transaction) => (await loadJob(database, jobId, transaction)).job,
    );
    response.json(result);
  });

  router.post(routes.acceptances, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(acceptanceSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `acceptance ${jobId}`, body },
      async (transaction) => {
        const row = { ...body, jobId, acceptedAt: new Date(body.acceptedAt) };
        await models.openPointAcceptances.create(row, { transaction });
        return body;
      },
      async () => body,
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.post(routes.handOver, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(handOverSchema, request.body);
    const read = async (transaction: Transaction) => (await loadJob(database, jobId, transaction)).job;
    const { result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `hand-over ${jobId}`, body },
      async (transaction) => {
        await closeJob(jobId, body, transaction);
        return read(transaction);
      },
      read,
    );
    response.json(result);
  });

  /** The customer's name and contact stand apart from the job; the owner's words go with them. */
  async function storeCustomer(jobId: string, intake: Intake, transaction: Transaction): Promise<void> {
    const stored = await models.jobCustomers.findByPk(jobId, { transaction, raw: true });
    const link = stored as unknown as JobCustomerRow | null;
    const hasCustomer = intake.customerName !== null || intake.customerContact !== null;
    let customerId = link?.customerId ?? null;
    if (hasCustomer || customerId !== null) {
      customerId ??= randomUUID();
      const customer = { id: customerId, name: intake.customerName, contact: intake.customerContact };
      await models.customers.upsert(customer, { transaction });
    }
    if (link || customerId !== null || intake.ownersWords !== null) {
      await models.jobCustomers.upsert({ jobId, customerId, ownersWords: intake.ownersWords }, { transaction });
    }
  }

  async function closeJob(jobId: string, body: HandOver, transaction: Transaction): Promise<void> {
    if (body.isReopened) {
      const reopened = { handedOverAt: null, warrantyUntil: null, handOverNote: body.note };
      await models.jobs.update(reopened, { where: { id: jobId }, transaction });
      return;
    }
    const detail = await loadJob(database, jobId, transaction);
    const values = foldHouseRules(await loadRuleChanges(database));
    const rules = jobRules(values);
    const [row] = await database.sequelize.query<{ until: string }>(
      "SELECT ((($1::timestamptz) AT TIME ZONE $3)::date + make_interval(months => $2::int))::date::text AS until",
      { bind: [body.handedOverAt, body.warrantyMonths, values["shop.timeZone"]], type: QueryTypes.SELECT, transaction },
    );
    await models.jobs.update(
      {
        handedOverAt: new Date(body.handedOverAt),
        warrantyUntil: row?.until ?? null,
        handOverNote: body.note,
        spentMinutes: body.spentMinutes,
      },
      { where: { id: jobId }, transaction },
    );
    await models.judgementSnapshots.create(
      {
        id: body.id,
        jobId,
        coreVersion,
        constants: tunedConstants,
        rules: rules.judgement,
        readingIds: detail.readings.map((reading) => reading.id),
        result: Object.fromEntries(judgeBoard(jobFacts(detail), rules.judgement)),
        takenAt: now(),
      },
      { transaction },
    );
  }

  return router;
}

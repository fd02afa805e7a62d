import { type NewSigns, type ReadingRow, readingSchema, routes, type SignRow, signsSchema } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { requireJob, requirePartOfJob, requireTarget } from "../../records/ownership";

/** Append-only facts: readings and what was seen. */
export function readingRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  router.post(routes.readings, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(readingSchema, request.body);
    const read = async (transaction: Transaction) => {
      const row = await models.readings.findByPk(body.id, { transaction, raw: true });
      const { jobId: _, ...reading } = row as unknown as ReadingRow & { jobId: string };
      return reading;
    };
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `reading ${jobId}`, body },
      async (transaction) => {
        await requireJob(database, jobId, transaction);
        await requireTarget(database, jobId, body, transaction);
        if (body.fittedPartId) await requirePartOfJob(database, jobId, body.fittedPartId, transaction);
        if (body.supersedesId) await requireSupersedable(jobId, body.supersedesId, transaction);
        const row = { ...body, jobId, measuredAt: new Date(body.measuredAt), receivedAt: now() };
        await models.readings.create(row, { transaction });
        return read(transaction);
      },
      read,
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.post(routes.signs, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(signsSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `signs ${jobId}`, body },
      async (transaction) => {
        await requirePartOfJob(database, jobId, body.fittedPartId, transaction);
        const rows = signRows(body).map((row) => ({
          ...row,
          jobId,
          observedAt: new Date(row.observedAt),
          personId: body.personId,
        }));
        await models.signObservations.bulkCreate(rows, { transaction });
        return signRows(body);
      },
      async () => signRows(body),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  /** A reading is superseded once at most, and only by one of the same job. */
  async function requireSupersedable(jobId: string, readingId: string, transaction: Transaction): Promise<void> {
    const earlier = await models.readings.findOne({ where: { id: readingId, jobId }, transaction });
    if (!earlier) throw new HttpProblem("conflict", "The reading to be corrected is not on this job.");
    if (await models.readings.findOne({ where: { supersedesId: readingId }, transaction })) {
      throw new HttpProblem("conflict", "This reading was corrected already.", {
        errors: [{ path: "supersedesId", message: "was corrected already" }],
      });
    }
  }

  return router;
}

function signRows(body: NewSigns): SignRow[] {
  return body.observations.map((one) => ({ ...one, fittedPartId: body.fittedPartId, observedAt: body.observedAt }));
}

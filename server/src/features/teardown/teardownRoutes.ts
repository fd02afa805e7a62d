import {
  newTeardownStepSchema,
  routes,
  type TeardownStepRow,
  teardownReturnSchema,
  teardownStepEditSchema,
} from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { TeardownStepDbRow } from "../../database/models/teardownSteps";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { requireJob, requirePhotoOfJob } from "../../records/ownership";

/** The log of taking apart, and what went back in on the way to closing. */
export function teardownRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  const read = async (id: string, transaction: Transaction): Promise<TeardownStepRow> => {
    const row = (await models.teardownSteps.findByPk(id, { transaction, raw: true })) as unknown as TeardownStepDbRow;
    const { jobId: _, personId: __, isRemoved: ___, doneAt, ...step } = row;
    return { ...step, doneAt: doneAt.toISOString() };
  };

  router.post(routes.teardownSteps, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(newTeardownStepSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `teardown ${jobId}`, body },
      async (transaction) => {
        await requireJob(database, jobId, transaction);
        if (body.photoId) await requirePhotoOfJob(database, jobId, body.photoId, transaction);
        // Two steps at once must not get the same number: the job's row is held until this one has its own.
        await models.jobs.findByPk(jobId, { attributes: ["id"], transaction, lock: true });
        const last = await models.teardownSteps.findOne({
          where: { jobId },
          order: [["number", "DESC"]],
          transaction,
          raw: true,
        });
        const row = {
          ...body,
          jobId,
          number: ((last as unknown as TeardownStepDbRow | null)?.number ?? 0) + 1,
          doneAt: new Date(body.doneAt),
        };
        await models.teardownSteps.create(row, { transaction });
        return read(body.id, transaction);
      },
      (transaction) => read(body.id, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.patch(routes.teardownStep, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const stepId = idParameter(request.params.stepId);
    const body = parseBody(teardownStepEditSchema, request.body);
    const { result } = await writeOnce(
      database,
      now,
      { id: body.writeId, kind: `teardown ${stepId}`, body },
      async (transaction) => {
        if (body.values.photoId) await requirePhotoOfJob(database, jobId, body.values.photoId, transaction);
        const key = { id: stepId, version: body.version, scope: { jobId } };
        await updateFromVersion(models.teardownSteps, key, body.values, transaction);
        return { ...(await read(stepId, transaction)), isRemoved: body.values.isRemoved };
      },
      async (transaction) => ({ ...(await read(stepId, transaction)), isRemoved: body.values.isRemoved }),
    );
    response.json(result);
  });

  router.post(routes.teardownReturns, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(teardownReturnSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `return ${jobId}`, body },
      async (transaction) => {
        const step = await models.teardownSteps.findOne({ where: { id: body.stepId, jobId }, transaction });
        if (!step) throw new HttpProblem("conflict", "This step of taking apart is not on the job.");
        await models.teardownReturns.create({ ...body, jobId, at: new Date(body.at) }, { transaction });
        return body;
      },
      async () => body,
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  return router;
}

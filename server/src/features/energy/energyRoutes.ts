import {
  type ChargeEventRow,
  chargeEventSchema,
  type EnergyStoreRow,
  energyStoreEditSchema,
  type NewEnergyStore,
  newEnergyStoreSchema,
  powerEventSchema,
  routes,
} from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { EnergyStoreDbRow } from "../../database/models/energyStores";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { requireJob, requireNetOfJob, requirePositionOfJob } from "../../records/ownership";

/** Energy stores, the log of what was charged, drained and measured on them, and the way to mains. */
export function energyRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  const readStore = async (id: string, transaction: Transaction): Promise<EnergyStoreRow> => {
    const row = (await models.energyStores.findByPk(id, { transaction, raw: true })) as unknown as EnergyStoreDbRow;
    const { jobId: _, ...store } = row;
    return store;
  };

  /** What holds the charge, a part or a net, must be on the job. */
  async function requireHolder(
    jobId: string,
    { positionId, netId }: Pick<NewEnergyStore, "positionId" | "netId">,
    transaction: Transaction,
  ): Promise<void> {
    if (positionId) await requirePositionOfJob(database, jobId, positionId, transaction);
    if (netId) await requireNetOfJob(database, jobId, netId, transaction);
  }

  router.post(routes.energyStores, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(newEnergyStoreSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `store ${jobId}`, body },
      async (transaction) => {
        await requireJob(database, jobId, transaction);
        await requireHolder(jobId, body, transaction);
        await models.energyStores.create({ ...body, jobId }, { transaction });
        return readStore(body.id, transaction);
      },
      (transaction) => readStore(body.id, transaction),
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.patch(routes.energyStore, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const storeId = idParameter(request.params.storeId);
    const body = parseBody(energyStoreEditSchema, request.body);
    const { result } = await writeOnce(
      database,
      now,
      { id: body.writeId, kind: `store ${storeId}`, body },
      async (transaction) => {
        await requireHolder(jobId, body.values, transaction);
        const key = { id: storeId, version: body.version, scope: { jobId } };
        await updateFromVersion(models.energyStores, key, body.values, transaction);
        return readStore(storeId, transaction);
      },
      (transaction) => readStore(storeId, transaction),
    );
    response.json(result);
  });

  router.post(routes.chargeEvents, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body: ChargeEventRow = parseBody(chargeEventSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `charge ${jobId}`, body },
      async (transaction) => {
        await requireJob(database, jobId, transaction);
        if (body.storeId && !(await models.energyStores.findOne({ where: { id: body.storeId, jobId }, transaction }))) {
          throw new HttpProblem("conflict", "The energy store is not on this job.");
        }
        await models.chargeEvents.create({ ...body, jobId, at: new Date(body.at) }, { transaction });
        return body;
      },
      async () => body,
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.post(routes.powerEvents, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(powerEventSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `power ${jobId}`, body },
      async (transaction) => {
        await requireJob(database, jobId, transaction);
        await models.powerEvents.create({ ...body, jobId, at: new Date(body.at) }, { transaction });
        return body;
      },
      async () => body,
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  return router;
}

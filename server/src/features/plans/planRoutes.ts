import { randomUUID } from "node:crypto";
import {
  type FittedPartRow,
  type NewTicks,
  planEditSchema,
  routes,
  type TickRow,
  ticksSchema,
} from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import { Op, type Transaction } from "sequelize";
import type { AppContext } from "../../appContext";
import type { CataloguePartRow } from "../../database/models/catalogueParts";
import type { ReplacementPlanRow } from "../../database/models/replacementPlans";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { toPlan } from "../../records/loadJobs";
import { requireJob, requirePositionOfJob } from "../../records/ownership";

/** What was chosen for each position, and the ticks of taking out and putting in. */
export function planRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();
  const { models } = database;

  router.put(routes.plan, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const positionId = idParameter(request.params.positionId);
    const body = parseBody(planEditSchema, request.body);
    const values = { cataloguePartId: body.cataloguePartId, ...body.overrides };
    const read = async (transaction: Transaction) =>
      toPlan((await storedPlan(positionId, transaction)) as ReplacementPlanRow);
    const { result } = await writeOnce(
      database,
      now,
      { id: body.writeId, kind: `plan ${positionId}`, body },
      async (transaction) => {
        await requirePositionOfJob(database, jobId, positionId, transaction);
        const stored = await storedPlan(positionId, transaction);
        if (stored) {
          await updateFromVersion(
            models.replacementPlans,
            { id: stored.id, version: body.version },
            values,
            transaction,
          );
        } else if (body.version > 0) {
          throw new HttpProblem("not_found", "There is no plan for this position yet.");
        } else await models.replacementPlans.create({ id: randomUUID(), positionId, ...values }, { transaction });
        return read(transaction);
      },
      read,
    );
    response.json(result);
  });

  async function storedPlan(positionId: string, transaction: Transaction): Promise<ReplacementPlanRow | null> {
    const row = await models.replacementPlans.findOne({ where: { positionId }, transaction, raw: true });
    return row as unknown as ReplacementPlanRow | null;
  }

  router.post(routes.ticks, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(ticksSchema, request.body);
    const positionIds = body.items.map((item) => item.positionId);
    const read = async (transaction: Transaction) => ({
      ticks: tickRows(body),
      fittedParts: (await models.fittedParts.findAll({
        where: { positionId: { [Op.in]: positionIds } },
        transaction,
        raw: true,
      })) as unknown as FittedPartRow[],
    });
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `ticks ${jobId}`, body },
      async (transaction) => {
        await requireJob(database, jobId, transaction);
        for (const item of body.items) {
          await requirePositionOfJob(database, jobId, item.positionId, transaction);
          await applyTick(body, item, transaction);
        }
        const rows = tickRows(body).map((tick) => ({ ...tick, jobId, at: new Date(tick.at), personId: body.personId }));
        await models.reworkTicks.bulkCreate(rows, { transaction });
        return read(transaction);
      },
      read,
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  type TickItem = NewTicks["items"][number];

  async function applyTick(body: NewTicks, item: TickItem, transaction: Transaction): Promise<void> {
    if (body.step === "removed") await (body.isDone ? removePart : putBack)(body, item, transaction);
    if (body.step === "fitted") await (body.isDone ? fitPart : takeOutAgain)(body, item, transaction);
  }

  async function removePart(body: NewTicks, item: TickItem, transaction: Transaction): Promise<void> {
    const [count] = await models.fittedParts.update(
      { removedAt: new Date(body.at) },
      { where: { positionId: item.positionId, origin: "found", removedAt: null }, transaction },
    );
    if (count !== 1) throw new HttpProblem("conflict", "There is no old part at this position to remove.");
  }

  async function putBack(_body: NewTicks, item: TickItem, transaction: Transaction): Promise<void> {
    const isFitted = await currentReplacement(item, transaction);
    if (isFitted) throw new HttpProblem("conflict", "A new part is fitted here: take that back first.");
    await models.fittedParts.update(
      { removedAt: null },
      { where: { positionId: item.positionId, origin: "found" }, transaction },
    );
  }

  async function fitPart(body: NewTicks, item: TickItem, transaction: Transaction): Promise<void> {
    const plan = await storedPlan(item.positionId, transaction);
    if (!plan?.cataloguePartId || !item.fittedPartId) {
      throw new HttpProblem("conflict", "Nothing was chosen for this position yet.");
    }
    if (await models.fittedParts.findOne({ where: { positionId: item.positionId, removedAt: null }, transaction })) {
      throw new HttpProblem("conflict", "The old part is still in this position: remove it first.");
    }
    const row = await models.catalogueParts.findByPk(plan.cataloguePartId, { transaction, raw: true });
    const part = row as unknown as CataloguePartRow;
    await models.fittedParts.create(
      {
        id: item.fittedPartId,
        positionId: item.positionId,
        capacitanceFarads: part.capacitanceFarads,
        ratedVolts: part.ratedVolts,
        temperatureClassCelsius: part.temperatureClassCelsius,
        capacitorClass: part.capacitorClass,
        diameterMetres: part.diameterMetres,
        heightMetres: part.heightMetres,
        datasheetEsrOhms: part.esrOhms,
        stripeDegrees: item.stripeDegrees,
        origin: "replacement",
        cataloguePartId: part.id,
        fittedAt: new Date(body.at),
      },
      { transaction },
    );
  }

  /** An untick: the new part leaves again, its readings stay with it. */
  async function takeOutAgain(body: NewTicks, item: TickItem, transaction: Transaction): Promise<void> {
    const current = await currentReplacement(item, transaction);
    if (!current) throw new HttpProblem("conflict", "There is no new part at this position.");
    await current.update({ removedAt: new Date(body.at) }, { transaction });
  }

  function currentReplacement(item: TickItem, transaction: Transaction) {
    const where = { positionId: item.positionId, origin: "replacement" as const, removedAt: null };
    return models.fittedParts.findOne({ where, transaction });
  }

  return router;
}

function tickRows(body: NewTicks): TickRow[] {
  return body.items.map(({ id, positionId }) => ({
    id,
    positionId,
    step: body.step,
    isDone: body.isDone,
    at: body.at,
  }));
}

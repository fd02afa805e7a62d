import { type FactBody, type FactKind, readingUnder, testedAs } from "@pale-cap/contract";
import { Op } from "sequelize";
import { audit } from "../audit/audit";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { factMoment } from "./facts";
import { onWire, toPowerEvent, withoutJob } from "./loadJobs";
import { requirePartOfJob, requirePhotoOfJob, requirePositionOfJob, requireTarget } from "./ownership";
import { applyTick } from "./reworkActs";
import { simulatedHere } from "./simulated";

/** How facts of one kind are stored, and what is answered of them. */
export interface FactHandler<K extends FactKind> {
  store(scope: Scope, jobId: string, body: FactBody<K>): Promise<void>;
  /** As stored: the rows of a body, with their places in the order. */
  rows(scope: Scope, jobId: string, body: FactBody<K>): Promise<unknown>;
}

const idsOf = (items: readonly { readonly id: string }[]) => ({ id: { [Op.in]: items.map((one) => one.id) } });
const inOrder: [string, string][] = [["sequence", "ASC"]];

/** Every kind of fact; facts are only ever added. */
export const factHandlers: { readonly [K in FactKind]: FactHandler<K> } = {
  reading: {
    async store(scope, jobId, { clockId, measuredAt, ...body }) {
      await requireTarget(scope, jobId, body);
      if (body.fittedPartId) await requirePartOfJob(scope, jobId, body.fittedPartId);
      if (body.supersedesId) await requireSupersedable(scope, jobId, body.supersedesId);
      const isSimulated = await simulatedHere(scope, body);
      const moment = await factMoment(scope, clockId);
      await scope.rows.readings.insert({ ...body, isSimulated, ...moment, jobId, measuredAt: new Date(measuredAt) });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.readings.first({ id })),
  },
  signs: {
    async store(scope, jobId, { observations, fittedPartId, positionId = null, observedAt, clockId, personId }) {
      if (fittedPartId) await requirePartOfJob(scope, jobId, fittedPartId);
      if (positionId) await requirePositionOfJob(scope, jobId, positionId);
      const common = { ...(await factMoment(scope, clockId)), jobId, fittedPartId, positionId, personId };
      await scope.rows.signObservations.insertAll(
        observations.map((seen) => ({ ...common, ...seen, observedAt: new Date(observedAt) })),
      );
    },
    rows: async (scope, _jobId, { observations }) =>
      many(await scope.rows.signObservations.all(idsOf(observations), inOrder)),
  },
  overrule: {
    async store(scope, jobId, { clockId, at, ...body }) {
      await requirePartOfJob(scope, jobId, body.fittedPartId);
      const moment = await factMoment(scope, clockId);
      await scope.rows.verdictOverrules.insert({ ...body, ...moment, jobId, at: new Date(at) });
      const { fittedPartId: subject, verdict } = body;
      await audit(scope, "verdict_overruled", { jobId, subject, details: { verdict } });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.verdictOverrules.first({ id })),
  },
  charge: {
    async store(scope, jobId, { clockId, at, ...body }) {
      if (body.storeId && !(await scope.rows.energyStores.has({ id: body.storeId, jobId }))) {
        throw new HttpProblem("conflict", "The energy store is not on this job.");
      }
      await simulatedHere(scope, body);
      const moment = await factMoment(scope, clockId);
      await scope.rows.chargeEvents.insert({ ...body, ...readingUnder(body), ...moment, jobId, at: new Date(at) });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.chargeEvents.first({ id })),
  },
  power: {
    async store(scope, jobId, { clockId, at, ...body }) {
      const moment = await factMoment(scope, clockId);
      const { values: checkValues, ...tested } = testedAs({ ...body, clockId, at });
      await scope.rows.powerEvents.insert({ ...body, ...tested, checkValues, ...moment, jobId, at: new Date(at) });
      if (body.kind === "gate_overruled") {
        await audit(scope, "power_gate_overruled", { jobId, subject: body.id });
      }
    },
    rows: async (scope, _jobId, { id }) => {
      const row = await scope.rows.powerEvents.first({ id });
      return one(row && toPowerEvent(row));
    },
  },
  ticks: {
    async store(scope, jobId, { items, step, isDone, at, clockId, personId }) {
      const moment = await factMoment(scope, clockId);
      for (const item of items) {
        await requirePositionOfJob(scope, jobId, item.positionId);
        // A tick for a closed job is kept and carried out when the job is opened.
        if (!moment.cameAfterClosing) await applyTick(scope, { ...item, step, isDone, at: new Date(at) });
      }
      const common = { ...moment, jobId, step, isDone, at: new Date(at), personId };
      await scope.rows.reworkTicks.insertAll(items.map((item) => ({ ...common, ...item })));
    },
    rows: async (scope, _jobId, { items }) => ({
      ticks: many(await scope.rows.reworkTicks.all(idsOf(items), inOrder)),
      fittedParts: onWire(
        await scope.rows.fittedParts.all({ positionId: { [Op.in]: items.map((item) => item.positionId) } }, [
          ["id", "ASC"],
        ]),
      ),
    }),
  },
  return: {
    async store(scope, jobId, { clockId, at, ...body }) {
      if (!(await scope.rows.teardownSteps.has({ id: body.stepId, jobId }))) {
        throw new HttpProblem("conflict", "This step of taking apart is not on the job.");
      }
      const moment = await factMoment(scope, clockId);
      await scope.rows.teardownReturns.insert({ ...body, ...moment, jobId, at: new Date(at) });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.teardownReturns.first({ id })),
  },
  act: {
    async store(scope, jobId, { clockId, at, ...body }) {
      if (body.photoId) await requirePhotoOfJob(scope, jobId, body.photoId);
      const moment = await factMoment(scope, clockId);
      await scope.rows.jobActs.insert({ ...body, ...moment, jobId, at: new Date(at) });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.jobActs.first({ id })),
  },
  quote: {
    async store(scope, jobId, { clockId, at, ...body }) {
      const moment = await factMoment(scope, clockId);
      await scope.rows.quotes.insert({ ...body, ...moment, jobId, at: new Date(at) });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.quotes.first({ id })),
  },
  quoteAnswer: {
    async store(scope, jobId, { clockId, at, ...body }) {
      if (!(await scope.rows.quotes.has({ id: body.quoteId, jobId }))) {
        throw new HttpProblem("conflict", "The quote that was answered is not on this job.");
      }
      const moment = await factMoment(scope, clockId);
      await scope.rows.quoteAnswers.insert({ ...body, ...moment, jobId, at: new Date(at) });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.quoteAnswers.first({ id })),
  },
  acceptance: {
    async store(scope, jobId, { clockId, acceptedAt, ...body }) {
      const moment = await factMoment(scope, clockId);
      await scope.rows.openPointAcceptances.insert({ ...body, ...moment, jobId, acceptedAt: new Date(acceptedAt) });
      await audit(scope, "open_point_accepted", { jobId, subject: body.key });
    },
    rows: async (scope, _jobId, { id }) => one(await scope.rows.openPointAcceptances.first({ id })),
  },
};

function one<Row extends { jobId: string }>(row: Row | null): unknown {
  if (!row) throw new HttpProblem("not_found", "This is not stored.");
  return onWire(withoutJob(row));
}

const many = <Row extends { jobId: string }>(rows: readonly Row[]): unknown => onWire(rows.map(withoutJob));

/** A reading is superseded once at most, and only by one of the same job. */
async function requireSupersedable(scope: Scope, jobId: string, readingId: string): Promise<void> {
  if (!(await scope.rows.readings.has({ id: readingId, jobId }))) {
    throw new HttpProblem("conflict", "The reading to be corrected is not on this job.");
  }
  if (await scope.rows.readings.has({ supersedesId: readingId })) {
    throw new HttpProblem("conflict", "This reading was corrected already.", {
      errors: [{ path: "supersedesId", code: "corrected_already" }],
    });
  }
}

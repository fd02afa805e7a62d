import { overruleSchema, routes, verdictSummarySchema } from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";
import { writeOnce } from "../../http/idempotency";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { loadJob } from "../../records/loadJobs";
import { requirePartOfJob } from "../../records/ownership";

/** A person's word on verdicts: overruling one, and the summary in other words. */
export function verdictRoutes({ database, now }: AppContext): ExpressRouter {
  const router = Router();

  router.post(routes.overrules, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(overruleSchema, request.body);
    const { isNew, result } = await writeOnce(
      database,
      now,
      { id: body.id, kind: `overrule ${jobId}`, body },
      async (transaction) => {
        await requirePartOfJob(database, jobId, body.fittedPartId, transaction);
        const row = { ...body, jobId, at: new Date(body.at) };
        await database.models.verdictOverrules.create(row, { transaction });
        return body;
      },
      async () => body,
    );
    response.status(isNew ? 201 : 200).json(result);
  });

  router.put(routes.verdictSummary, async (request, response) => {
    const jobId = idParameter(request.params.jobId);
    const body = parseBody(verdictSummarySchema, request.body);
    const { result } = await writeOnce(
      database,
      now,
      { id: body.writeId, kind: `verdict-summary ${jobId}`, body },
      async (transaction) => {
        const text = body.text?.trim() || null;
        const at = { id: jobId, version: body.version };
        await updateFromVersion(database.models.jobs, at, { verdictSummary: text }, transaction);
        return (await loadJob(database, jobId, transaction)).job;
      },
      async (transaction) => (await loadJob(database, jobId, transaction)).job,
    );
    response.json(result);
  });

  return router;
}

import { newTeardownStepSchema, routes, type TeardownStepRow, teardownStepEditSchema } from "@pale-cap/contract";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { requirePhotoOfJob } from "../../records/ownership";

/** The log of taking apart; what went back in is a fact. */
export const teardownRoutes = (): readonly Route[] => [
  write({
    method: "post",
    path: routes.teardownSteps,
    kind: "teardown",
    right: "rework",
    creates: true,
    schema: newTeardownStepSchema,
    write: async (scope, { body, params }) => {
      const jobId = params.jobId as string;
      if (body.photoId) await requirePhotoOfJob(scope, jobId, body.photoId);
      // The job's row is held: two steps at once cannot get the same number.
      const last = await scope.rows.teardownSteps.first({ jobId }, [["number", "DESC"]]);
      const doneAt = new Date(body.doneAt);
      await scope.rows.teardownSteps.insert({ ...body, jobId, number: (last?.number ?? 0) + 1, doneAt });
    },
    answer: async (scope, { body }) => (await stepOf(scope, body.id)).step,
  }),
  write({
    method: "patch",
    path: routes.teardownStep,
    kind: "teardown edit",
    right: "rework",
    schema: teardownStepEditSchema,
    write: async (scope, { body, params }) => {
      const { jobId, stepId } = params as { jobId: string; stepId: string };
      if (body.values.photoId) await requirePhotoOfJob(scope, jobId, body.values.photoId);
      const key = { id: stepId, version: body.version, where: { jobId } };
      await updateFromVersion(scope.rows.teardownSteps, key, body.values);
    },
    answer: async (scope, { params }) => {
      const { step, isRemoved } = await stepOf(scope, params.stepId as string);
      return { ...step, isRemoved };
    },
  }),
];

async function stepOf(
  scope: Scope,
  id: string,
): Promise<{ readonly step: TeardownStepRow; readonly isRemoved: boolean }> {
  const row = await scope.rows.teardownSteps.first({ id });
  if (!row) throw new HttpProblem("not_found", "There is no such step.");
  const { jobId: _, personId: __, isRemoved, doneAt, ...step } = row;
  return { step: { ...step, doneAt: doneAt.toISOString() }, isRemoved };
}

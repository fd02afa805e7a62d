import { randomUUID } from "node:crypto";
import { createJobSchema, exportSchema, type Intake, intakeEditSchema, routes } from "@pale-cap/contract";
import { audit } from "../../audit/audit";
import type { Scope } from "../../database/scope";
import { type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { assumedBoard } from "../../records/assumedBoard";
import { loadJob } from "../../records/loadJobs";
import { markStale } from "../../summaries/markStale";

/** Jobs: taken in, described, read, and what left in a file. */
export const jobRoutes = (): readonly Route[] => [
  read({
    path: routes.job,
    right: "read",
    read: (scope, { params }) => loadJob(scope, params.jobId as string),
  }),
  write({
    method: "post",
    path: routes.jobs,
    kind: "job",
    right: "take_in",
    creates: true,
    schema: createJobSchema,
    write: async (scope, { body: { isPractice = false, ...body } }) => {
      const realm = isPractice ? "practice" : scope.realm;
      const made = { realm, takesSimulated: isPractice, createdAt: scope.now, symptoms: [] } as const;
      await scope.rows.jobs.insert({ ...body, ...made, symptoms: [] });
      await scope.rows.boards.insert({ id: randomUUID(), jobId: body.id, ...assumedBoard });
      await markStale(scope, body.id);
    },
    answer: (scope, { body }) => loadJob(scope, body.id),
  }),
  write({
    method: "patch",
    path: routes.intake,
    kind: "intake",
    right: "take_in",
    schema: intakeEditSchema,
    write: async (scope, { body, params }) => {
      const jobId = params.jobId as string;
      const { customerName, customerContact, ownersWords, ...values } = body.values;
      await updateFromVersion(scope.rows.jobs, { id: jobId, version: body.version }, values);
      await storeCustomer(scope, jobId, body.values);
    },
    answer: async (scope, { params }) => (await loadJob(scope, params.jobId as string)).job,
  }),
  write({
    method: "post",
    path: routes.exports,
    kind: "export",
    right: "export",
    isTakenWhenClosed: true,
    creates: true,
    schema: exportSchema,
    write: (scope, { body, params }) => audit(scope, "exported", { jobId: params.jobId, subject: body.what }),
    answer: async (_scope, { body }) => ({ id: body.id }),
  }),
];

/** The customer's name and contact stand apart from the job; the owner's words go with them. */
async function storeCustomer({ rows }: Scope, jobId: string, intake: Intake): Promise<void> {
  const link = await rows.jobCustomers.first({ jobId });
  const hasCustomer = intake.customerName !== null || intake.customerContact !== null;
  let customerId = link?.customerId ?? null;
  if (hasCustomer || customerId !== null) {
    customerId ??= randomUUID();
    await rows.customers.upsert({ id: customerId, name: intake.customerName, contact: intake.customerContact });
  }
  if (link || customerId !== null || intake.ownersWords !== null) {
    await rows.jobCustomers.upsert({ jobId, customerId, ownersWords: intake.ownersWords });
  }
}

import { randomUUID } from "node:crypto";
import {
  type CreateJob,
  createJobSchema,
  exportSchema,
  type Intake,
  intakeEditSchema,
  routes,
} from "@pale-cap/contract";
import { Op } from "sequelize";
import { audit } from "../../audit/audit";
import type { Scope } from "../../database/scope";
import { type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { assumedBoard } from "../../records/assumedBoard";
import { copyBoards } from "../../records/boardCopies";
import { formerJob } from "../../records/formerJob";
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
    write: async (scope, { body: { isPractice = false, comebackOf = null, ...body } }) => {
      if (comebackOf !== null) return takeBack(scope, body, comebackOf);
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

/** The same unit again: its device, label, board as it stands and customer come from the job that it was handed over with. */
async function takeBack(scope: Scope, body: CreateJob, comebackOf: string): Promise<void> {
  const former = await formerJob(scope, comebackOf);
  const { labelPlate, topology, purpose, feed } = former.intakeDetails;
  const { deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, realm, takesSimulated } = former;
  await scope.rows.jobs.insert({
    ...{ id: body.id, complaint: body.complaint, personId: body.personId, createdAt: scope.now, symptoms: [] },
    ...{ deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, realm, takesSimulated, comebackOf },
    intakeDetails: JSON.parse(JSON.stringify({ labelPlate, topology, purpose, feed })),
  });
  await copyBoards(scope, former.id, body.id, "standing");
  const link = await scope.rows.jobCustomers.first({ jobId: former.id });
  if (link?.customerId) {
    await scope.rows.jobCustomers.insert({ jobId: body.id, customerId: link.customerId, ownersWords: null });
  }
  await markStale(scope, body.id);
}

/** The customer's name and contact stand apart from the job; the owner's words go with them. */
async function storeCustomer({ rows }: Scope, jobId: string, intake: Intake): Promise<void> {
  const link = await rows.jobCustomers.first({ jobId });
  const hasCustomer = intake.customerName !== null || intake.customerContact !== null;
  let customerId = link?.customerId ?? null;
  // What was erased stays erased: whoever is noted now is somebody new.
  const isErased = customerId !== null && (await rows.customers.has({ id: customerId, erasedAt: { [Op.ne]: null } }));
  if (isErased && hasCustomer) customerId = null;
  if (hasCustomer || (customerId !== null && !isErased)) {
    customerId ??= randomUUID();
    await rows.customers.upsert({ id: customerId, name: intake.customerName, contact: intake.customerContact });
  }
  if (link || customerId !== null || intake.ownersWords !== null) {
    await rows.jobCustomers.upsert({ jobId, customerId, ownersWords: intake.ownersWords });
  }
}

import { type CustomerState, erasureSchema, routes } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import { audit } from "../../audit/audit";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { live, type Route, write } from "../../http/route";
import { backupMoments } from "../../records/backupFolder";
import { eraseCustomer, noteErasure } from "../../records/erasures";

/** Whose job it is, and the erasure of that customer on request. */
export function customerRoutes({ database, backupFolder, now }: AppContext): readonly Route[] {
  return [
    live({
      method: "get",
      path: routes.customer,
      right: "read",
      live: async (_request, response, { params }) => {
        const moments = await backupMoments(backupFolder);
        response.json(await database.read(now(), (scope) => stateOf(scope, params.jobId as string, moments)));
      },
    }),
    write({
      method: "post",
      path: routes.erasure,
      kind: "erasure",
      right: "erase",
      isTakenWhenClosed: true,
      schema: erasureSchema,
      write: async (scope, { body, params }) => {
        const jobId = params.jobId as string;
        const link = await scope.rows.jobCustomers.first({ jobId });
        if (link?.customerId !== body.customerId) {
          throw new HttpProblem("conflict", "This is not the customer who is noted with the job now. Look again.");
        }
        await eraseCustomer(scope, body.customerId);
        await audit(scope, "erased", { jobId, subject: body.customerId });
      },
      answer: (scope, { params }) => stateOf(scope, params.jobId as string, []),
      after: ({ body }) => noteErasure(backupFolder, body.customerId, now()),
    }),
  ];
}

async function stateOf(scope: Scope, jobId: string, backups: readonly string[]): Promise<CustomerState> {
  const link = await scope.rows.jobCustomers.first({ jobId });
  const customer = link?.customerId ? await scope.rows.customers.first({ id: link.customerId }) : null;
  if (!customer) return { customerId: null, erasedAt: null, jobNumbers: [], photoCount: 0, backupsAt: [] };
  const jobs = await scope.sql<{ number: number; photos: number }>(
    `SELECT j.number, (SELECT count(*)::int FROM photos p WHERE p.job_id = j.id) AS photos
     FROM jobs j JOIN job_customers c ON c.job_id = j.id WHERE c.customer_id = $1 ORDER BY j.number`,
    [customer.id],
  );
  return {
    customerId: customer.id,
    erasedAt: customer.erasedAt?.toISOString() ?? null,
    jobNumbers: jobs.map((one) => one.number),
    photoCount: jobs.reduce((sum, one) => sum + one.photos, 0),
    backupsAt: backups.filter((at) => customer.erasedAt === null || at < customer.erasedAt.toISOString()),
  };
}

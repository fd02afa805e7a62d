import { randomUUID } from "node:crypto";
import { benchJobSchema, instrumentKinds, newWorkbenchSchema, routes, workbenchEditSchema } from "@pale-cap/contract";
import { kindLabels } from "@pale-cap/wording";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { setUpInstruments } from "../../instruments/setUpInstruments";
import { benchPlaces } from "../../records/benchPlaces";
import { loadWorkbenches } from "../../records/loadInstruments";
import { refuseTooMany } from "./refuseTooMany";

/** Loads that a simulated bench comes with: two rails at once want two. */
const simulatedLoads = 2;

/** The places of work, each with instruments of its own. */
export function workbenchRoutes(context: AppContext): readonly Route[] {
  const one = async (scope: Scope, id: string) => (await loadWorkbenches(scope)).find((bench) => bench.id === id);
  return [
    read({ path: routes.workbenches, right: "read", read: (scope) => loadWorkbenches(scope) }),
    read({ path: routes.benchPlaces, right: "read", read: benchPlaces }),
    write({
      method: "put",
      path: routes.benchJob,
      kind: "bench job",
      right: "measure",
      isTakenWhenClosed: true,
      schema: benchJobSchema,
      write: async (scope, { params }) => {
        const bench = await scope.rows.benches.first({ id: params.benchId as string });
        if (!bench || bench.practiceJobId !== null) throw new HttpProblem("conflict", "There is no such bench.");
        await scope.sql(
          `INSERT INTO bench_jobs (job_id, bench_id, since) VALUES ($1, $2, $3)
           ON CONFLICT (job_id) DO UPDATE SET bench_id = EXCLUDED.bench_id, since = EXCLUDED.since RETURNING job_id`,
          [params.jobId, bench.id, scope.now],
        );
      },
      answer: (scope) => benchPlaces(scope),
    }),
    write({
      method: "delete",
      path: routes.benchJob,
      kind: "bench job off",
      right: "measure",
      isTakenWhenClosed: true,
      schema: benchJobSchema,
      write: async (scope, { params }) => {
        await scope.sql("DELETE FROM bench_jobs WHERE job_id = $1 AND bench_id = $2 RETURNING job_id", [
          params.jobId,
          params.benchId,
        ]);
      },
      answer: (scope) => benchPlaces(scope),
    }),
    write({
      method: "post",
      path: routes.workbenches,
      kind: "bench",
      right: "set_up_instruments",
      creates: true,
      schema: newWorkbenchSchema,
      write: async (scope, { body: { id, name, hasSimulated } }) => {
        const [last] = (await loadWorkbenches(scope)).slice(-1);
        await scope.rows.benches.insert({ id, name, version: 1, simulatedSet: (last?.simulatedSet ?? -1) + 1 });
        if (!hasSimulated) return;
        const kinds = instrumentKinds.flatMap((kind) =>
          Array.from({ length: kind === "load" ? simulatedLoads : 1 }, (_, n) => ({ kind, channel: n + 1 })),
        );
        await refuseTooMany(scope, kinds.length);
        await scope.rows.instruments.insertAll(
          kinds.map(({ kind, channel }) => ({
            ...{ id: randomUUID(), version: 1, kind, channel, benchId: id },
            name: `${kindLabels[kind]}${channel > 1 ? ` ${channel}` : ""}, ${name}`.slice(0, 40),
            ...{ driver: "bench_lines" as const, transport: "simulated" as const, isEnabled: true, isRemoved: false },
            ...{ host: null, port: null, devicePath: null, baudRate: null },
          })),
        );
      },
      answer: (scope, { body }) => one(scope, body.id),
      after: () => setUpInstruments(context),
    }),
    write({
      method: "patch",
      path: routes.workbench,
      kind: "bench edit",
      right: "set_up_instruments",
      schema: workbenchEditSchema,
      write: ({ rows }, { body, params }) =>
        updateFromVersion(
          rows.benches,
          { id: params.benchId as string, version: body.version, where: {} },
          { name: body.name },
        ),
      answer: (scope, { params }) => one(scope, params.benchId as string),
    }),
  ];
}

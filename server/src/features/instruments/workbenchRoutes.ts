import { randomUUID } from "node:crypto";
import { instrumentKinds, newWorkbenchSchema, routes, workbenchEditSchema } from "@pale-cap/contract";
import { kindLabels } from "@pale-cap/wording";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { setUpInstruments } from "../../instruments/setUpInstruments";
import { loadWorkbenches } from "../../records/loadInstruments";
import { refuseTooMany } from "./refuseTooMany";

/** Loads that a simulated bench comes with: two rails at once want two. */
const simulatedLoads = 2;

/** The places of work, each with instruments of its own. */
export function workbenchRoutes(context: AppContext): readonly Route[] {
  const one = async (scope: Scope, id: string) => (await loadWorkbenches(scope)).find((bench) => bench.id === id);
  return [
    read({ path: routes.workbenches, right: "read", read: (scope) => loadWorkbenches(scope) }),
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

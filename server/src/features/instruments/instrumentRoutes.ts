import {
  type Instrument,
  type InstrumentAct,
  type InstrumentValues,
  instrumentActSchema,
  instrumentEditSchema,
  newInstrumentSchema,
  removalSchema,
  routes,
} from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import type { InstrumentRow } from "../../database/models/instruments";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { callerFor, live, type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { requireOwnInstruments } from "../../instruments/ownBench";
import { setUpInstruments } from "../../instruments/setUpInstruments";
import { loadInstruments, loadWorkbenches } from "../../records/loadInstruments";
import { refuseTooMany } from "./refuseTooMany";
import { refuseStrangeAct } from "./strangeActs";

/** The shop's instruments: set-up, and what a person does with them. Nothing here is a reading. */
export function instrumentRoutes(context: AppContext): readonly Route[] {
  const { instruments } = context;
  const after = () => setUpInstruments(context);
  const refuseHeld = (id: string) => {
    if (instruments.runOf(id) === null) return;
    throw new HttpProblem("conflict", "A run holds this instrument. It can be set up when the run is over.");
  };
  const one = async (scope: Scope, id: string): Promise<Instrument | undefined> =>
    (await loadInstruments(scope)).find((instrument) => instrument.id === id);
  return [
    read({
      path: routes.instruments,
      right: "read",
      read: async (scope) => ({ instruments: await loadInstruments(scope), states: instruments.states }),
    }),
    write({
      method: "post",
      path: routes.instruments,
      kind: "instrument",
      right: "set_up_instruments",
      creates: true,
      schema: newInstrumentSchema,
      write: async (scope, { body }) => {
        await refuseTooMany(scope);
        await scope.rows.instruments.insert({
          ...(await placed(scope, body.values)),
          id: body.id,
          version: 1,
          isRemoved: false,
        });
      },
      answer: (scope, { body }) => one(scope, body.id),
      after,
    }),
    write({
      method: "patch",
      path: routes.instrument,
      kind: "instrument edit",
      right: "set_up_instruments",
      schema: instrumentEditSchema,
      write: async (scope, { body, params }) => {
        refuseHeld(params.instrumentId as string);
        const key = { id: params.instrumentId as string, version: body.version, where: { isRemoved: false } };
        const { channel, benchId, ...values } = body.values;
        // What an older page does not know stays as it is.
        const moved = benchId == null ? {} : await placed(scope, { ...body.values, benchId });
        await updateFromVersion(scope.rows.instruments, key, { ...values, ...moved, ...(channel ? { channel } : {}) });
      },
      answer: (scope, { params }) => one(scope, params.instrumentId as string),
      after,
    }),
    write({
      method: "delete",
      path: routes.instrument,
      kind: "instrument removal",
      right: "set_up_instruments",
      schema: removalSchema(),
      write: ({ rows }, { body, params }) => {
        refuseHeld(params.instrumentId as string);
        const key = { id: params.instrumentId as string, version: body.version, where: { isRemoved: false } };
        return updateFromVersion(rows.instruments, key, { isRemoved: true });
      },
      answer: async () => undefined,
      after,
    }),
    live({
      method: "post",
      path: routes.instrumentActs,
      right: "measure",
      schema: instrumentActSchema,
      live: async (request, response, { body, params }) => {
        const id = params.instrumentId as string;
        await requireOwnInstruments(context, callerFor(request, null, context.now()), [id]);
        const state = instruments.states.find((known) => known.id === id);
        const act = body as InstrumentAct;
        if (state) refuseStrangeAct(act, state.kind);
        await instruments.act(id, act);
        response.json(instruments.states.find((known) => known.id === id) ?? null);
      },
    }),
    live({
      method: "get",
      path: routes.instrumentCapture,
      right: "measure",
      live: async (request, response, { params }) => {
        await requireOwnInstruments(context, callerFor(request, null, context.now()), [params.instrumentId as string]);
        response.json(await instruments.capture(params.instrumentId as string));
      },
    }),
  ];
}

/** On the bench that was named, else on the shop's first. */
async function placed(scope: Scope, values: InstrumentValues): Promise<Partial<InstrumentRow>> {
  const benches = await loadWorkbenches(scope);
  const bench = values.benchId == null ? benches[0] : benches.find((one) => one.id === values.benchId);
  if (!bench) throw new HttpProblem("conflict", "There is no such bench.");
  return { ...values, benchId: bench.id, channel: values.channel ?? 1 };
}

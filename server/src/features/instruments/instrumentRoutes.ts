import {
  type Instrument,
  type InstrumentAct,
  instrumentActSchema,
  instrumentEditSchema,
  newInstrumentSchema,
  removalSchema,
  routes,
} from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { live, type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { setUpInstruments } from "../../instruments/setUpInstruments";
import { loadInstruments } from "../../records/loadInstruments";
import { loadRuleValues } from "../../records/rules";
import { refuseStrangeAct } from "./strangeActs";

/** The shop's instruments: set-up, and what a person does with them. Nothing here is a reading. */
export function instrumentRoutes(context: AppContext): readonly Route[] {
  const { instruments } = context;
  const after = () => setUpInstruments(context);
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
        await scope.rows.instruments.insert({ ...body.values, id: body.id, version: 1, isRemoved: false });
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
      write: ({ rows }, { body, params }) => {
        const key = { id: params.instrumentId as string, version: body.version, where: { isRemoved: false } };
        return updateFromVersion(rows.instruments, key, body.values);
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
      live: async (_request, response, { body, params }) => {
        const id = params.instrumentId as string;
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
      live: async (_request, response, { params }) => {
        response.json(await instruments.capture(params.instrumentId as string));
      },
    }),
  ];
}

/** Each one keeps a line open: a house rule says how many. */
async function refuseTooMany(scope: Scope): Promise<void> {
  const most = (await loadRuleValues(scope))["instruments.mostCount"];
  const count = await scope.rows.instruments.count({ isRemoved: false });
  if (count < most) return;
  throw new HttpProblem("conflict", `There are ${count} instruments already; the house rule allows ${most}.`);
}

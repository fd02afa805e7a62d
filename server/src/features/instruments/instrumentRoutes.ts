import {
  type BenchSupply,
  benchSupplySchema,
  type Instrument,
  type InstrumentAct,
  instrumentActSchema,
  instrumentEditSchema,
  instrumentFunctions,
  instrumentSettings,
  newInstrumentSchema,
  routes,
} from "@pale-cap/contract";
import { type Router as ExpressRouter, Router } from "express";
import type { AppContext } from "../../appContext";
import { writeOnce } from "../../http/idempotency";
import { HttpProblem } from "../../http/problems";
import { idParameter, parseBody } from "../../http/validate";
import { updateFromVersion } from "../../http/versions";
import { loadInstruments } from "../../records/loadInstruments";

const heartbeatMilliseconds = 15_000;

/** The shop's instruments: set-up, what they say now, and what a person does with them. Nothing here is a reading. */
export function instrumentRoutes({ database, now, instruments }: AppContext): ExpressRouter {
  const router = Router();
  const { models, sequelize } = database;

  router.get(routes.instruments, async (_request, response) => {
    response.json({ instruments: await loadInstruments(database), states: instruments.states });
  });

  router.get(routes.instrumentStream, (request, response) => {
    response.writeHead(200, {
      "Content-Type": "text/event-stream",
      "Cache-Control": "no-store",
      "X-Accel-Buffering": "no",
    });
    const send = (data: unknown) => response.write(`data: ${JSON.stringify(data)}\n\n`);
    for (const state of instruments.states) send(state);
    const stopListening = instruments.listen(send);
    const heartbeat = setInterval(() => response.write(": still here\n\n"), heartbeatMilliseconds);
    request.on("close", () => {
      clearInterval(heartbeat);
      stopListening();
    });
  });

  router.post(routes.instruments, async (request, response) => {
    const body = parseBody(newInstrumentSchema, request.body);
    const { isNew } = await writeOnce(
      database,
      now,
      { id: body.id, kind: "instrument", body },
      async (transaction) => {
        await models.instruments.create({ ...body.values, id: body.id, version: 1, isRemoved: false }, { transaction });
      },
      async () => undefined,
    );
    response.status(isNew ? 201 : 200).json(await applySetUp(body.id));
  });

  router.patch(routes.instrument, async (request, response) => {
    const id = idParameter(request.params.instrumentId);
    const { version, values } = parseBody(instrumentEditSchema, request.body);
    await sequelize.transaction((transaction) =>
      updateFromVersion(models.instruments, { id, version }, values, transaction),
    );
    response.json(await applySetUp(id));
  });

  router.delete(routes.instrument, async (request, response) => {
    const id = idParameter(request.params.instrumentId);
    await models.instruments.update({ isRemoved: true }, { where: { id } });
    await applySetUp(id);
    response.status(204).end();
  });

  router.post(routes.instrumentActs, async (request, response) => {
    const id = idParameter(request.params.instrumentId);
    const act = parseBody(instrumentActSchema, request.body) as InstrumentAct;
    const state = instruments.states.find((one) => one.id === id);
    if (state) refuseStrangeAct(act, state.kind);
    await instruments.act(id, act);
    response.json(instruments.states.find((one) => one.id === id) ?? null);
  });

  router.get(routes.instrumentCapture, async (request, response) => {
    response.json(await instruments.capture(idParameter(request.params.instrumentId)));
  });

  router.get(routes.benchSupply, async (_request, response) => {
    response.json(await supply());
  });

  router.put(routes.benchSupply, async (request, response) => {
    const { name } = parseBody(benchSupplySchema, request.body);
    const before = await supply();
    if (!before?.choices.some((one) => one.name === name))
      throw new HttpProblem("conflict", "There is no such supply.");
    // A command gives no answer; the question behind it waits until it was carried out.
    await instruments.askSimulated(`SYST:SCEN ${name}\nSYST:SCEN?`);
    response.json(await supply());
  });

  async function supply(): Promise<BenchSupply | null> {
    const card = await instruments.askSimulated("SYST:SCEN:CARD?");
    const list = await instruments.askSimulated("SYST:SCEN:LIST?");
    if (card === null || list === null) return null;
    try {
      return { ...JSON.parse(card), choices: JSON.parse(list) } as BenchSupply;
    } catch {
      throw new HttpProblem("conflict", "The simulated bench does not say which supply lies on it.");
    }
  }

  async function applySetUp(id: string): Promise<Instrument | undefined> {
    const all = await loadInstruments(database);
    instruments.setUp(all);
    return all.find((one) => one.id === id);
  }

  return router;
}

function refuseStrangeAct(act: InstrumentAct, kind: keyof typeof instrumentFunctions): void {
  if (act.function && !(instrumentFunctions[kind] as readonly string[]).includes(act.function)) {
    throw new HttpProblem("invalid_body", `This instrument does not read ${act.function}.`);
  }
  const strange = Object.entries(act.settings ?? {}).find(
    ([name, value]) =>
      !instrumentSettings[kind].includes(name) || (typeof value !== "string" && typeof value !== "number"),
  );
  if (strange) throw new HttpProblem("invalid_body", `This instrument has no switch “${strange[0]}”.`);
}

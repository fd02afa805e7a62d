import { type AddressInfo, createServer, type Server } from "node:net";
import { type RunningBench, startBench } from "@pale-cap/bench";
import type { Instrument, JobDetail, RunRow, RunSamples } from "@pale-cap/contract";
import { type RunPlan, runState } from "@pale-cap/core";
import { boardInsert, netValues, positionValues } from "@pale-cap/core/testing";
import { pino } from "pino";
import request from "supertest";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { Turns } from "../http/turns";
import { everyLine } from "../instruments/lineLeases";
import { setUpInstruments } from "../instruments/setUpInstruments";
import { makeJob, newId, openTestApp, type TestApp, testClock } from "../testing/testApp";
import { RunKeeper } from "./runKeeper";

let bench: RunningBench;
let test: TestApp;
let jobId: string;
const nets = { a: newId(), b: newId() };
const place = newId();
let all: readonly Instrument[];
const idOf = (name: string) => all.find((one) => one.name === name)?.id as string;
const stops: (() => void)[] = [];

/** A simulated bench on eight free ports. */
async function openBench(): Promise<RunningBench> {
  for (let tries = 0; ; tries++) {
    try {
      return await startBench(20_000 + 8 * Math.floor(Math.random() * 2500));
    } catch (error) {
      if (tries > 20) throw error;
    }
  }
}

beforeAll(async () => {
  bench = await openBench();
  test = await openTestApp({}, "shop", bench.basePort);
});
afterAll(async () => {
  await test.close();
  await bench.close();
});
beforeEach(async () => {
  bench.bench.choose("01-healthy");
  jobId = await makeJob(test.app, { isPractice: true });
  nets.a = newId();
  nets.b = newId();
  const rail = { ...netValues, section: "output" as const };
  const changes = [
    boardInsert("net", nets.a, { ...rail, name: "14 V", nominalVolts: 14, fullLoadAmps: 2.2 }),
    boardInsert("net", nets.b, { ...rail, name: "5 V", nominalVolts: 5, fullLoadAmps: 1.8 }),
    boardInsert("position", place, { ...positionValues, designator: "C11", netId: nets.a }),
  ];
  for (const change of changes) if (change.table === "position") change.id = newId();
  await request(test.app).post(`/api/jobs/${jobId}/board-edits`).send({ id: newId(), changes }).expect(200);
  await setUpInstruments({ database: test.database, instruments: test.instruments, now: () => new Date() });
  all = (await request(test.app).get("/api/instruments").expect(200)).body.instruments;
  await until(() => test.instruments.states.every((one) => one.status === "ready"));
});
afterEach(() => {
  for (const stop of stops.splice(0)) stop();
});

async function until(holds: () => boolean | Promise<boolean>, milliseconds = 15_000): Promise<void> {
  const end = Date.now() + milliseconds;
  while (!(await holds())) {
    if (Date.now() > end) throw new Error("It never came to that.");
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}

const planOf = (more: Partial<RunPlan> = {}): RunPlan => ({
  kind: "load_run",
  steps: [
    { loads: [amps(nets.a, 0), amps(nets.b, 0.18)], dwellSeconds: 1.5 },
    { loads: [amps(nets.a, 2.2), amps(nets.b, 0.18)], dwellSeconds: 1.5 },
  ],
  sampleSeconds: 0.5,
  rails: [
    {
      netId: nets.a,
      loadId: idOf("Electronic load"),
      lowVolts: 13.3,
      highVolts: 14.7,
      mostAmps: 2.42,
      heldVolts: null,
    },
    {
      netId: nets.b,
      loadId: idOf("Electronic load 2"),
      lowVolts: 4.75,
      highVolts: 5.25,
      mostAmps: 1.98,
      heldVolts: null,
    },
  ],
  mainsId: idOf("Mains source"),
  mostInputWatts: 80,
  ripple: { scopeId: idOf("Oscilloscope"), netId: nets.a, mostVolts: 0.5 },
  spots: [],
  mostKelvinPerMinute: 30,
  ...more,
});
function amps(netId: string, value: number) {
  return { netId, amps: value };
}
const begin = (plan: RunPlan, more: object = {}, id = newId()) =>
  request(test.app)
    .post(`/api/jobs/${jobId}/runs`)
    .send({ id, plan, switchesMains: true, isOverloadMeant: false, isCaseClosed: true, personId: null, ...more });
const tell = (runId: string, word: string) =>
  request(test.app).post(`/api/jobs/${jobId}/runs/${runId}/words`).send({ id: newId(), word, personId: null });
const runOf = async (id: string): Promise<RunRow> => {
  const found = (await request(test.app).get(`/api/jobs/${jobId}/runs`).expect(200)).body as readonly RunRow[];
  return found.find((one) => one.id === id) as RunRow;
};
const kinds = async (id: string) => (await runOf(id)).events.map((one) => one.kind);
/** Stored as ended, and its instruments let go: that follows a moment later. */
const ended = async (id: string) => {
  await until(async () => (await kinds(id)).includes("ended"));
  await until(() => test.instruments.states.every((one) => one.runId !== id));
};
const detail = async (): Promise<JobDetail> => (await request(test.app).get(`/api/jobs/${jobId}`).expect(200)).body;
const supply = () => bench.bench.supply.state;

describe("a load run", () => {
  it("goes through its steps, leaves readings of each, and switches off in its order", async () => {
    const id = newId();
    const { body } = await begin(planOf(), {}, id).expect(201);
    expect(body).toMatchObject({ id, isAttendedOnly: false, isSimulated: true });
    await until(() => supply().isMainsOn);
    await ended(id);
    expect(await kinds(id)).toEqual([
      ...["begun", "mains_on", "step_begun", "step_done", "step_begun", "step_done", "stopping"],
      ...["mains_off", "rails_empty", "loads_off", "ended"],
    ]);
    expect(runState((await runOf(id)).events).name).toBe("done");
    expect(supply()).toMatchObject({ isMainsOn: false, loads: {} });
    const { readings, chargeEvents } = await detail();
    const of = (netId: string, quantity: string) =>
      readings.filter((one) => one.targetId === netId && one.quantity === quantity).map((one) => one.loadAmps);
    expect(of(nets.a, "dc_voltage")).toEqual([0, 2.2]);
    expect(of(nets.b, "dc_voltage")).toEqual([0.18, 0.18]);
    expect(of(nets.a, "ripple_voltage")).toEqual([0, 2.2]);
    expect(readings.filter((one) => one.quantity === "power")).toHaveLength(2);
    const loaded = readings.find((one) => one.targetId === nets.a && one.loadAmps === 2.2);
    expect(loaded).toMatchObject({ isPowered: true, isSimulated: true, instrument: "Electronic load", clockId: id });
    expect(loaded?.value).toBeGreaterThan(13.8);
    expect(loaded?.rig).toMatchObject({ isSeriesLamp: false, isCaseClosed: true });
    expect(chargeEvents.map((one) => one.kind)).toEqual(["mains_connected", "mains_disconnected"]);
    const samples = (await request(test.app).get(`/api/jobs/${jobId}/runs/${id}/samples`).expect(200))
      .body as RunSamples;
    expect(samples.samples.length).toBeGreaterThanOrEqual(6);
    const rest = await request(test.app).get(`/api/jobs/${jobId}/runs/${id}/samples?after=${samples.next}`);
    expect(rest.body).toEqual({ samples: [], next: samples.next });
    expect(test.instruments.runOf(idOf("Mains source"))).toBeNull();
  });

  it("holds its instruments, can be paused and cancelled, and a press that is sent twice begins it once", async () => {
    const id = newId();
    const plan = planOf({ steps: [{ loads: [amps(nets.a, 1), amps(nets.b, 1)], dwellSeconds: 600 }] });
    const [first, second] = await Promise.all([begin(plan, {}, id), begin(plan, {}, id)]);
    expect([first.status, second.status].sort()).toEqual([200, 201]);
    await until(() => Object.keys(supply().loads).length === 2);
    const act = (settings: object) =>
      request(test.app)
        .post(`/api/instruments/${idOf("Electronic load")}/acts`)
        .send({ points: null, circuitState: null, function: null, frequencyHertz: null, settings });
    await act({ amps: 0.2 }).expect(409);
    await request(test.app).put("/api/bench-supply").send({ name: "02-dried-output-bank" }).expect(409);
    await begin(planOf()).expect(409);
    await tell(id, "pause").expect(200);
    await until(() => Object.keys(supply().loads).length === 0);
    expect(supply().isMainsOn).toBe(true);
    await tell(id, "continue").expect(200);
    await until(() => Object.keys(supply().loads).length === 2);
    await tell(id, "cancel").expect(200);
    await ended(id);
    expect(runState((await runOf(id)).events)).toMatchObject({ name: "cancelled", isUnconfirmed: false });
    expect(supply()).toMatchObject({ isMainsOn: false, loads: {} });
    await tell(id, "pause").expect(409);
  });

  it("ends when a person switches the mains off, or a load", async () => {
    for (const [name, settings, code] of [
      ["Mains source", { output: "OFF" }, "mains_gone"],
      ["Electronic load", { input: "OFF" }, "load_gone"],
    ] as const) {
      const id = newId();
      const plan = planOf({ steps: [{ loads: [amps(nets.a, 1), amps(nets.b, 1)], dwellSeconds: 600 }] });
      await begin(plan, {}, id).expect(201);
      await until(() => Object.keys(supply().loads).length === 2);
      await request(test.app)
        .post(`/api/instruments/${idOf(name)}/acts`)
        .send({ points: null, circuitState: null, function: null, frequencyHertz: null, settings })
        .expect(200);
      await ended(id);
      expect(runState((await runOf(id)).events).stop?.code).toBe(code);
      expect(supply()).toMatchObject({ isMainsOn: false, loads: {} });
    }
  });

  it("is cut off by a limit, the mains before the loads, and by too much current the loads before the mains", async () => {
    const order: string[] = [];
    const watching = setInterval(() => {
      const now = `${supply().isMainsOn ? "mains" : "-"} ${Object.keys(supply().loads).length > 0 ? "loads" : "-"}`;
      if (order.at(-1) !== now) order.push(now);
    }, 1);
    stops.push(() => clearInterval(watching));
    const long = [{ loads: [amps(nets.a, 2.2), amps(nets.b, 1)], dwellSeconds: 600 }];
    const high = newId();
    // 44.5 W are drawn; the source's own limit lies a little above.
    await begin(planOf({ steps: long, mostInputWatts: 43 }), {}, high).expect(201);
    await ended(high);
    expect(runState((await runOf(high)).events).stop).toMatchObject({ code: "over_power", limit: 43 });
    expect(order.slice(-3)).toEqual(["mains loads", "- loads", "- -"]);
    order.length = 0;
    const much = newId();
    const tight = planOf().rails.map((one) => ({ ...one, mostAmps: one.netId === nets.a ? 2.15 : one.mostAmps }));
    await begin(planOf({ steps: long, rails: tight }), {}, much).expect(201);
    await ended(much);
    expect(runState((await runOf(much)).events).stop?.code).toBe("over_current");
    expect(order.slice(-2)).toEqual(["mains -", "- -"]);
  });

  it("begins its steps when the rails stand, and ends where they never do", async () => {
    bench.bench.choose("09-shorted-rectifier");
    const id = newId();
    await begin(planOf({ ripple: null }), {}, id).expect(201);
    await ended(id);
    expect(await kinds(id)).not.toContain("step_begun");
    expect(runState((await runOf(id)).events).stop?.code).toBe("under_voltage");
    expect(supply()).toMatchObject({ isMainsOn: false, loads: {} });
  });

  it("is refused where something stands against it, and then touches nothing that could be on", async () => {
    const said = async (plan: RunPlan, more: object = {}) => (await begin(plan, more)).body.detail as string;
    expect(await said(planOf({ steps: [{ loads: [amps(nets.a, 9)], dwellSeconds: 2 }] }))).toContain(
      "more than was promised",
    );
    expect(await said(planOf({ steps: [{ loads: [amps(nets.a, 1)], dwellSeconds: 1 }] }))).toContain(
      "shorter than three",
    );
    expect(await said(planOf({ mainsId: null }))).toContain("switch it on by hand");
    expect(await said(planOf(), { switchesMains: false })).toContain("says that it is off");
    expect(await said(planOf({ mainsId: newId() }))).toContain("not among the instruments");
    const blown = { id: newId(), kind: "fuse_blown", resistanceOhms: null, hasShort: null, note: null };
    const moment = { at: "2026-11-23T11:59:00.000Z", clockId: testClock, personId: null };
    await request(test.app)
      .post(`/api/jobs/${jobId}/power-events`)
      .send({ ...blown, ...moment })
      .expect(201);
    expect(await said(planOf())).toContain("A fuse blew");
    expect(supply()).toMatchObject({ isMainsOn: false, loads: {} });
    expect(test.instruments.states.every((one) => one.runId === null)).toBe(true);
    // Simulated instruments prove nothing of a customer's unit.
    jobId = await makeJob(test.app);
    const change = boardInsert("net", nets.a, {
      ...netValues,
      section: "output",
      name: "14 V",
      nominalVolts: 14,
      fullLoadAmps: 2,
    });
    nets.a = newId();
    await request(test.app)
      .post(`/api/jobs/${jobId}/board-edits`)
      .send({ id: newId(), changes: [{ ...change, id: nets.a }] })
      .expect(200);
    const one = { steps: [{ loads: [amps(nets.a, 1)], dwellSeconds: 2 }], rails: [planOf().rails[0] as never] };
    expect(await said(planOf({ ...one, ripple: null }))).toContain("proves nothing of a customer's unit");
  });
});

describe("a burn-in", () => {
  const long = () =>
    planOf({ kind: "burn_in", steps: [{ loads: [amps(nets.a, 1), amps(nets.b, 1)], dwellSeconds: 600 }] });
  it("that is through is an act of the job", async () => {
    const id = newId();
    const steps = [{ loads: [amps(nets.a, 1), amps(nets.b, 1)], dwellSeconds: 2 }];
    await begin(planOf({ kind: "burn_in", steps }), {}, id).expect(201);
    await ended(id);
    const burnt = (await detail()).acts.filter((one) => one.kind === "burn_in");
    expect(burnt).toMatchObject([{ value: 2 }]);
  });

  it("is ended with the server, and says so", async () => {
    const id = newId();
    await begin(long(), {}, id).expect(201);
    await until(() => Object.keys(supply().loads).length === 2);
    await test.runs.close();
    expect(runState((await runOf(id)).events)).toMatchObject({ name: "interrupted", stop: { code: "server_stopped" } });
    expect(supply()).toMatchObject({ isMainsOn: false, loads: {} });
    expect((await detail()).acts.filter((one) => one.kind === "burn_in")).toEqual([]);
  });
});

describe("a run that lost its server", () => {
  /** A run as a killed server leaves it: stored, and its instruments as they were. */
  async function left(prepare: () => void, awaySeconds = 0) {
    const id = newId();
    const steps = [{ loads: [amps(nets.a, 1), amps(nets.b, 1)], dwellSeconds: 4 }];
    const plan = planOf({ kind: "burn_in", steps });
    await test.inScope(async ({ rows, sql }) => {
      await rows.proofRuns.insert({
        ...{
          id,
          jobId,
          plan,
          isAttendedOnly: false,
          isSimulated: true,
          rig: { isIsolationTransformer: false, isCaseClosed: false },
        },
        ...{ personId: null, begunAt: new Date() },
      });
      for (const kind of ["begun", "mains_on", "step_begun"] as const) {
        await rows.proofRunEvents.insert({
          id: newId(),
          runId: id,
          kind,
          seconds: 0,
          step: 0,
          stop: null,
          personId: null,
          at: new Date(),
        });
      }
      const sample = { seconds: 2.5, step: 0, stepSeconds: 2.5, isPaused: false, rails: [], isMainsOn: true };
      await sql(
        `INSERT INTO proof_run_samples (run_id, number, sample, stored_at)
         VALUES ($1, 4, $2::jsonb, clock_timestamp() - make_interval(secs => $3)) RETURNING number`,
        [id, JSON.stringify({ ...sample, inputWatts: null, rippleVolts: null, celsius: [] }), awaySeconds],
      );
    });
    prepare();
    await request(test.app)
      .post(`/api/instruments/${idOf("Oscilloscope")}/acts`)
      .send({ points: "14 V", circuitState: null, function: "PKPK", frequencyHertz: null, settings: null })
      .expect(200);
    return id;
  }
  const setLoads = async (input: string) => {
    for (const [name, net] of [
      ["Electronic load", "14 V"],
      ["Electronic load 2", "5 V"],
    ] as const) {
      await request(test.app)
        .post(`/api/instruments/${idOf(name)}/acts`)
        .send({
          points: null,
          circuitState: null,
          function: null,
          frequencyHertz: null,
          settings: { net, amps: 1, input },
        })
        .expect(200);
    }
  };
  /** The next process of the server. */
  const watch = () => {
    const { database, instruments, heavy } = test;
    const context = { database, instruments, heavy, turns: new Turns(), logger: pino({ level: "silent" }) };
    const keeper = new RunKeeper({ ...context, now: () => new Date() }, everyLine);
    keeper.watch();
    stops.push(() => void keeper.close());
  };
  const mains = (isMainsOn: boolean) => bench.bench.supply.set({ isMainsOn }, performance.now() / 1000);

  it("goes on where all is on, within limits and soon enough", async () => {
    await setLoads("ON");
    const id = await left(() => mains(true));
    watch();
    await ended(id);
    expect(await kinds(id)).toEqual([
      ...["begun", "mains_on", "step_begun", "went_on_after_gap", "step_done", "stopping"],
      ...["mains_off", "rails_empty", "loads_off", "ended"],
    ]);
    expect((await detail()).acts.filter((one) => one.kind === "burn_in")).toMatchObject([{ value: 4 }]);
  });
  it("is interrupted where the mains is off, a load is off or it was away too long; nothing is switched on for it", async () => {
    const seen: boolean[] = [];
    const watching = setInterval(() => seen.push(supply().isMainsOn), 1);
    stops.push(() => clearInterval(watching));
    await setLoads("ON");
    const off = await left(() => mains(false));
    watch();
    await ended(off);
    expect(seen.some(Boolean)).toBe(false);
    await setLoads("OFF");
    const unloaded = await left(() => mains(true));
    await ended(unloaded);
    await setLoads("ON");
    const late = await left(() => mains(true), 61);
    await ended(late);
    for (const id of [off, unloaded, late]) {
      expect(runState((await runOf(id)).events), id).toMatchObject({
        name: "interrupted",
        stop: { code: "server_gone" },
      });
    }
    expect(supply()).toMatchObject({ isMainsOn: false, loads: {} });
  });
});

describe("an instrument that cannot be relied on", () => {
  /** A load of somebody else's: a table of answers, spoilt at will. */
  async function strangeLoad(answer: (line: string) => string | null): Promise<string> {
    const server: Server = createServer((socket) => {
      socket.on("error", () => undefined);
      socket.on("data", (chunk) => {
        for (const line of chunk.toString().split("\n").filter(Boolean)) {
          const text = answer(line);
          if (text !== null) socket.write(`${text}\n`);
        }
      });
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    stops.push(() => server.close());
    const id = newId();
    const { port } = server.address() as AddressInfo;
    const values = {
      name: `Load ${port}`,
      kind: "load",
      driver: "bench_lines",
      transport: "tcp",
      host: "127.0.0.1",
      port,
    };
    await request(test.app)
      .post("/api/instruments")
      .send({ id, values: { ...values, devicePath: null, baudRate: null, isEnabled: true } })
      .expect(201);
    await until(() => test.instruments.states.find((one) => one.id === id)?.status === "ready");
    return id;
  }
  const usual = (line: string, isOn: boolean): string | null => {
    if (line === "*IDN?") return "Somebody's load";
    if (line === "SYST:ERR?") return '0,"No error"';
    if (line === "INP?") return isOn ? "ON" : "OFF";
    if (line === "MEAS:VOLT?" || line === "READ?") return supply().isMainsOn ? "5.0E0" : "0.1E0";
    return line === "MEAS:CURR?" ? "1.0E0" : null;
  };

  it.each([
    ["instrument_lost", (line: string) => (line.endsWith("?") && line !== "INP?" ? null : undefined)],
    ["instrument_garbled", (line: string) => (line === "MEAS:VOLT?" ? "a lot" : undefined)],
    ["load_lies", (line: string) => (line === "MEAS:CURR?" ? "4.0E-1" : undefined)],
  ] as const)(
    "%s: the run ends, the mains first, and says so",
    async (code, spoilt) => {
      let [isSpoilt, isOn] = [false, false];
      const loadId = await strangeLoad((line) => {
        if (line.startsWith("INP O")) isOn = line === "INP ON";
        const strange = isSpoilt ? spoilt(line) : undefined;
        return strange === undefined ? usual(line, isOn) : strange;
      });
      const id = newId();
      const [first, second] = planOf().rails as [RunPlan["rails"][number], RunPlan["rails"][number]];
      const rails = [first, { ...second, loadId }];
      const steps = [{ loads: [amps(nets.a, 1), amps(nets.b, 1)], dwellSeconds: 600 }];
      await begin(planOf({ rails, steps, mostInputWatts: 80 }), {}, id).expect(201);
      await until(() => isOn && supply().isMainsOn);
      isSpoilt = true;
      await until(() => !supply().isMainsOn);
      await ended(id);
      expect(runState((await runOf(id)).events).stop?.code).toBe(code);
      const told = await kinds(id);
      expect(told.indexOf("mains_off")).toBeGreaterThan(0);
      expect(supply().loads).toEqual({});
      await request(test.app).delete(`/api/instruments/${loadId}`).send({ writeId: newId(), version: 1 }).expect(204);
    },
    20_000,
  );

  it("one that takes no limits of its own is run only with somebody beside it", async () => {
    let isOn = false;
    let error = '0,"No error"';
    const loadId = await strangeLoad((line) => {
      if (line.startsWith("INP O")) isOn = line === "INP ON";
      if (line === "*CLS") error = '0,"No error"';
      if (line.startsWith("LIM:")) error = '-113,"Undefined header"';
      return line === "SYST:ERR?" ? error : usual(line, isOn);
    });
    const id = newId();
    const [first, second] = planOf().rails as [RunPlan["rails"][number], RunPlan["rails"][number]];
    const steps = [{ loads: [amps(nets.a, 1), amps(nets.b, 1)], dwellSeconds: 600 }];
    const { body } = await begin(planOf({ rails: [first, { ...second, loadId }], steps }), {}, id).expect(201);
    expect(body.isAttendedOnly).toBe(true);
    await tell(id, "cancel").expect(200);
    await ended(id);
    await request(test.app).delete(`/api/instruments/${loadId}`).send({ writeId: newId(), version: 1 }).expect(204);
  }, 20_000);
});

import { type AddressInfo, createServer, type Server, type Socket } from "node:net";
import type { InstrumentState } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newId, openTestApp, type TestApp } from "../../testing/testApp";

let test: TestApp;
const servers: Server[] = [];
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
  for (const server of servers) server.close();
});

/** A little instrument on a TCP port: what it answers to a line; null answers nothing. */
async function instrumentOn(answer: (line: string) => string | null) {
  const lines: string[] = [];
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on("error", () => undefined);
    socket.on("data", (chunk) => {
      for (const line of chunk.toString().split("\n").filter(Boolean)) {
        lines.push(line);
        const text = answer(line);
        if (text !== null) socket.write(`${text}\n`);
      }
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return {
    port: (server.address() as AddressInfo).port,
    lines,
    hangUp: () => {
      for (const socket of sockets) socket.destroy();
    },
  };
}

const values = (port: number, more: object = {}) => ({
  name: "Shop meter",
  kind: "multimeter",
  driver: "bench_lines",
  transport: "tcp",
  host: "127.0.0.1",
  port,
  devicePath: null,
  baudRate: null,
  isEnabled: true,
  ...more,
});

async function setUp(port: number, more: object = {}): Promise<string> {
  const id = newId();
  await request(test.app)
    .post("/api/instruments")
    .send({ id, values: values(port, more) })
    .expect(201);
  return id;
}

/** Waits until the stream tells a state of this instrument that fits. */
function told(id: string, fits: (state: InstrumentState) => boolean): Promise<InstrumentState> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("never told")), 8000);
    const stop = test.instruments.listen((state) => {
      if (state.id !== id || !fits(state)) return;
      clearTimeout(timer);
      stop();
      resolve(state);
    });
  });
}

const meter = (value: string) => (line: string) => {
  if (line === "*IDN?") return "Test meter";
  if (line === "SYST:ERR?") return '0,"No error"';
  return line === "READ?" ? value : null;
};
const noAct = { points: null, circuitState: null, function: null, frequencyHertz: null, settings: null };

describe("instruments", () => {
  it("come with a simulated bench, shown as missing while nothing listens", async () => {
    const { body } = await request(test.app).get("/api/instruments").expect(200);
    expect(body.instruments.map((one: { kind: string }) => one.kind).sort()).toEqual([
      "lcr",
      "load",
      "load",
      "mains",
      "multimeter",
      "oscilloscope",
      "thermometer",
    ]);
    test.instruments.setUp(body.instruments);
    const lcr = body.instruments.find((one: { kind: string }) => one.kind === "lcr").id;
    expect((await told(lcr, (one) => one.status === "missing")).trouble).toContain("nothing listens");
  });

  it("are read, are steady when their values agree, and do what a person says", async () => {
    const { port, lines } = await instrumentOn(meter("1.2345E+1"));
    const id = await setUp(port);
    expect(await told(id, (one) => one.reading?.isSteady === true)).toMatchObject({
      status: "ready",
      identity: "Test meter",
      reading: { value: 12.345 },
    });
    const act = { ...noAct, points: "12 V\nOUTP ON", circuitState: "lead_lifted", function: "ACV" };
    await request(test.app).post(`/api/instruments/${id}/acts`).send(act).expect(200);
    expect(lines).toContain("FUNC ACV");
    // A line end in a name must not become a command of its own.
    expect(lines).toContain("ROUT:PROB 12 V OUTP ON,LIFTED");
    expect(lines).not.toContain("OUTP ON");
    await request(test.app)
      .post(`/api/instruments/${id}/acts`)
      .send({ ...noAct, settings: { swing: "1,100" } })
      .expect(422);
    await request(test.app)
      .post(`/api/instruments/${id}/acts`)
      .send({ ...noAct, function: "TEMP" })
      .expect(422);
    await request(test.app)
      .post(`/api/instruments/${id}/acts`)
      .send({ ...noAct, settings: { output: "ON" } })
      .expect(422);
  });

  it("say their own refusal", async () => {
    const { port } = await instrumentOn((line) =>
      line === "SYST:ERR?" ? '-224,"No such point on this board: C9"' : meter("1")(line),
    );
    const id = await setUp(port);
    await told(id, (one) => one.status === "ready");
    const { body } = await request(test.app)
      .post(`/api/instruments/${id}/acts`)
      .send({ ...noAct, points: "C9" })
      .expect(409);
    expect(body.detail).toContain("No such point on this board: C9");
  });

  it.each([
    ["garbled", "nonsense", "answered “nonsense”"],
    ["implausible", "-5E5", "which DCV cannot be"],
  ] as const)("are shown as %s and their value is not passed on", async (status, answer, trouble) => {
    const { port } = await instrumentOn(meter(answer));
    const id = await setUp(port);
    const state = await told(id, (one) => one.status === status);
    expect(state.reading).toBeNull();
    expect(state.trouble).toContain(trouble);
  });

  it("that do not answer in time are slow, and are tried again", async () => {
    let isAwake = false;
    const { port } = await instrumentOn((line) => (isAwake ? meter("5")(line) : null));
    const id = await setUp(port);
    await told(id, (one) => one.status === "slow");
    isAwake = true;
    expect((await told(id, (one) => one.status === "ready" && one.reading !== null)).reading?.value).toBe(5);
  });

  it("that hang up come back by themselves and are told again where their probes were", async () => {
    const { port, lines, hangUp } = await instrumentOn(meter("5"));
    const id = await setUp(port);
    await told(id, (one) => one.reading !== null);
    await request(test.app)
      .post(`/api/instruments/${id}/acts`)
      .send({ ...noAct, points: "C14" })
      .expect(200);
    hangUp();
    await told(id, (one) => one.status === "missing");
    lines.length = 0;
    await told(id, (one) => one.status === "ready" && one.reading !== null);
    expect(lines).toContain("ROUT:PROB C14");
  });

  it("of a simple kind are only read: their hand is the person's", async () => {
    const { port, lines } = await instrumentOn((line) => (line === "READ?" ? "0.047" : null));
    const id = await setUp(port, { kind: "lcr", driver: "read_only_lines" });
    await told(id, (one) => one.reading !== null);
    await request(test.app)
      .post(`/api/instruments/${id}/acts`)
      .send({ ...noAct, points: "C14", function: "CAP" })
      .expect(200);
    expect((await told(id, (one) => one.reading?.points === "C14")).reading?.function).toBe("CAP");
    expect(new Set(lines)).toEqual(new Set(["READ?"]));
  });

  it("need an address that fits how they are reached, and keep to versions", async () => {
    const wrong = values(1, { host: null });
    await request(test.app).post("/api/instruments").send({ id: newId(), values: wrong }).expect(422);
    const serial = values(1, { transport: "serial" });
    await request(test.app).post("/api/instruments").send({ id: newId(), values: serial }).expect(422);
    const id = await setUp(9, { isEnabled: false });
    await request(test.app)
      .patch(`/api/instruments/${id}`)
      .send({ writeId: newId(), version: 1, values: values(9, { name: "Other" }) })
      .expect(200);
    await request(test.app)
      .patch(`/api/instruments/${id}`)
      .send({ writeId: newId(), version: 1, values: values(9) })
      .expect(409);
    await request(test.app).delete(`/api/instruments/${id}`).send({ writeId: newId(), version: 1 }).expect(409);
    const removal = { writeId: newId(), version: 2 };
    await request(test.app).delete(`/api/instruments/${id}`).send(removal).expect(204);
    await request(test.app).delete(`/api/instruments/${id}`).send(removal).expect(204);
    await request(test.app).delete(`/api/instruments/${newId()}`).send({ writeId: newId(), version: 1 }).expect(404);
    const { body } = await request(test.app).get("/api/instruments").expect(200);
    expect(body.instruments.some((one: { id: string }) => one.id === id)).toBe(false);
  });

  it("are refused where the house rule lets none stand, with a word for it and no line opened", async () => {
    const id = await setUp(9, { host: "203.0.113.9" });
    const state = await told(id, (one) => one.status === "missing");
    expect(state.trouble).toBe("stands at an address that the house rule does not allow");
  });

  it("are no more than the house rule says", async () => {
    const rule = { id: newId(), key: "instruments.mostCount", reason: null, changedAt: "2026-11-23T12:00:00Z" };
    const { body } = await request(test.app).get("/api/instruments").expect(200);
    const count = body.instruments.length;
    await request(test.app)
      .post("/api/house-rules/changes")
      .send({ ...rule, value: count, version: 0, clockId: null, personId: null })
      .expect(201);
    const one = { id: newId(), values: values(9, { isEnabled: false }) };
    const refused = await request(test.app).post("/api/instruments").send(one).expect(409);
    expect(refused.body.detail).toContain(`${count} instruments already`);
  });

  it("stream what they say as events", async () => {
    const server = test.app.listen(0, "127.0.0.1");
    await new Promise((resolve) => server.once("listening", resolve));
    const { port } = server.address() as AddressInfo;
    const stop = new AbortController();
    const answer = await fetch(`http://127.0.0.1:${port}/api/instruments/stream`, { signal: stop.signal });
    expect(answer.headers.get("content-type")).toContain("text/event-stream");
    const reader = answer.body?.getReader();
    const { value } = (await reader?.read()) ?? {};
    expect(new TextDecoder().decode(value)).toMatch(/^data: \{"id":/);
    stop.abort();
    server.closeAllConnections();
    server.close();
  });
});

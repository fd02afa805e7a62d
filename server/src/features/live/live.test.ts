import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import type { JobChanges, JobDetail, JobStreamEvent } from "@pale-cap/contract";
import request, { type Agent } from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { EventStreams } from "../../http/eventStream";
import { openChanges } from "../../live/changes";
import { openSessions } from "../../people/sessions";
import { openShopTest, type ShopTest, testPassword } from "../../testing/shopTest";
import { makeJob, makePart, newId, onPostgres, openTestApp, readingBody, type TestApp } from "../../testing/testApp";

/** Two server processes of one shop, as far as they share nothing but its database. */
let one: ShopTest;
let two: TestApp;
let ports: readonly [string, string];
let servers: readonly Server[];
let mira: Agent;
let cookie: string;
let ownCookie: string;
let jobId: string;

beforeAll(async () => {
  one = await openShopTest();
  const sessions = await openSessions({ databaseUrl: one.urls.app, isSecure: false });
  const streams = new EventStreams(200);
  two = await openTestApp({ sessions, streams, changes: openChanges(one.urls.owner) }, "shop", undefined, one.urls);
  const listening = await Promise.all([one, two].map(({ app }) => listen(createServer(app))));
  servers = listening.map(({ server }) => server);
  ports = listening.map(({ address }) => address) as unknown as readonly [string, string];
  mira = await one.signedIn("technician");
  ownCookie = await cookieFor(one, "technician");
  cookie = await cookieFor(two, "trainee");
  jobId = await makeJob(mira);
});
afterAll(async () => {
  for (const server of servers) server.closeAllConnections();
  await two.context.changes.close();
  await two.context.sessions?.close();
  await two.close();
  await one.close();
});

async function cookieFor({ app }: TestApp, login: string): Promise<string> {
  const answer = await request(app)
    .post("/api/session")
    .send({ login, password: testPassword, benchId: null })
    .expect(200);
  return (answer.headers["set-cookie"] as unknown as string[])[0]?.split(";")[0] as string;
}

function listen(server: Server): Promise<{ server: Server; address: string }> {
  return new Promise((resolve) =>
    server.listen(0, "127.0.0.1", () =>
      resolve({ server, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}` }),
    ),
  );
}

/** A page that listens, and what it heard. */
async function listenTo(address: string, of = jobId, as = cookie) {
  const ending = new AbortController();
  const answer = await fetch(`${address}/api/jobs/${of}/stream`, { headers: { Cookie: as }, signal: ending.signal });
  const heard: JobStreamEvent[] = [];
  const reading = (async () => {
    let rest = "";
    const decoder = new TextDecoder();
    for await (const chunk of answer.body as unknown as AsyncIterable<Uint8Array>) {
      rest += decoder.decode(chunk, { stream: true });
      const parts = rest.split("\n\n");
      rest = parts.pop() ?? "";
      for (const part of parts) {
        if (part.startsWith("data: ")) heard.push(JSON.parse(part.slice(6)));
      }
    }
  })().catch(() => undefined);
  return {
    status: answer.status,
    over: reading,
    heard,
    changes: () => heard.filter((event) => event.kind === "changed"),
    end: async () => {
      ending.abort();
      await reading;
    },
  };
}

async function until(what: () => boolean | Promise<boolean>, milliseconds = 8000): Promise<void> {
  const end = Date.now() + milliseconds;
  while (!(await what())) {
    if (Date.now() > end) throw new Error(`It did not come about: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

const changesAfter = async (after: number) =>
  (await mira.get(`/api/jobs/${jobId}/changes?after=${after}`).expect(200)).body as JobChanges;

describe("two people on one job, each at a server process of their own", () => {
  it("hear of each other's readings and edits, and fetch what came after", async () => {
    const page = await listenTo(ports[1]);
    await until(() => page.heard.some((event) => event.kind === "present"));
    const start = (await changesAfter(0)).sequence;
    const part = await makePart(mira, jobId);
    await until(() => page.changes().length >= 1);
    const edit = await changesAfter(start);
    expect(edit.rest?.positions.map((place) => place.designator)).toEqual(["C1"]);
    const before = page.changes().length;
    const body = readingBody(part);
    await mira.post(`/api/jobs/${jobId}/readings`).send(body).expect(201);
    await until(() => page.changes().length > before);
    const came = await changesAfter(edit.sequence);
    expect([came.added.readings.map((reading) => reading.id), came.rest]).toEqual([[body.id], null]);
    // The place told is right behind the fact: a page that stored it itself has nothing to fetch.
    const told = page.changes().at(-1) as { readonly sequence: number };
    expect(told.sequence).toBe((came.added.readings[0]?.sequence ?? 0) + 1);
    expect((await changesAfter(came.sequence)).added.readings).toEqual([]);
    // Nothing but the place travels.
    expect(Object.keys(told).sort()).toEqual(["kind", "sequence"]);
    await page.end();
  });

  it("adds up to the whole job, whatever is asked after", async () => {
    const whole = (await mira.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
    const { added, rest } = await changesAfter(0);
    expect({ ...rest, ...added }).toEqual(whole);
  });

  it("see each other come and go, also where one's server is killed, and not what lies at another job", async () => {
    const page = await listenTo(ports[1]);
    const peopleOf = () => page.heard.filter((event) => event.kind === "present").at(-1);
    const other = await listenTo(ports[0], jobId, ownCookie);
    const bothThere = () => {
      const last = peopleOf();
      return last?.kind === "present" && last.people.length === 2;
    };
    await until(bothThere);
    const names = (peopleOf() as { readonly people: readonly { readonly name: string }[] }).people.map(
      (person) => person.name,
    );
    expect(names).toEqual(["technician of the shop", "trainee of the shop"]);
    await other.end();
    await until(() => {
      const last = peopleOf();
      return last?.kind === "present" && last.people.length === 1;
    });
    // One whose server died with it: told until nobody can have it open any more.
    await one.inScope(({ sql, now }) =>
      sql("INSERT INTO presences (id, job_id, person_id, seen_at) VALUES ($1, $2, $3, $4) RETURNING id", [
        ...[newId(), jobId, one.people.lead.personId, new Date(now.getTime() - 41_000)],
      ]),
    );
    const third = await listenTo(ports[0], jobId, ownCookie);
    await until(bothThere);
    await third.end();
    await page.end();
    const elsewhere = await makeJob(mira);
    const quiet = await listenTo(ports[1], elsewhere);
    await until(() => quiet.heard.some((event) => event.kind === "present"));
    await mira.post(`/api/jobs/${jobId}/energy-stores`).send({
      ...{ id: newId(), name: "Bulk", kind: "bulk", positionId: null, netId: null, capacitanceFarads: 1e-4 },
      ...{ expectedVolts: 325, bleederOhms: null, drainOhms: 1e4 },
    });
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(quiet.changes()).toEqual([]);
    await quiet.end();
  });

  it("come back after the line to the database broke, and are told that something may have been missed", async () => {
    const page = await listenTo(ports[1]);
    await until(() => page.heard.some((event) => event.kind === "present"));
    const missed = () => page.heard.filter((event) => event.kind === "missed").length;
    const before = missed();
    await onPostgres(one.urls.owner, (client) =>
      client.query(
        "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = 'pale-cap changes'",
      ),
    );
    await until(() => missed() > before);
    const heardBefore = page.changes().length;
    const body = {
      ...readingBody({ netId: "", positionId: jobId, partId: "" }),
      targetKind: "unit",
      quantity: "power",
    };
    await mira
      .post(`/api/jobs/${jobId}/readings`)
      .send({ ...body, fittedPartId: null, circuitState: null, frequencyHertz: null, isPowered: true })
      .expect(201);
    await until(() => page.changes().length > heardBefore);
    await page.end();
  });

  it("hear that the rules changed, and nothing more once they were signed out", async () => {
    const page = await listenTo(ports[1]);
    await until(() => page.heard.some((event) => event.kind === "present"));
    const lead = await one.signedIn("lead");
    const rule = { key: "judge.weakBelow", value: null, reason: null, changedAt: "2026-11-23T11:50:00.000Z" };
    const known = (await lead.get("/api/house-rules").expect(200)).body as Record<string, unknown>;
    const key = Object.keys(known).find((name) => typeof known[name] === "boolean") as string;
    const body = { ...rule, key, value: !known[key], version: 0, clockId: newId(), personId: null, id: newId() };
    await lead.post("/api/house-rules/changes").send(body).expect(201);
    await until(() => page.heard.some((event) => event.kind === "rules"));
    await page.end();
    const guest = await one.makePerson("guest", "technician");
    const left = await listenTo(ports[1], jobId, await cookieFor(two, "guest"));
    await until(() => left.heard.some((event) => event.kind === "present"));
    await lead.post(`/api/accounts/${guest.accountId}/sign-out`).send({ id: newId() }).expect(200);
    await left.over;
  });

  it("hear nothing without being signed in, and nothing of a job that is not there", async () => {
    expect((await listenTo(ports[0], jobId, "pale-cap=none")).status).toBe(401);
    expect((await listenTo(ports[0], newId(), ownCookie)).status).toBe(404);
  });
});

describe("what is at which bench", () => {
  it("is told bench by bench: people, jobs, instruments; a job lies on one of them", async () => {
    const [window, door] = [newId(), newId()];
    for (const [id, name] of [
      [window, "By the window"],
      [door, "By the door"],
    ]) {
      await mira.post("/api/benches").send({ id, name, hasSimulated: false }).expect(201);
    }
    await mira.put("/api/session/bench").send({ benchId: window }).expect(200);
    await mira.put("/api/session/bench").send({ benchId: newId() }).expect(409);
    const places = async () => (await mira.get("/api/bench-places").expect(200)).body;
    const of = async (id: string) => (await places()).find((place: { id: string }) => place.id === id);
    await mira.put(`/api/benches/${window}/jobs/${jobId}`).send({ writeId: newId() }).expect(200);
    expect(await of(window)).toMatchObject({ people: [{ name: "technician of the shop" }], jobs: [{ id: jobId }] });
    await mira.put(`/api/benches/${door}/jobs/${jobId}`).send({ writeId: newId() }).expect(200);
    expect([(await of(window)).jobs, (await of(door)).jobs.length]).toEqual([[], 1]);
    await mira.delete(`/api/benches/${door}/jobs/${jobId}`).send({ writeId: newId() }).expect(200);
    expect((await of(door)).jobs).toEqual([]);
  });

  it("an instrument obeys the bench that it stands at, and no other", async () => {
    const [here, there, meter] = [newId(), newId(), newId()];
    for (const id of [here, there]) {
      await mira
        .post("/api/benches")
        .send({ id, name: `Bench ${id.slice(0, 4)}`, hasSimulated: false })
        .expect(201);
    }
    const values = {
      ...{ name: "Meter", kind: "multimeter", driver: "bench_lines", transport: "tcp", host: "127.0.0.1", port: 1 },
      ...{ devicePath: null, baudRate: null, isEnabled: false, benchId: here },
    };
    await mira.post("/api/instruments").send({ id: meter, values }).expect(201);
    const off = { points: "", circuitState: null, function: null, frequencyHertz: null, settings: null };
    const act = async () => (await mira.post(`/api/instruments/${meter}/acts`).send(off)).body.detail as string;
    await mira.put("/api/session/bench").send({ benchId: there }).expect(200);
    expect(await act()).toContain("it obeys that bench alone");
    await mira.put("/api/session/bench").send({ benchId: null }).expect(200);
    expect(await act()).toContain("Say first that you work there");
    await mira.put("/api/session/bench").send({ benchId: here }).expect(200);
    expect(await act()).not.toContain("stands at");
  });
});

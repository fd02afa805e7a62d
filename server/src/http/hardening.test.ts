import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { connect } from "node:net";
import { Writable } from "node:stream";
import pino from "pino";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createApp } from "../app";
import { diskState } from "../features/shop/healthRoutes";
import { openMetrics } from "../metrics";
import { requireRoom } from "../records/jobRoom";
import { openShopTest, type ShopTest, testPassword } from "../testing/shopTest";
import { makeJob, newId, openTestApp, type TestApp } from "../testing/testApp";
import { EventStreams } from "./eventStream";
import { FewAtOnce } from "./fewAtOnce";
import { logSerializers } from "./logging";
import { boundSlowClients } from "./slowClients";
import { UnderWay } from "./underWay";

let alone: TestApp;
let shop: ShopTest;
const few = (limit: number) => ({ windowMs: 60_000, limit });
beforeAll(async () => {
  alone = await openTestApp();
  shop = await openShopTest({ limits: { session: few(30), address: few(200), secrets: few(12), uploads: few(3) } });
});
afterAll(async () => {
  await shop.close();
  await alone.close();
});

const wait = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const statuses = async (count: number, one: () => PromiseLike<{ readonly status: number }>) =>
  (await Promise.all(Array.from({ length: count }, one))).map(({ status }) => status);

describe("limits of a shop's network", () => {
  it("count each browser for itself, and each address in all; what is refused says nothing against the entry", async () => {
    const [one, two] = [await shop.signedIn("technician"), await shop.signedIn("counter")];
    const answers = await statuses(40, () => one.get("/api/people"));
    expect([answers.filter((status) => status === 200).length, answers.includes(429)]).toEqual([30, true]);
    const refused = await one.get("/api/people").expect(429);
    expect(refused.body.code).toBe("too_many");
    await two.get("/api/people").expect(200);
    // Everybody behind one address together.
    const others = await statuses(200, () => request(shop.app).get("/api/people"));
    expect(others.filter((status) => status === 429).length).toBeGreaterThan(30);
    await two.get("/api/people").expect(429);
  });
  it("count files apart, and nothing else among them", async () => {
    const own = await openShopTest({
      limits: { session: few(500), address: few(500), secrets: few(500), uploads: few(3) },
    });
    const browser = await own.signedIn("technician");
    const file = () => browser.post(`/api/jobs/${newId()}/photos`).attach("picture", Buffer.from("x"), "x.png");
    const codes = [];
    for (let n = 0; n < 4; n++) codes.push((await file()).status);
    expect([codes.slice(0, 3).includes(429), codes[3]]).toEqual([false, 429]);
    await browser.post(`/api/jobs/${newId()}/readings`).send({}).expect(422);
    await own.close();
  });
  it("let nobody try secrets as fast as they can be sent", async () => {
    const guarded = await openShopTest({
      limits: { session: few(1000), address: few(1000), secrets: few(12), uploads: few(1000) },
    });
    const guess = () =>
      request(guarded.app)
        .post("/api/session")
        .send({ login: `${newId()}`, password: "x", benchId: null });
    const answers = await statuses(20, guess);
    expect([
      answers.filter((status) => status === 401).length,
      answers.filter((status) => status === 429).length,
    ]).toEqual([...[12, 8]]);
    await request(guarded.app).get("/api/session").expect(200);
    const link = { token: "x" };
    await request(guarded.app).post("/api/one-time-links").send(link).expect(429);
    await guarded.close();
  });
  it("are not counted by the address that somebody claims to come from, unless a trusted proxy says so", async () => {
    const open = (trustedProxies: readonly string[]) =>
      createApp({
        ...shop.context,
        trustedProxies,
        limits: { session: few(1000), address: few(5), secrets: few(1000), uploads: few(1000) },
      });
    const from = (app: ReturnType<typeof open>, n: number) =>
      request(app).get("/api/people").set("X-Forwarded-For", `10.0.0.${n}`);
    const [believing, deaf] = [open(["127.0.0.1", "::1", "::ffff:127.0.0.1"]), open([])];
    for (let n = 0; n < 8; n++) expect((await from(believing, n)).status).toBe(401);
    const spoofed = [];
    for (let n = 0; n < 8; n++) spoofed.push((await from(deaf, n)).status);
    expect(spoofed.slice(5)).toEqual([429, 429, 429]);
  });
});

describe("files", () => {
  it("take room of a job up to a bound, and one that is stored already takes none", async () => {
    const jobId = await makeJob(alone.app);
    await alone.inScope(async (scope) => {
      const sha256 = "a".repeat(64);
      await scope.rows.blobs.insert({ sha256, mediaType: "image/jpeg", sizeBytes: 700, createdAt: scope.now });
      for (const n of [1, 2]) {
        await scope.rows.photos.insert({
          ...{ id: newId(), jobId, kind: "label", caption: `${n}`, marks: [], personId: null, takenAt: scope.now },
          ...{
            imageSha256: sha256,
            thumbnailSha256: sha256,
            widthPixels: 1,
            heightPixels: 1,
            version: 1,
            isRemoved: false,
          },
        });
      }
      await requireRoom(scope, jobId, 300, 1000);
      await expect(requireRoom(scope, jobId, 301, 1000)).rejects.toThrow("This job holds");
    });
  });
  it("are served as pictures or as files, never as a page, whatever was stored with them", async () => {
    const jobId = await makeJob(alone.app);
    const photoId = newId();
    await alone.inScope(async (scope) => {
      const sha256 = "b".repeat(64);
      await scope.rows.blobs.insert({ sha256, mediaType: "text/html", sizeBytes: 8, createdAt: scope.now });
      await scope.rows.blobChunks.insert({ sha256, number: 0, content: Buffer.from("<script>") });
      await scope.rows.photos.insert({
        ...{ id: photoId, jobId, kind: "label", caption: null, marks: [], personId: null, takenAt: scope.now },
        ...{
          imageSha256: sha256,
          thumbnailSha256: sha256,
          widthPixels: 1,
          heightPixels: 1,
          version: 1,
          isRemoved: false,
        },
      });
    });
    const { headers } = await request(alone.app).get(`/api/photos/${photoId}/image`).expect(200);
    expect(headers["content-type"]).toBe("application/octet-stream");
    expect(headers["x-content-type-options"]).toBe("nosniff");
    expect(headers["content-security-policy"]).toContain("sandbox");
  });
  it("come a few at once, the others wait, and nobody beyond the line", async () => {
    const line = new FewAtOnce(2, 3);
    let [running, most] = [0, 0];
    const work = async () => {
      running += 1;
      most = Math.max(most, running);
      await wait(5);
      running -= 1;
    };
    const all = await Promise.allSettled(Array.from({ length: 6 }, () => line.take(work)));
    expect([most, all.filter((one) => one.status === "fulfilled").length]).toEqual([2, 5]);
    // One that fails gives its place on.
    await expect(line.take(() => Promise.reject(new Error("broke off")))).rejects.toThrow("broke off");
    await Promise.all([line.take(work), line.take(work), line.take(work)]);
    expect(most).toBe(2);
  });
});

describe("a slow client", () => {
  it.each([
    ["sends its headers by the drop", "GET / HTTP/1.1\r\nHost: x\r\n"],
    ["sends its body by the drop", "POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 100\r\n\r\nx"],
    ["opens a line and says nothing", ""],
  ])("that %s is let go", async (_, text) => {
    const server = createServer({ connectionsCheckingInterval: 20 }, (incoming) => incoming.resume());
    boundSlowClients(server, { headerMilliseconds: 60, requestMilliseconds: 120, silenceMilliseconds: 200 });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    const socket = connect((server.address() as AddressInfo).port, "127.0.0.1");
    socket.on("error", () => undefined);
    socket.write(text);
    // One drop now and then keeps nothing open.
    const dripping = setInterval(() => text && socket.write("x"), 30);
    await new Promise((resolve) => socket.resume().once("close", resolve));
    clearInterval(dripping);
    server.close();
  });
});

describe("what a server process tells of itself", () => {
  it("is that it lives, whatever the database does; and whether it can work", async () => {
    const away = { ...alone.context.database, probe: () => Promise.reject(new Error("away")) };
    const app = (more: object) => createApp({ ...alone.context, ...more });
    await request(app({ database: away }))
      .get("/api/health")
      .expect(200);
    const ready = async (more: object) => (await request(app(more)).get("/api/ready")).body;
    expect(await ready({})).toMatchObject({
      status: "ready",
      checks: { database: "ok", migrations: "ok", stopping: "ok" },
    });
    expect(await ready({ database: away })).toMatchObject({ status: "not ready", checks: { database: "away" } });
    expect(await ready({ migrationsPending: async () => true })).toMatchObject({ checks: { migrations: "pending" } });
    await request(app({ migrationsPending: () => Promise.reject(new Error("away")) }))
      .get("/api/ready")
      .expect(503);
    expect([diskState(249_000_000), diskState(251_000_000)]).toEqual(["nearly full", "ok"]);
  });
  it("is figures in the common format, by route and never by id", async () => {
    const metrics = openMetrics({ streams: () => 3, waiting: () => 1 });
    const app = createApp({ ...alone.context, metrics });
    const id = newId();
    await request(app).get(`/api/jobs/${id}`).expect(404);
    await request(app).get("/api/bench").expect(200);
    const server = await metrics.listen(0);
    const { port, address } = server.address() as AddressInfo;
    expect(address).toBe("127.0.0.1");
    const text = await (await fetch(`http://127.0.0.1:${port}/metrics`)).text();
    expect(text).toContain('pale_cap_answer_seconds_count{method="GET",route="/api/jobs/:jobId",status="404"} 1');
    expect(text).toContain("pale_cap_open_streams 3");
    expect(text).not.toContain(id);
    expect((await fetch(`http://127.0.0.1:${port}/api/bench`)).status).toBe(404);
    server.close();
  });
  it("is a line for each request with its id, and nothing that could be a name or a secret", async () => {
    const lines: Record<string, unknown>[] = [];
    const sink = new Writable({
      write(chunk, _encoding, done) {
        for (const line of String(chunk).trim().split("\n")) lines.push(JSON.parse(line));
        done();
      },
    });
    const logger = pino({ level: "info", serializers: logSerializers }, sink);
    const app = createApp({ ...shop.context, limits: undefined as never, logger, logsRequests: true });
    const { headers } = await request(app).get("/api/casebook?search=Maret+Olm").expect(401);
    await request(app).post("/api/session").send({ login: "lead", password: testPassword, benchId: null });
    await wait(20);
    const text = JSON.stringify(lines);
    for (const word of ["Maret", testPassword, "lead", "cookie", "127.0.0.1"]) expect(text).not.toContain(word);
    expect(lines[0]).toMatchObject({
      req: { id: headers["x-request-id"], method: "GET", path: "/api/casebook" },
      res: { status: 401 },
    });
  });
});

describe("a stop", () => {
  it("finishes what is under way, takes nothing new, and ends streams so that their pages come back elsewhere", async () => {
    const [underWay, streams] = [new UnderWay(), new EventStreams()];
    let release: () => void = () => undefined;
    const held = new Promise<void>((resolve) => {
      release = resolve;
    });
    const heavy = { ...alone.heavy, settled: alone.heavy.settled, poke: () => undefined };
    const database = {
      ...alone.context.database,
      read: (async (...args: Parameters<typeof alone.context.database.read>) => {
        await held;
        return alone.context.database.read(...args);
      }) as typeof alone.context.database.read,
    };
    const app = createApp({ ...alone.context, underWay, streams, heavy, database });
    const server = app.listen(0, "127.0.0.1");
    await new Promise((resolve) => server.once("listening", resolve));
    const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const stream = await fetch(`${address}/api/instruments/stream`, { headers: { Accept: "text/event-stream" } });
    const reading = stream.text();
    const slow = fetch(`${address}/api/people`);
    while (underWay.count === 0) await wait(5);
    const drained = underWay.drain(5000);
    streams.close();
    expect(await reading).toContain("retry: 500");
    expect((await fetch(`${address}/api/people`)).status).toBe(503);
    release();
    expect((await slow).status).toBe(200);
    await drained;
    expect(underWay.count).toBe(0);
    // What never ends keeps nobody for ever.
    const stuck = new UnderWay();
    stuck.watch({ headers: {} } as never, { on: () => undefined } as never, () => undefined);
    await stuck.drain(20);
    server.closeAllConnections();
    server.close();
  });
  it("lets a page go that takes nothing off the line", async () => {
    const streams = new EventStreams();
    const server = createServer((incoming, response) => {
      const send = streams.begin(incoming as never, response as never, () => undefined);
      const filling = setInterval(() => send("x".repeat(300_000)), 2);
      response.on("close", () => clearInterval(filling));
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    const socket = connect((server.address() as AddressInfo).port, "127.0.0.1");
    socket.on("error", () => undefined);
    socket.write("GET / HTTP/1.1\r\nHost: x\r\n\r\n");
    socket.pause();
    while (streams.count === 0) await wait(5);
    while (streams.count > 0) await wait(10);
    socket.destroy();
    server.closeAllConnections();
    server.close();
  });
});

import { gzipSync } from "node:zlib";
import {
  type BoardTypeLine,
  type BoardTypePapers,
  type Intake,
  intakeSchema,
  type JobDetail,
  routes,
} from "@pale-cap/contract";
import { analyseCapture, coreVersion } from "@pale-cap/core";
import { netValues } from "@pale-cap/core/testing";
import sharp from "sharp";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { declaredRoutes } from "../app";
import type { AppContext } from "../appContext";
import { catalogueEntry, heapValues } from "../testing/stock";
import {
  type MadePart,
  makeJob,
  makePart,
  newId,
  openTestApp,
  readingBody,
  type TestApp,
  testClock,
} from "../testing/testApp";

/** One more than the pool of this application has connections. */
const many = 4;
const at = "2026-11-23T11:50:00.000Z";
const by = { clockId: testClock, personId: null };
const samples = Float32Array.from({ length: 400 }, (_, n) => 0.1 * Math.sin(n / 9));

let test: TestApp;
let jobId: string;
let part: MadePart;
const made = {
  store: newId(),
  step: newId(),
  photo: newId(),
  capture: newId(),
  oldCapture: newId(),
  type: newId(),
  paper: newId(),
  board: newId(),
  run: newId(),
  quote: newId(),
  customer: newId(),
  practiceList: newId(),
  account: newId(),
};
const newAccount = (id: string, login: string) => ({ id, personId: newId(), name: login, login, role: "technician" });
const instrument = newId();
const shelf = { item: newId(), part: newId(), supplier: newId(), order: newId(), line: newId() };
let picture: Buffer;
/** As it was read before a storm. */
let before: JobDetail;
let revisionId: string;
/** A job from here: it stands here already, whoever takes it in. */
let bundle: Buffer;
let notesVersion: number;

const send = (method: "post" | "put" | "patch" | "delete", path: string, body: object) =>
  request(test.app)[method](path).send(body);
const ofJob = (path: string) => `/api/jobs/${jobId}/${path}`;

const store = {
  ...{ name: "Bulk", kind: "bulk", positionId: null, netId: null, capacitanceFarads: 1e-4, expectedVolts: 325 },
  ...{ bleederOhms: null, drainOhms: 1e4 },
};
const step = { kind: "screws", count: 4, size: null, place: null, photoId: null };
const addPhoto = (id: string) =>
  request(test.app)
    .post(ofJob("photos"))
    .field("photo", JSON.stringify({ id, kind: "label", caption: null, takenAt: at, personId: null }))
    .attach("picture", picture, "photo.png");
const addCapture = (id: string) => {
  const rig = { hasLongGroundLead: true, isAcCoupled: true, isIsolationTransformer: false, isBandwidthLimited: false };
  const analysis = analyseCapture(samples, 4e-7, 50);
  const about = {
    ...{ id, netId: part.netId, name: "12 V", loadAmps: 4, rig, analysis, coreVersion, instrument: null },
    measuredAt: at,
  };
  return request(test.app)
    .post(ofJob("captures"))
    .field("about", JSON.stringify({ ...about, ...by }))
    .attach("capture", gzipSync(Buffer.from(samples.buffer)), "samples.gz");
};
const addPaper = (id: string) =>
  request(test.app)
    .post(`/api/board-types/${made.type}/attachments`)
    .field("about", JSON.stringify({ id, kind: "service_manual", name: "manual.pdf" }))
    .attach("paper", Buffer.from("%PDF-1.7 made up"), "manual.pdf");
const meter = {
  ...{ name: "Shop meter", kind: "multimeter", driver: "bench_lines", transport: "tcp", host: "127.0.0.1", port: 1 },
  ...{ devicePath: null, baudRate: null, isEnabled: false },
};
const otherPart = { kind: "fuse", maker: "Ostrel", typeNumber: "T4A", ratings: { ratedAmps: 4 }, priceMinor: 30 };
const newHeap = (id: string) => ({
  ...{ id, cataloguePartId: shelf.part, marking: null, values: heapValues, count: 20, personId: null },
});
const supplier = { name: "Brackwater Parts", shippingMinor: 690, freeFromMinor: null, days: 2, isUsed: true };
const newOrder = (id: string, lineId: string) => ({
  ...{ id, supplierId: shelf.supplier, note: null, personId: null },
  lines: [{ id: lineId, cataloguePartId: shelf.part, count: 50, unitMinor: 7 }],
});
const firstBench = "019a0000-0000-7000-8000-00000000be00";
/** No instrument answers here: what cannot begin is refused, each time. */
const runPlan = () => ({
  kind: "load_run" as const,
  steps: [{ loads: [{ netId: part.netId, amps: 1 }], dwellSeconds: 10 }],
  sampleSeconds: 1,
  rails: [{ netId: part.netId, loadId: newId(), lowVolts: 11, highVolts: 13, mostAmps: 5, heldVolts: null }],
  ...{ mainsId: null, mostInputWatts: null, ripple: null, spots: [], mostKelvinPerMinute: 10 },
});
const newQuote = (id: string) => ({
  ...{ id, taxRatio: 0.19, validDays: 14, note: null, at, ...by },
  lines: [{ kind: "labour", words: null, quantity: 45, unitMinor: 100 }],
});
const acceptance = () => ({ id: newId(), key: "charge", reason: "drained on the bench", acceptedAt: at, ...by });
/** A write to a row as it was read before the storm: one of them finds it still so. */
const edit = (more: object) => ({ writeId: newId(), version: 1, ...more });

beforeAll(async () => {
  test = await openTestApp({ poolSize: many - 1 });
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
  picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#7a5c33" } })
    .png()
    .toBuffer();
  await send("post", ofJob("energy-stores"), { id: made.store, ...store }).expect(201);
  await send("post", ofJob("teardown-steps"), { id: made.step, ...step, doneAt: at, personId: null }).expect(201);
  await addPhoto(made.photo).expect(201);
  await addCapture(made.capture).expect(201);
  await addCapture(made.oldCapture).expect(201);
  await send("post", ofJob("boards"), { id: made.board, name: "Spare" }).expect(201);
  await send("post", ofJob("board-type"), { id: made.type, boardTypeId: null, name: "Halden board" }).expect(201);
  await addPaper(made.paper).expect(201);
  const [type] = (await request(test.app).get("/api/board-types")).body as readonly BoardTypeLine[];
  revisionId = type?.revisionId as string;
  const papers = (await request(test.app).get(`/api/board-types/${made.type}/papers`)).body as BoardTypePapers;
  notesVersion = papers.version;
  await send("post", "/api/instruments", { id: instrument, values: meter }).expect(201);
  await send("post", "/api/accounts", newAccount(made.account, "stood")).expect(201);
  await send("post", ofJob("quotes"), newQuote(made.quote)).expect(201);
  await test.inScope(async ({ rows }) => {
    const rig = { isIsolationTransformer: false, isCaseClosed: false };
    const run = { id: made.run, jobId, plan: runPlan(), isAttendedOnly: true, isSimulated: false, rig, personId: null };
    await rows.proofRuns.insert({ ...run, begunAt: new Date() });
  });
  await test.inScope(async ({ rows }) => {
    await rows.customers.insert({ id: made.customer, name: "R. Ahlquist", contact: null, erasedAt: null });
    await rows.jobCustomers.insert({ jobId, customerId: made.customer, ownersWords: null });
  });
  const bundled = await makeJob(test.app);
  const asked = `/api/jobs/${bundled}/bundle?customers=no`;
  bundle = (await request(test.app).get(asked).responseType("blob").expect(200)).body as Buffer;
  await test.inScope(({ rows }) => rows.catalogueParts.insert({ ...catalogueEntry, id: shelf.part }));
  await send("post", "/api/stock", newHeap(shelf.item)).expect(201);
  await send("post", "/api/suppliers", { id: shelf.supplier, values: supplier }).expect(201);
  await send("post", "/api/orders", newOrder(shelf.order, shelf.line)).expect(201);
});
afterAll(() => test.close());
beforeEach(async () => {
  before = (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
});

/** How many of them may win: all, one (the rest is told that somebody was faster), as many as there is room for, or none. */
type Winners = "all" | "one" | "some" | "none";

/** Each write of the product, as so many send it at once; those that close or delete come last. */
const storms: Readonly<Record<string, readonly [Winners, (n: number) => PromiseLike<{ readonly status: number }>]>> = {
  "post /api/jobs": [
    "all",
    () =>
      send("post", "/api/jobs", {
        ...{
          id: newId(),
          deviceKind: "monitor",
          deviceMaker: null,
          deviceModel: null,
          complaint: "dead",
          personId: null,
        },
      }),
  ],
  "post /api/jobs/:jobId/readings": ["all", () => send("post", ofJob("readings"), readingBody(part))],
  "post /api/jobs/:jobId/signs": [
    "all",
    () =>
      send("post", ofJob("signs"), {
        ...{ id: newId(), fittedPartId: part.partId, observedAt: at, ...by },
        observations: [{ id: newId(), sign: "vented", state: "seen" }],
      }),
  ],
  "post /api/jobs/:jobId/overrules": [
    "all",
    () =>
      send("post", ofJob("overrules"), {
        ...{ id: newId(), fittedPartId: part.partId, verdict: "sound", reason: "swapped", at, ...by },
      }),
  ],
  "post /api/jobs/:jobId/charge-events": [
    "all",
    () =>
      send("post", ofJob("charge-events"), {
        ...{ id: newId(), storeId: made.store, kind: "voltage_measured", volts: 3.2, resistanceOhms: null },
        ...{ drainItem: null, isMeterProved: true, at, ...by },
      }),
  ],
  "post /api/jobs/:jobId/power-events": [
    "all",
    () =>
      send("post", ofJob("power-events"), {
        ...{ id: newId(), kind: "short_test", resistanceOhms: 4e3, hasShort: false, note: null, at, ...by },
      }),
  ],
  "post /api/jobs/:jobId/acts": [
    "all",
    () =>
      send("post", ofJob("acts"), {
        ...{ id: newId(), kind: "outcome", subjectId: null, word: "declined", note: null, at, ...by },
      }),
  ],
  "post /api/jobs/:jobId/ticks": [
    "one",
    () =>
      send("post", ofJob("ticks"), {
        ...{ id: newId(), step: "removed", isDone: true, at, ...by },
        items: [{ id: newId(), positionId: part.positionId, fittedPartId: null, stripeDegrees: 90 }],
      }),
  ],
  "post /api/jobs/:jobId/teardown-returns": [
    "all",
    () => send("post", ofJob("teardown-returns"), { id: newId(), stepId: made.step, countIn: 3, at, ...by }),
  ],
  // No simulated bench answers here: what cannot be laid there is refused, each time.
  "post /api/practice": [
    "none",
    () => send("post", "/api/practice", { id: newId(), supply: "masked-bank", listId: null, personId: null }),
  ],
  "post /api/jobs/:jobId/practice/acts": [
    "none",
    () => send("post", ofJob("practice/acts"), { id: newId(), act: { kind: "look" }, personId: null }),
  ],
  "post /api/jobs/:jobId/practice/hints": [
    "none",
    () => send("post", ofJob("practice/hints"), { id: newId(), level: 1, personId: null }),
  ],
  "post /api/jobs/:jobId/practice/end": [
    "none",
    () =>
      send("post", ofJob("practice/end"), {
        ...{ id: newId(), answer: [{ at: "C1", badProbability: 0.5 }], personId: null },
      }),
  ],
  "post /api/practice/lists": [
    "all",
    () =>
      send("post", "/api/practice/lists", {
        ...{ id: newId(), name: "First week", passMark: 70, supplies: ["masked-bank"], personId: null },
      }),
  ],
  "delete /api/practice/lists/:listId": [
    "all",
    () => send("delete", `/api/practice/lists/${made.practiceList}`, { writeId: newId(), version: 1 }),
  ],
  "post /api/jobs/:jobId/quotes": ["all", () => send("post", ofJob("quotes"), newQuote(newId()))],
  "post /api/jobs/:jobId/quote-answers": [
    "all",
    () =>
      send("post", ofJob("quote-answers"), {
        ...{
          id: newId(),
          quoteId: made.quote,
          word: "yes",
          limitMinor: null,
          byWhom: "the owner",
          way: "phone",
          at,
          ...by,
        },
      }),
  ],
  "post /api/jobs/:jobId/acceptances": ["all", () => send("post", ofJob("acceptances"), acceptance())],
  "post /api/jobs/:jobId/facts": [
    "all",
    () => send("post", ofJob("facts"), { facts: [{ kind: "acceptance", body: acceptance() }] }),
  ],
  "post /api/jobs/:jobId/exports": [
    "all",
    () => send("post", ofJob("exports"), { id: newId(), what: "report", personId: null }),
  ],
  "post /api/jobs/:jobId/board-edits": [
    "all",
    (n) =>
      send("post", ofJob("board-edits"), {
        id: newId(),
        changes: [
          { table: "net", operation: "insert", id: newId(), version: null, values: { ...netValues, name: `r${n}` } },
        ],
      }),
  ],
  "post /api/jobs/:jobId/energy-stores": ["all", () => send("post", ofJob("energy-stores"), { id: newId(), ...store })],
  "post /api/jobs/:jobId/teardown-steps": [
    "all",
    () => send("post", ofJob("teardown-steps"), { id: newId(), ...step, doneAt: at, personId: null }),
  ],
  "post /api/jobs/:jobId/photos": ["all", () => addPhoto(newId())],
  "post /api/jobs/:jobId/captures": ["all", () => addCapture(newId())],
  "post /api/board-types/:boardTypeId/attachments": ["some", () => addPaper(newId())],
  "post /api/jobs/:jobId/board-type": [
    "some",
    (n) => send("post", ofJob("board-type"), { id: newId(), boardTypeId: null, name: `type ${n % 8}` }),
  ],
  "post /api/jobs/:jobId/family/units": [
    "all",
    () =>
      send("post", ofJob("family/units"), {
        ...{ id: newId(), familyName: "many", units: [{ id: newId(), serial: null }] },
      }),
  ],
  "post /api/instruments": ["some", () => send("post", "/api/instruments", { id: newId(), values: meter })],
  "put /api/jobs/:jobId/plans/:positionId": [
    "one",
    () =>
      send("put", ofJob(`plans/${part.positionId}`), {
        ...{ writeId: newId(), version: 0, cataloguePartId: null },
        overrides: {
          ...{ diameterMaxMetres: null, heightMaxMetres: null, pitchMetres: null, esrMaxOhms: null },
          ...{ rippleAmpsRms: null, ambientCelsius: null },
        },
      }),
  ],
  "put /api/jobs/:jobId/verdict-summary": [
    "one",
    (n) => send("put", ofJob("verdict-summary"), edit({ version: before.job.version, text: `dried ${n}` })),
  ],
  "patch /api/jobs/:jobId/intake": [
    "one",
    (n) => {
      const { job } = before;
      const names = Object.keys(intakeSchema.fields) as (keyof Intake)[];
      const values = { ...Object.fromEntries(names.map((name) => [name, job[name]])), complaint: `dead ${n}` };
      return send("patch", ofJob("intake"), edit({ version: job.version, values }));
    },
  ],
  "patch /api/jobs/:jobId/energy-stores/:storeId": [
    "one",
    (n) => send("patch", ofJob(`energy-stores/${made.store}`), edit({ values: { ...store, drainOhms: 1e4 + n } })),
  ],
  "patch /api/jobs/:jobId/teardown-steps/:stepId": [
    "one",
    (n) =>
      send(
        "patch",
        ofJob(`teardown-steps/${made.step}`),
        edit({ values: { ...step, count: n + 1, isRemoved: false } }),
      ),
  ],
  "patch /api/jobs/:jobId/photos/:photoId": [
    "one",
    (n) => {
      const values = { kind: "label", caption: `no. ${n}`, marks: [], isRemoved: false };
      return send("patch", ofJob(`photos/${made.photo}`), edit({ values }));
    },
  ],
  "patch /api/instruments/:instrumentId": [
    "one",
    (n) => send("patch", `/api/instruments/${instrument}`, edit({ values: { ...meter, name: `meter ${n}` } })),
  ],
  "put /api/board-types/:boardTypeId/papers": [
    "one",
    (n) =>
      send(
        "put",
        `/api/board-types/${made.type}/papers`,
        edit({ version: notesVersion, benchNotes: { pins: [], note: `no. ${n}` } }),
      ),
  ],
  "post /api/house-rules/changes": [
    "one",
    (n) =>
      send("post", "/api/house-rules/changes", {
        ...{ id: newId(), key: "shop.orderDays", value: n + 4, reason: null, version: 0, changedAt: at, ...by },
      }),
  ],
  "post /api/jobs/:jobId/board-type/use": [
    "all",
    async () => send("post", `/api/jobs/${await makeJob(test.app)}/board-type/use`, { id: newId(), revisionId }),
  ],
  "put /api/jobs/:jobId/captures/:captureId/analysis": [
    "one",
    () => {
      const analysis = analyseCapture(samples, 4e-7, 50);
      return send("put", ofJob(`captures/${made.oldCapture}/analysis`), {
        ...{ writeId: newId(), version: 1, coreVersion, analysis },
      });
    },
  ],
  "post /api/catalogue/imports": [
    "all",
    () =>
      request(test.app)
        .post("/api/catalogue/imports")
        .field("about", JSON.stringify({ id: newId(), source: "list.csv", rowCount: 1, personId: null }))
        .attach("catalogue", gzipSync(JSON.stringify([catalogueEntry])), "rows.json.gz"),
  ],
  "post /api/catalogue/components/imports": [
    "all",
    () =>
      request(test.app)
        .post("/api/catalogue/components/imports")
        .field("about", JSON.stringify({ id: newId(), source: "list.csv", rowCount: 1, personId: null }))
        .attach("catalogue", gzipSync(JSON.stringify([otherPart])), "rows.json.gz"),
  ],
  "post /api/benches": [
    "some",
    (n) => send("post", "/api/benches", { id: newId(), name: `Bench ${n}`, hasSimulated: n === 0 }),
  ],
  "patch /api/benches/:benchId": [
    "one",
    (n) => send("patch", `/api/benches/${firstBench}`, edit({ name: `Bench by the window ${n}` })),
  ],
  "put /api/benches/:benchId/jobs/:jobId": [
    "all",
    () => send("put", `/api/benches/${firstBench}/jobs/${jobId}`, { writeId: newId() }),
  ],
  "delete /api/benches/:benchId/jobs/:jobId": [
    "all",
    () => send("delete", `/api/benches/${firstBench}/jobs/${jobId}`, { writeId: newId() }),
  ],
  "post /api/accounts": ["one", () => send("post", "/api/accounts", newAccount(newId(), "fresh"))],
  "patch /api/accounts/:accountId": [
    "one",
    (n) =>
      send(
        "patch",
        `/api/accounts/${made.account}`,
        edit({ name: `Name ${n}`, login: "stood", role: "technician", isActive: true }),
      ),
  ],
  "post /api/accounts/:accountId/sign-out": [
    "all",
    () => send("post", `/api/accounts/${made.account}/sign-out`, { id: newId() }),
  ],
  "post /api/jobs/:jobId/runs": [
    "none",
    () =>
      send("post", ofJob("runs"), {
        id: newId(),
        plan: runPlan(),
        switchesMains: true,
        isOverloadMeant: false,
        isCaseClosed: false,
        personId: null,
      }),
  ],
  "post /api/jobs/:jobId/runs/:runId/words": [
    "all",
    () => send("post", ofJob(`runs/${made.run}/words`), { id: newId(), word: "pause", personId: null }),
  ],
  "post /api/stock": ["all", () => send("post", "/api/stock", newHeap(newId()))],
  "patch /api/stock/:itemId": [
    "one",
    (n) =>
      send(
        "patch",
        `/api/stock/${shelf.item}`,
        edit({ values: { ...heapValues, drawer: `C${n}` }, setAsideReason: null }),
      ),
  ],
  "post /api/stock/:itemId/movements": [
    "some",
    () =>
      send("post", `/api/stock/${shelf.item}/movements`, {
        ...{ id: newId(), kind: "scrapped", pieces: 1, note: null, personId: null },
      }),
  ],
  "post /api/stock/:itemId/acts": [
    "all",
    () =>
      send("post", `/api/stock/${shelf.item}/acts`, {
        ...{ id: newId(), kind: "esr_read", value: 0.02, volts: null, seconds: null, riseKelvin: null },
        ...{ frequencyHertz: 1e5, note: null, personId: null },
      }),
  ],
  "post /api/jobs/:jobId/family/follow": [
    "none",
    () => send("post", ofJob("family/follow"), { id: newId(), unitIds: [newId()] }),
  ],
  "post /api/suppliers": ["all", () => send("post", "/api/suppliers", { id: newId(), values: supplier })],
  "patch /api/suppliers/:supplierId": [
    "one",
    (n) => send("patch", `/api/suppliers/${shelf.supplier}`, edit({ values: { ...supplier, days: n } })),
  ],
  "put /api/suppliers/:supplierId/offers": [
    "all",
    (n) =>
      send("put", `/api/suppliers/${shelf.supplier}/offers`, {
        ...{ writeId: newId(), cataloguePartId: shelf.part, breaks: [[1, n]], stock: null, days: null },
      }),
  ],
  "post /api/orders": ["all", () => send("post", "/api/orders", newOrder(newId(), newId()))],
  "post /api/orders/:orderId/receipts": [
    "all",
    () =>
      send("post", `/api/orders/${shelf.order}/receipts`, {
        ...{ id: newId(), orderLineId: shelf.line, count: 1, drawer: null, lot: null, dateCode: null, pieces: [] },
        ...{ allowedBadRatio: 0.02, personId: null },
      }),
  ],
  "patch /api/orders/:orderId": ["one", () => send("patch", `/api/orders/${shelf.order}`, edit({ isClosed: true }))],
  "delete /api/jobs/:jobId/captures/:captureId": [
    "one",
    () => send("delete", ofJob(`captures/${made.capture}`), edit({})),
  ],
  "post /api/jobs/:jobId/boards": ["all", () => send("post", ofJob("boards"), { id: newId(), name: "Host" })],
  "delete /api/jobs/:jobId/boards/:boardId": [
    "one",
    () => send("delete", ofJob(`boards/${made.board}`), { writeId: newId(), version: 1 }),
  ],
  "put /api/jobs/:jobId/comeback": [
    "one",
    () => send("put", ofJob("comeback"), edit({ version: before.job.version, comebackOf: null, kind: null })),
  ],
  "post /api/bundles/imports": [
    "all",
    () =>
      request(test.app)
        .post("/api/bundles/imports")
        .field("about", JSON.stringify({ id: newId(), personId: null }))
        .attach("bundle", bundle, "bundle.zip"),
  ],
  "post /api/jobs/:jobId/customer/erasure": [
    "all",
    () => send("post", ofJob("customer/erasure"), { id: newId(), customerId: made.customer, personId: null }),
  ],
  "delete /api/attachments/:attachmentId": ["one", () => send("delete", `/api/attachments/${made.paper}`, edit({}))],
  "delete /api/instruments/:instrumentId": [
    "one",
    () => send("delete", `/api/instruments/${instrument}`, edit({ version: 2 })),
  ],
  "post /api/jobs/:jobId/hand-over": [
    "one",
    () =>
      send("post", ofJob("hand-over"), {
        ...{ id: newId(), version: before.job.version, handedOverAt: at, warrantyMonths: 6, spentMinutes: null },
        ...{ note: null, isReopened: false, ...by },
      }),
  ],
};

/** What they change stands outside the database. */
const unstored = new Set([
  ...[`put ${routes.benchSupply}`, `post ${routes.instrumentActs}`, `post ${routes.shop}`],
  `post ${routes.bundlePreview}`,
  // What holds a secret is no write by an id; how many at once are let in is tested with people.
  ...["post", "delete"].flatMap((method) => [`${method} ${routes.session}`, `${method} ${routes.sessionPerson}`]),
  ...[routes.sessionBench, routes.sessionPassword, routes.sessionPin].map((path) => `put ${path}`),
  ...[routes.oneTimeLink, routes.oneTimeLinkUse, routes.accountLink].map((path) => `post ${path}`),
]);

describe("many at once of every write", () => {
  it.each(Object.entries(storms))(
    "%s: nobody fails, and the winners are as many as may be",
    async (_, [winners, one]) => {
      const statuses = (await Promise.all(Array.from({ length: many }, (_, n) => one(n)))).map(({ status }) => status);
      const won = statuses.filter((status) => status < 300).length;
      const lost = statuses.filter((status) => [404, 409, 422].includes(status)).length;
      expect(won + lost, String(statuses)).toBe(many);
      if (winners === "some") expect(won, String(statuses)).toBeGreaterThan(0);
      else expect(won, String(statuses)).toBe({ all: many, one: 1, none: 0 }[winners]);
    },
  );

  it("has a storm for each write that the product declares", () => {
    const context = { heavy: test.heavy, instruments: test.instruments, runs: test.runs, now: () => new Date() };
    const declared = declaredRoutes(context as unknown as AppContext)
      .filter((route) => route.method !== "get")
      .map((route) => `${route.method} ${route.path}`);
    expect(declared.filter((one) => !(one in storms) && !unstored.has(one)).sort()).toEqual([]);
  });
});

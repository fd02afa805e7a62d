import type { JobDetail, Problem } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import {
  benchLines,
  type MadePart,
  makeJob,
  makePart,
  newId,
  openTestApp,
  readingBody,
  type TestApp,
  testClock,
} from "../../testing/testApp";

let test: TestApp;
let shopJob: string;
let practiceJob: string;
const parts = new Map<string, MadePart>();
beforeAll(async () => {
  test = await openTestApp();
  const nowhere = { host: null, port: null, devicePath: null, baudRate: null, isEnabled: false };
  const meter = { kind: "multimeter", driver: "bench_lines", transport: "simulated", ...nowhere } as const;
  const place = { benchId: "019a0000-0000-7000-8000-00000000be00", channel: 1 };
  await test.inScope(({ rows }) =>
    rows.instruments.insert({ id: newId(), version: 1, name: "Simulated meter", ...meter, ...place }),
  );
});
afterAll(() => test.close());
beforeEach(async () => {
  shopJob = await makeJob(test.app);
  practiceJob = await makeJob(test.app, { isPractice: true });
  for (const id of [shopJob, practiceJob]) parts.set(id, await makePart(test.app, id));
});

const load = async (id: string) => (await request(test.app).get(`/api/jobs/${id}`).expect(200)).body as JobDetail;
const read = (id: string, more: object) =>
  request(test.app)
    .post(`/api/jobs/${id}/readings`)
    .send(readingBody(parts.get(id) as MadePart, more));
const charge = (id: string, more: object) =>
  request(test.app)
    .post(`/api/jobs/${id}/charge-events`)
    .send({
      ...{ id: newId(), storeId: null, kind: "mains_connected", volts: null, resistanceOhms: null, drainItem: null },
      ...{ isMeterProved: false, at: "2026-11-23T12:00:00.000Z", clockId: testClock, personId: null, ...more },
    });

describe("a practice job", () => {
  it("is of a realm of its own: on a list of its own, and not on the bench", async () => {
    expect((await load(practiceJob)).job).toMatchObject({ realm: "practice", takesSimulated: true });
    expect((await load(shopJob)).job).toMatchObject({ realm: "shop", takesSimulated: false });
    const ids = async (query: string) => (await benchLines(test, query)).map((line) => line.id);
    expect(await ids("")).toContain(shopJob);
    expect(await ids("")).not.toContain(practiceJob);
    expect(await ids("?state=practice")).toContain(practiceJob);
    expect(await ids("?state=practice")).not.toContain(shopJob);
  });
  it("takes what simulated instruments read, and keeps that they did", async () => {
    await read(practiceJob, { isSimulated: true }).expect(201);
    await read(practiceJob, { instrument: "Simulated meter" }).expect(201);
    await read(practiceJob, {}).expect(201);
    await charge(practiceJob, { isSimulated: true }).expect(201);
    const { readings, chargeEvents } = await load(practiceJob);
    expect(readings.map((one) => one.isSimulated)).toEqual([true, true, false]);
    expect(chargeEvents.map((one) => one.isSimulated)).toEqual([true]);
  });
});

describe("a customer's job", () => {
  it.each([
    ["a reading that says so", () => read(shopJob, { isSimulated: true })],
    ["a reading by a simulated instrument's name", () => read(shopJob, { instrument: "Simulated meter" })],
    ["a charge event that says so", () => charge(shopJob, { isSimulated: true })],
  ])("refuses %s, and stores nothing", async (_name, send) => {
    const answer = await send().expect(409);
    expect((answer.body as Problem).detail).toContain("simulated");
    const { readings, chargeEvents } = await load(shopJob);
    expect([readings, chargeEvents]).toEqual([[], []]);
  });
  it("takes a reading by any other instrument", async () => {
    await read(shopJob, { instrument: "Bench meter" }).expect(201);
    expect((await load(shopJob)).readings[0]?.isSimulated).toBe(false);
  });
});

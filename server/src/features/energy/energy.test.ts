import type { JobDetail, Problem } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import {
  benchLines,
  makeJob,
  makePart,
  newId,
  openTestApp,
  readingBody,
  type TestApp,
  testClock,
} from "../../testing/testApp";

let test: TestApp;
let jobId: string;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());
beforeEach(async () => {
  jobId = await makeJob(test.app);
});

const load = async () => (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
const bench = async () => (await benchLines(test)).find((line) => line.id === jobId);
const store = {
  name: "Bulk",
  kind: "bulk",
  positionId: null as string | null,
  netId: null as string | null,
  capacitanceFarads: 1e-4,
  expectedVolts: 325,
  bleederOhms: null,
  drainOhms: 1e4,
};
const addStore = async () => {
  const id = newId();
  await request(test.app)
    .post(`/api/jobs/${jobId}/energy-stores`)
    .send({ id, ...store })
    .expect(201);
  return id;
};
const event = (more: object) => ({
  id: newId(),
  storeId: null,
  kind: "voltage_measured",
  volts: null,
  resistanceOhms: null,
  drainItem: null as object | null,
  isMeterProved: true,
  at: "2026-11-23T11:50:00.000Z",
  clockId: testClock,
  personId: null,
  ...more,
});
const log = (more: object) => request(test.app).post(`/api/jobs/${jobId}/charge-events`).send(event(more));

describe("energy stores", () => {
  it("are made once and edited from a version", async () => {
    const id = await addStore();
    const edit = (version: number, values: object) =>
      request(test.app)
        .patch(`/api/jobs/${jobId}/energy-stores/${id}`)
        .send({ writeId: newId(), version, values: { ...store, ...values } });
    await edit(1, { capacitanceFarads: 2.2e-4 }).expect(200);
    const stale = await edit(1, { capacitanceFarads: 1 }).expect(409);
    expect((stale.body as Problem).code).toBe("stale_version");
    expect((await load()).energyStores[0]).toMatchObject({ capacitanceFarads: 2.2e-4, version: 2 });
  });
  it("refuse a 10 F bulk and a 5 kV expectation", async () => {
    for (const more of [
      { capacitanceFarads: 10 },
      { expectedVolts: 5000 },
      { drainOhms: 1e-3 },
      { bleederOhms: 0 },
      { kind: "battery" },
    ]) {
      const body = { id: newId(), ...store, ...more };
      await request(test.app).post(`/api/jobs/${jobId}/energy-stores`).send(body).expect(422);
    }
    expect((await load()).energyStores).toEqual([]);
  });
  it("keep the named part of a drain, and predict with it", async () => {
    const lamp = { name: "60 W lamp", kind: "lamp", count: 1, ohms: null, watts: 60, volts: 230 };
    const storeId = await addStore();
    await log({ storeId, volts: 311, at: "2026-11-23T11:59:58.000Z" }).expect(201);
    await log({ storeId, kind: "drain_started", drainItem: lamp, at: "2026-11-23T11:59:59.900Z" }).expect(201);
    expect((await load()).chargeEvents.at(-1)?.drainItem).toEqual(lamp);
    // By the time that somebody reads the bench the voltage is another: it names none.
    expect(await bench()).toMatchObject({ chargeName: "draining", chargeVolts: null });
    const short = { ...lamp, kind: "resistor", ohms: 0.001 };
    const refused = await log({ storeId, kind: "drain_started", drainItem: short }).expect(422);
    expect((refused.body as Problem).errors[0]?.path).toBe("drainItem.ohms");
  });
  it("sit on the job's own board only", async () => {
    const other = await makePart(test.app, await makeJob(test.app));
    const body = { id: newId(), ...store, positionId: other.positionId };
    await request(test.app).post(`/api/jobs/${jobId}/energy-stores`).send(body).expect(409);
    const bank = { id: newId(), ...store, kind: "output_bank", netId: other.netId };
    await request(test.app).post(`/api/jobs/${jobId}/energy-stores`).send(bank).expect(409);
    const id = await addStore();
    for (const values of [
      { ...store, positionId: other.positionId },
      { ...store, netId: other.netId },
    ]) {
      await request(test.app)
        .patch(`/api/jobs/${jobId}/energy-stores/${id}`)
        .send({ writeId: newId(), version: 1, values })
        .expect(409);
    }
    expect((await load()).energyStores).toMatchObject([{ positionId: null, netId: null, version: 1 }]);
    const [first] = ((await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail).boards;
    const [foreign] = ((await request(test.app).get(`/api/jobs/${await makeJob(test.app)}`)).body as JobDetail).boards;
    const make = (boardId?: string) =>
      request(test.app)
        .post(`/api/jobs/${jobId}/energy-stores`)
        .send({ ...store, id: newId(), ...(boardId && { boardId }) });
    expect((await make().expect(201)).body.boardId).toBe(first?.id);
    await make(foreign?.id).expect(409);
    const moved = { ...store, boardId: foreign?.id };
    const made = (await make(first?.id).expect(201)).body as { id: string };
    await request(test.app)
      .patch(`/api/jobs/${jobId}/energy-stores/${made.id}`)
      .send({ writeId: newId(), version: 1, values: moved })
      .expect(409);
  });
});

describe("charge events", () => {
  it("move the bench's charge state, and mains takes the verification back", async () => {
    const storeId = await addStore();
    expect((await bench())?.chargeName).toBe("unknown");
    await log({ storeId, volts: 311, at: "2026-11-23T11:50:00.000Z" }).expect(201);
    expect(await bench()).toMatchObject({ chargeName: "charged", chargeVolts: 311 });
    await log({ storeId, volts: 3.5, at: "2026-11-23T11:54:00.000Z" }).expect(201);
    expect(await bench()).toMatchObject({ chargeName: "drained_once", chargeVolts: 3.5 });
    await log({ storeId, volts: 3.5, at: "2026-11-23T11:55:00.000Z" }).expect(201);
    expect(await bench()).toMatchObject({ chargeName: "verified", chargeVolts: 3.5 });
    await log({ kind: "mains_connected", at: "2026-11-23T11:56:00.000Z" }).expect(201);
    expect((await bench())?.chargeName).toBe("unknown");
  });
  it("let a reading under power take the verification back without being told", async () => {
    const storeId = await addStore();
    const part = await makePart(test.app, jobId);
    await log({ storeId, volts: 311, at: "2026-11-23T11:50:00.000Z" }).expect(201);
    await log({ storeId, volts: 3.5, isDrainOn: true, at: "2026-11-23T11:55:00.000Z" }).expect(201);
    expect((await bench())?.chargeName).toBe("verified");
    const rail = {
      targetKind: "rail",
      targetId: part.netId,
      fittedPartId: null,
      quantity: "dc_voltage",
      value: 12,
      isPowered: true,
    };
    await request(test.app).post(`/api/jobs/${jobId}/readings`).send(readingBody(part, rail)).expect(201);
    expect((await bench())?.chargeName).toBe("unknown");
  });
  it("expire by the application's clock", async () => {
    const storeId = await addStore();
    await log({ storeId, volts: 3.5, isDrainOn: true, at: "2026-11-23T11:55:00.000Z" }).expect(201);
    expect((await bench())?.chargeName).toBe("verified");
    test.setNow(new Date("2026-11-23T12:26:00Z"));
    expect((await bench())?.chargeName).toBe("unknown");
    test.setNow(new Date("2026-11-23T12:00:00Z"));
  });
  it("need a voltage when one was measured, and a store of this job", async () => {
    expect(((await log({}).expect(422)).body as Problem).errors[0]?.path).toBe("volts");
    await log({ storeId: newId(), volts: 1 }).expect(409);
    const storeId = await addStore();
    const otherJob = await makeJob(test.app);
    await request(test.app)
      .post(`/api/jobs/${otherJob}/charge-events`)
      .send(event({ storeId, volts: 1 }))
      .expect(409);
    expect((await load()).chargeEvents).toEqual([]);
  });
  it("are not doubled by a retry", async () => {
    const body = event({ kind: "mains_connected" });
    const post = () => request(test.app).post(`/api/jobs/${jobId}/charge-events`).send(body);
    await post().expect(201);
    await post().expect(200);
    expect((await load()).chargeEvents).toHaveLength(1);
  });
});

describe("the way to mains", () => {
  const post = (more: object) =>
    request(test.app)
      .post(`/api/jobs/${jobId}/power-events`)
      .send({
        id: newId(),
        kind: "fuse_blown",
        resistanceOhms: null,
        hasShort: null,
        note: null,
        at: "2026-11-23T11:50:00.000Z",
        clockId: testClock,
        personId: null,
        ...more,
      });
  it("keeps what blew, what was tested, and why somebody went on", async () => {
    await post({}).expect(201);
    await post({ kind: "short_test", hasShort: false, resistanceOhms: 480e3 }).expect(201);
    await post({ kind: "gate_overruled", note: "fed with limited d.c." }).expect(201);
    const events = (await load()).powerEvents;
    expect(events.map((one) => one.kind)).toEqual(["fuse_blown", "short_test", "gate_overruled"]);
    expect(events[0]).toMatchObject({ at: "2026-11-23T11:50:00.000Z", receivedAt: "2026-11-23T12:00:00.000Z" });
  });
  it("keeps the numbers of a test, and refuses a tick that they contradict", async () => {
    const check = { kind: "gate_check", item: "bridge", hasShort: false, values: [0.95, "open"], reason: null };
    await post(check).expect(201);
    expect((await load()).powerEvents.at(-1)).toMatchObject({
      item: "bridge",
      values: [0.95, "open"],
      subjectId: null,
    });
    for (const [wrong, path] of [
      [{ values: [0.02, "open"] }, "values"],
      [{ values: ["shut"] }, "values[0]"],
      [{ values: [-1] }, "values[0]"],
      [{ item: null }, "item"],
      [{ hasShort: null }, "hasShort"],
      [{ kind: "first_power", sign: null }, "sign"],
    ] as const) {
      const answer = (await post({ ...check, ...wrong }).expect(422)).body as Problem;
      expect([wrong, answer.errors.map((one) => one.path)]).toEqual([wrong, [path]]);
    }
    await post({ ...check, values: [0.02, "open"], hasShort: true }).expect(201);
    const rig = { isIsolationTransformer: true, isSeriesLamp: true, isElectronicLimiter: false };
    await post({ kind: "first_power", sign: "dark", rig }).expect(201);
    expect((await load()).powerEvents.at(-1)).toMatchObject({ sign: "dark", rig, values: [], item: null });
  });
  it("wants a conclusion of a test and a reason of an overrule", async () => {
    expect(((await post({ kind: "short_test" }).expect(422)).body as Problem).errors[0]?.path).toBe("hasShort");
    expect(((await post({ kind: "gate_overruled", note: " " }).expect(422)).body as Problem).errors[0]?.path).toBe(
      "note",
    );
    expect((await load()).powerEvents).toEqual([]);
  });
});

import { type RunningBench, startBench } from "@pale-cap/bench";
import type { Instrument, JobDetail, PracticeListPage, PracticePage, PracticeState } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newId, openTestApp, readingBody, type TestApp, testClock } from "../../testing/testApp";

let bench: RunningBench;
let test: TestApp;
const ines = newId();
const marek = newId();

beforeAll(async () => {
  for (let tries = 0; ; tries++) {
    try {
      bench = await startBench(21_000 + 400 * Math.floor(Math.random() * 25));
      break;
    } catch (error) {
      if (tries > 20) throw error;
    }
  }
  test = await openTestApp({}, "shop", bench.basePort);
  await test.inScope(({ rows }) =>
    rows.people.insertAll([
      { id: ines, name: "Ines" },
      { id: marek, name: "Marek" },
    ]),
  );
});
afterAll(async () => {
  await test.close();
  await bench.close();
});

const post = (path: string, body: object) => request(test.app).post(path).send(body);
async function begin(supply: string, personId: string | null = ines, more: object = {}): Promise<string> {
  const id = newId();
  await post("/api/practice", { id, supply, listId: null, personId, ...more }).expect(201);
  return id;
}
const stateOf = async (jobId: string) =>
  (await request(test.app).get(`/api/jobs/${jobId}/practice`).expect(200)).body as PracticeState;
const detailOf = async (jobId: string) =>
  (await request(test.app).get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
const act = (jobId: string, kind: string, more: object = {}, id = newId()) =>
  post(`/api/jobs/${jobId}/practice/acts`, { id, act: { kind, ...more }, personId: ines });
const end = (jobId: string, answer: Readonly<Record<string, number>>, id = newId()) =>
  post(`/api/jobs/${jobId}/practice/end`, {
    ...{ id, personId: ines },
    answer: Object.entries(answer).map(([at, badProbability]) => ({ at, badProbability })),
  });
const instrumentsOf = async () =>
  (await request(test.app).get("/api/instruments").expect(200)).body.instruments as readonly Instrument[];
const page = async (person = "") =>
  (await request(test.app).get(`/api/practice?person=${person}`).expect(200)).body as PracticePage;

describe("a practice supply", () => {
  it("is a job with its story, label and board, drawn photo and a bench of its own; none of its truth", async () => {
    const jobId = await begin("masked-bank");
    const detail = await detailOf(jobId);
    expect(detail.job).toMatchObject({ realm: "practice", takesSimulated: true, deviceModel: "Linnea 22" });
    expect(detail.job.complaint).toContain("two or three times");
    expect(detail.positions.map((one) => one.designator)).toContain("C12");
    expect(detail.positions).toHaveLength(23);
    expect(detail.nets.find((net) => net.name === "14 V after L2")?.network?.behindNetId).toBe(
      detail.nets.find((net) => net.name === "14 V")?.id,
    );
    expect(detail.job.intakeDetails.labelPlate).toMatchObject({
      inputVoltsLow: 230,
      rails: [
        { name: "14 V", volts: 14, amps: 2.2 },
        { name: "5 V", volts: 5, amps: 1.8 },
      ],
    });
    expect(detail.photos).toHaveLength(1);
    const { benchId } = await stateOf(jobId);
    expect((await instrumentsOf()).filter((one) => one.benchId === benchId)).toHaveLength(6);
    const told = JSON.stringify([detail, await stateOf(jobId)]);
    expect(told).not.toMatch(/hides it|"fate"|"dry"|C12 has dried/);
  });
  it("is refused where there is none of that name, and leaves nothing", async () => {
    const jobs = await test.count("jobs");
    await post("/api/practice", { id: newId(), supply: "no-such", listId: null, personId: ines }).expect(404);
    await post("/api/practice", { id: newId(), supply: "Robert'); --", listId: null, personId: ines }).expect(422);
    expect(await test.count("jobs")).toBe(jobs);
    expect(await test.count("benches")).toBe(1 + (await test.count("practice_supplies")));
  });
  it("takes no room from the shop's own instruments", async () => {
    const most = 1 + (await instrumentsOf()).length;
    await post("/api/house-rules/changes", {
      ...{ id: newId(), key: "instruments.mostCount", value: most - 6, reason: null, version: 0, personId: null },
      ...{ changedAt: "2026-11-23T11:59:00.000Z", clockId: testClock },
    }).expect(201);
    const values = {
      ...{
        name: "Shop meter",
        kind: "multimeter",
        driver: "bench_lines",
        transport: "tcp",
        host: "127.0.0.1",
        port: 1,
      },
      ...{ devicePath: null, baudRate: null, isEnabled: false },
    };
    await post("/api/instruments", { id: newId(), values }).expect(201);
  });
  it("stays apart: it is in no casebook, no search and no list of the shop's jobs", async () => {
    await begin("bulk-open");
    const shop = (await request(test.app).get("/api/bench").expect(200)).body;
    expect(JSON.stringify(shop)).not.toContain("Ostra 65");
    await test.heavy.settled();
    expect(await test.count("closed_jobs")).toBe(0);
    expect(await test.count("job_words")).toBe(0);
  });
});

describe("the drawers of the shop", () => {
  it("give nothing to a practice job", async () => {
    const jobId = await begin("masked-bank");
    const place = (await detailOf(jobId)).positions.find((one) => one.designator === "C12");
    const answer = await request(test.app)
      .put(`/api/jobs/${jobId}/plans/${place?.id}`)
      .send({
        ...{ writeId: newId(), version: 0, cataloguePartId: newId(), isFromDrawer: true },
        overrides: {
          ...{ diameterMaxMetres: null, heightMaxMetres: null, pitchMetres: null, esrMaxOhms: null },
          ...{ rippleAmpsRms: null, ambientCelsius: null },
        },
      });
    expect(answer.status).toBe(409);
    expect(answer.body.detail).toContain("Nothing leaves a drawer for a practice job");
  });
});

describe("two learners at once", () => {
  it("do not see each other's supply", async () => {
    const [first, second] = await Promise.all([begin("rectifier-short", ines), begin("rectifier-short", marek)]);
    await act(first, "renew", { at: "D8" }).expect(201);
    await act(first, "mains", { isOn: true, lampWatts: 60 }).expect(201);
    const [own, other] = await Promise.all([stateOf(first), stateOf(second)]);
    expect(own.benchId).not.toBe(other.benchId);
    expect(own.state?.isMainsOn).toBe(true);
    expect(other.state?.isMainsOn).toBe(false);
    expect(other.acts).toEqual([]);
    const [mine] = own.acts.at(-1)?.told ?? [];
    expect(mine?.glowRatio).toBeLessThan(0.5);
    await act(second, "mains", { isOn: true, lampWatts: 60 }).expect(201);
    await act(second, "listen").expect(201);
    expect((await stateOf(second)).acts.at(-1)?.told[0]?.code).toBe("ticks");
  });
});

describe("an act of the hands", () => {
  it("happens once, however often it is sent", async () => {
    const jobId = await begin("fuse-and-transistor");
    const id = newId();
    for (const at of ["F1", "R9"]) await act(jobId, "renew", { at }).expect(201);
    const press = () => act(jobId, "mains", { isOn: true, lampWatts: null }, id);
    const answers = await Promise.all([press(), press(), press()]);
    expect(answers.map((one) => one.status).sort()).toEqual([200, 200, 201]);
    const { acts, events } = await stateOf(jobId);
    expect(acts).toHaveLength(3);
    expect(events.map((one) => one.code)).toEqual(["power_untested", "fuse_blown"]);
    const kept = await test.inScope(({ rows }) => rows.practiceEvents.count({ jobId }));
    expect(kept).toBe(2);
  });
  it("is told and kept with its minutes, and refused where it is none", async () => {
    const jobId = await begin("buck-dried");
    await act(jobId, "look", { at: "C5" }).expect(201);
    await act(jobId, "saw").expect(422);
    await act(jobId, "take_out", { at: "C99" }).expect(201);
    const { acts } = await stateOf(jobId);
    expect(acts.map((one) => [one.told[0]?.code, one.minutes])).toEqual([
      ["looks", 0.25],
      ["not_there", 4],
    ]);
    const [shopJob] = (await test.inScope(({ sql }) => sql<{ id: string }>("SELECT gen_random_uuid() AS id"))) as {
      id: string;
    }[];
    await act(shopJob?.id as string, "look").expect(404);
  });
  it("outlives its bench: a bench that was started anew has the supply as it was left", async () => {
    const jobId = await begin("dried-output");
    await act(jobId, "take_out", { at: "C31", isPreheated: true }).expect(201);
    const part = { microfarads: 1500, volts: 16, capacitorClass: "lowz", isReversed: false };
    await act(jobId, "fit", { at: "C31", part }).expect(201);
    await act(jobId, "lift", { at: "C32", isPreheated: true }).expect(201);
    const { basePort } = bench;
    await bench.close();
    expect((await stateOf(jobId)).state).toBeNull();
    bench = await startBench(basePort);
    const { state, acts } = await stateOf(jobId);
    expect(state?.lifted).toEqual(["C32"]);
    expect(acts).toHaveLength(3);
    await act(jobId, "look", { at: "C31" }).expect(201);
    expect((await stateOf(jobId)).acts.at(-1)?.told[0]?.code).toBe("looks_clean");
  });
});

describe("the end", () => {
  it("tells the truth, the best way and the score, once; a later one is refused and the bench is free again", async () => {
    const jobId = await begin("buck-dried");
    const detail = await detailOf(jobId);
    const part = detail.positions.find((one) => one.designator === "C5");
    const fitted = detail.fittedParts.find((one) => one.positionId === part?.id);
    const made = { positionId: part?.id as string, partId: fitted?.id as string, netId: part?.netId as string };
    const reading = readingBody(made, { value: 1.4, isSimulated: true });
    await post(`/api/jobs/${jobId}/readings`, reading).expect(201);
    await post(`/api/jobs/${jobId}/practice/hints`, { id: newId(), level: 1, personId: ines }).expect(201);
    const sure = Object.fromEntries(detail.positions.map((one) => [one.designator, 0.02]));
    const id = newId();
    const answer = { ...sure, C5: 0.98, C6: 0.95, outside: 0.02 };
    const ended = (await end(jobId, answer, id).expect(201)).body as PracticeState;
    expect(ended.result?.bad).toMatchObject({ C5: true, C6: true, C1: false });
    expect(ended.result?.answer).toContain("C5 and C6");
    expect(ended.result?.best.length).toBeGreaterThan(10);
    expect(ended.result?.debrief).toMatchObject({ badLeft: [], soundCondemned: [] });
    expect(ended.result?.debrief.steps.map((one) => one.kind)).toEqual(["esr", "hint"]);
    expect(ended.result?.debrief.breaches).toContainEqual({ code: "hint_1", count: 1, points: 2 });
    expect(ended.result?.debrief.score.total).toBeGreaterThan(90);
    await end(jobId, answer, id).expect(200);
    await end(jobId, { ...answer, C5: 0.1 }).expect(409);
    await act(jobId, "look").expect(409);
    expect((await instrumentsOf()).filter((one) => one.benchId === ended.benchId)).toEqual([]);
    expect((await stateOf(jobId)).result?.debrief.score.total).toBe(ended.result?.debrief.score.total);
  });
  it("is no pass with what could have hurt somebody", async () => {
    const jobId = await begin("buck-ceramic");
    const hot = await begin("drain-first");
    await act(hot, "mains", { isOn: true, lampWatts: 60 }).expect(201);
    await act(hot, "mains", { isOn: false }).expect(201);
    await act(hot, "lift", { at: "C3" }).expect(201);
    const detail = await detailOf(hot);
    const truth = Object.fromEntries(detail.positions.map((one) => [one.designator, one.designator === "R4" ? 1 : 0]));
    const { result } = (await end(hot, { ...truth, outside: 0 }).expect(201)).body as PracticeState;
    expect(result?.debrief.score).toMatchObject({ brier: 0, isFatal: true, isPassed: false });
    expect(result?.debrief.skills.draining).toEqual({ good: 0, total: 1 });
    const own = await page(ines);
    expect(own.lines.find((one) => one.jobId === hot)).toMatchObject({ isPassed: false, isFatal: true });
    expect(own.course).toHaveLength(own.lines.filter((one) => one.endedAt !== null).length);
    expect(own.course.at(-1)).toEqual(own.skills);
    expect((await page(ines)).lines.find((one) => one.jobId === jobId)?.endedAt).toBeNull();
  });
});

describe("the practice page", () => {
  it("shows what there is, what one person did, and what is proposed next", async () => {
    const all = await page();
    expect(all.offered?.length).toBeGreaterThanOrEqual(30);
    expect(all.skills.map((one) => one.skill)).toEqual(["draining", "in_circuit", "cascades", "choosing", "proving"]);
    const own = await page(marek);
    expect(own.lines.every((one) => one.personId === marek)).toBe(true);
    expect(own.skills.every((one) => one.total === 0)).toBe(true);
    // Nothing is known of him: the supply that asks for all skills at once, the easiest first.
    const next = own.offered?.find((one) => one.name === own.next);
    expect(next?.skills.length).toBe(Math.max(...(own.offered ?? []).map((one) => one.skills.length)));
  });
  it("has lists that somebody has to pass, and tells who did", async () => {
    const id = newId();
    const list = { id, name: "First week", passMark: 60, supplies: ["buck-dried"], personId: ines };
    await post("/api/practice/lists", list).expect(201);
    const jobId = await begin("buck-dried", marek, { listId: id });
    const listPage = async () =>
      (await request(test.app).get(`/api/practice/lists/${id}`).expect(200)).body as PracticeListPage;
    expect((await listPage()).people).toEqual([
      { personId: marek, passed: [], tried: ["buck-dried"], isPassed: false },
    ]);
    const detail = await detailOf(jobId);
    const sure = Object.fromEntries(detail.positions.map((one) => [one.designator, 0.02]));
    await end(jobId, { ...sure, C5: 0.98, C6: 0.98, outside: 0.02 }).expect(201);
    expect((await listPage()).people).toMatchObject([{ personId: marek, passed: ["buck-dried"], isPassed: true }]);
    await request(test.app).delete(`/api/practice/lists/${id}`).send({ writeId: newId(), version: 1 }).expect(204);
    expect((await page()).lists).toEqual([]);
  });
});

describe("a supply made by chance", () => {
  it("is made when it is begun, by its number", async () => {
    const jobId = await begin("made-1-5");
    const { title, story } = await stateOf(jobId);
    expect(title).toContain("number 5");
    expect(story).toMatch(/^The owner says: /);
    await post("/api/practice", { id: newId(), supply: "made-9-5", listId: null, personId: null }).expect(404);
  });
});

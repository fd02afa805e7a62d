import type { CasebookPage, ChangeLine, JobDetail, KindPage, QualityPage, SeriesPage } from "@pale-cap/contract";
import { foldHouseRules, jobFacts, jobRules } from "@pale-cap/contract";
import { explainJob, type JobFacts, judgeBoard } from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import {
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
const by = { clockId: testClock, personId: null };
const at = "2026-11-23T11:50:00.000Z";

beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const get = async <T>(path: string) => (await request(test.app).get(path).expect(200)).body as T;
const post = (path: string, body: object, status = 201) => request(test.app).post(path).send(body).expect(status);

interface Unit {
  readonly jobId: string;
  readonly part: MadePart;
}

/** A unit with one output capacitor, read off the board. */
async function unit(model: string, ohms: number, symptoms: string[] = [], more: object = {}): Promise<Unit> {
  const jobId = await makeJob(test.app, {
    deviceKind: "monitor",
    deviceMaker: "Quorvane",
    deviceModel: model,
    ...more,
  });
  const part = await makePart(test.app, jobId, "C21");
  await test.inScope(({ rows }) => rows.jobs.update({ symptoms }, { id: jobId }));
  await post(`/api/jobs/${jobId}/readings`, readingBody(part, { value: ohms, circuitState: "out" }));
  return { jobId, part };
}

async function close(one: Unit, outcome = "repaired"): Promise<void> {
  const { jobId, part } = one;
  const item = { id: newId(), positionId: part.positionId, fittedPartId: null, stripeDegrees: 90 };
  await post(`/api/jobs/${jobId}/ticks`, { id: newId(), step: "removed", isDone: true, at, ...by, items: [item] });
  await post(`/api/jobs/${jobId}/acts`, {
    ...{ id: newId(), kind: "outcome", subjectId: null, word: outcome, note: null, at, ...by },
  });
  await handOver(one);
}

async function handOver({ jobId }: Unit): Promise<void> {
  const { job } = await get<JobDetail>(`/api/jobs/${jobId}`);
  await post(
    `/api/jobs/${jobId}/hand-over`,
    {
      ...{ id: newId(), version: job.version, handedOverAt: at, warrantyMonths: 6, spentMinutes: 40, note: null },
      ...{ isReopened: false, ...by },
    },
    200,
  );
  await test.heavy.settled();
}

async function rule(key: string, value: unknown): Promise<void> {
  const before = await get<readonly { key: string; sequence: number }[]>("/api/house-rules/changes");
  const version = before.filter((one) => one.key === key).at(-1)?.sequence ?? 0;
  await post("/api/house-rules/changes", { id: newId(), key, value, reason: null, changedAt: at, version, ...by });
}

const factsOf = async (jobId: string): Promise<JobFacts> => jobFacts(await get<JobDetail>(`/api/jobs/${jobId}`));

describe("the casebook", () => {
  let units: Unit[];
  beforeAll(async () => {
    units = [];
    for (let n = 0; n < 6; n++) {
      const one = await unit("Halden 24", n < 5 ? 2.4 : 0.04, ["dead"], { complaint: "pulses, then dead" });
      await close(one);
      units.push(one);
    }
    await close(await unit("Terrace 43", 0.04));
  });

  it("finds a job by any of its words, and a model that is spelt another way, and says so", async () => {
    const found = await get<CasebookPage>("/api/casebook?q=pulses%20halden");
    expect(found).toMatchObject({ total: 6, respelt: [] });
    expect(found.lines[0]).toMatchObject({ deviceModel: "Halden 24", outcome: "repaired" });
    const misspelt = await get<CasebookPage>("/api/casebook?q=haldn");
    expect(misspelt.total).toBe(6);
    expect(misspelt.respelt).toEqual([{ asked: "haldn", taken: ["halden"] }]);
    expect((await get<CasebookPage>("/api/casebook?q=xyzzyq")).total).toBe(0);
    expect((await get<CasebookPage>("/api/casebook?model=quorvane%7Cterrace%2043")).total).toBe(1);
  });

  it("counts a place of a model with its interval, and tells too few as too few", async () => {
    const kind = await get<KindPage>("/api/casebook/kind?maker=Quorvane&model=halden%2024");
    expect(kind.seenCount).toBe(6);
    expect(kind.places[0]).toMatchObject({ place: "C21", failedCount: 5, seenCount: 6, section: "output" });
    expect(kind.places[0]?.share?.lowRatio).toBeGreaterThan(0.4);
    expect(kind.medianMinutes).toBe(40);
    // Whoever leaves the maker out means the one of whom they came.
    expect((await get<KindPage>("/api/casebook/kind?model=Halden%2024")).seenCount).toBe(6);
    const few = await get<KindPage>("/api/casebook/kind?maker=Quorvane&model=Terrace%2043");
    expect(few.places[0]).toMatchObject({ seenCount: 1, share: null });
  });

  it("moves what a new one of the kind is judged by, and never a job by its own result", async () => {
    const next = await unit("Halden 24", 0.075);
    const facts = await factsOf(next.jobId);
    expect(facts.record?.parts).toContainEqual({ level: "place", subject: "C21", failedCount: 5, seenCount: 6 });
    const rules = jobRules(foldHouseRules([]));
    const chance = (one: JobFacts) =>
      judgeBoard(one, rules.judgement).get(next.part.positionId)?.failedProbability ?? 0;
    expect(chance(facts)).toBeGreaterThan(chance({ ...facts, record: null }));
    const own = await factsOf((units[0] as Unit).jobId);
    expect(own.record?.parts.find((one) => one.level === "place")).toMatchObject({ failedCount: 4, seenCount: 5 });
    // A cause counts where it was shown: five of the six; the model's own count comes on top of that of its like.
    const prior = facts.record?.faults.filter((one) => one.kind === "prior" && one.count > 0) ?? [];
    expect(prior.map((one) => [one.of, one.count, one.total])).toContainEqual(["model", 5, 5]);
    const explained = explainJob({ ...facts, symptoms: ["dead"] }, judgeBoard(facts, rules.judgement), rules);
    expect(explained?.recorded.some((one) => one.of === "model" && one.probability > one.defaultProbability)).toBe(
      true,
    );
  });

  it("leaves out what the house rules leave out, and all of it where they say so", async () => {
    const changes = await get<ChangeLine[]>("/api/casebook/changes");
    const prior = changes.find((one) => one.kind === "prior" && one.count === 5) as ChangeLine;
    expect(prior.probability).toBeGreaterThan(prior.defaultProbability);
    const next = await unit("Halden 24", 0.075);
    const told = async () =>
      (await factsOf(next.jobId)).record?.faults.filter(
        (one) => one.fault === prior.fault && one.of === "topology" && one.total > 0,
      ) ?? [];
    expect((await told()).some((one) => one.kind === "prior")).toBe(true);
    await rule("record.leftOut", [prior.code]);
    expect((await told()).some((one) => one.kind === "prior")).toBe(false);
    await rule("record.isUsed", false);
    expect((await factsOf(next.jobId)).record).toBeNull();
    await rule("record.isUsed", true);
    await rule("record.leftOut", []);
  });

  it("takes a job out of its counts when it is opened again, and a cause that came back with the same fault", async () => {
    const counted = async () =>
      (await get<KindPage>("/api/casebook/kind?maker=Quorvane&model=Halden%2024")).places[0]?.seenCount;
    const one = units[5] as Unit;
    const { job } = await get<JobDetail>(`/api/jobs/${one.jobId}`);
    const body = {
      id: newId(),
      version: job.version,
      handedOverAt: at,
      warrantyMonths: 6,
      spentMinutes: 40,
      note: "again",
    };
    await post(`/api/jobs/${one.jobId}/hand-over`, { ...body, isReopened: true, ...by }, 200);
    await test.heavy.settled();
    expect(await counted()).toBe(5);
    const rows = await test.inScope(({ sql }) =>
      sql<{ n: number }>(
        "SELECT count(*)::int AS n FROM record_tallies WHERE total_count < seen_count OR seen_count < 0",
      ),
    );
    expect(rows[0]?.n).toBe(0);
    await handOver(one);
    expect(await counted()).toBe(6);
    const shown = async () =>
      (await get<KindPage>("/api/casebook/kind?maker=Quorvane&model=Halden%2024")).causes.map((cause) => cause.total);
    expect(await shown()).toEqual([5]);
    const back = await makeJob(test.app, { comebackOf: units[0]?.jobId, complaint: "dead again" });
    const returned = await get<JobDetail>(`/api/jobs/${back}`);
    const edit = { writeId: newId(), version: returned.job.version, comebackOf: units[0]?.jobId, kind: "same_fault" };
    await request(test.app).put(`/api/jobs/${back}/comeback`).send(edit).expect(200);
    await test.heavy.settled();
    expect(await shown()).toEqual([4]);
  });

  it("keeps another shop's jobs apart, and counts them by the weight of the house", async () => {
    const placeOf = async (jobId: string) =>
      (await factsOf(jobId)).record?.parts.find((one) => one.level === "place" && one.subject === "C21");
    const next = await unit("Halden 24", 0.075);
    const own = await placeOf(next.jobId);
    const shown = async () => get<KindPage>("/api/casebook/kind?maker=Quorvane&model=Halden%2024");
    const before = await shown();
    const foreign = await unit("Halden 24", 2.6, ["dead"]);
    await test.inScope(({ rows }) =>
      rows.jobs.update({ origin: { shop: "another", number: 7, importedAt: at } }, { id: foreign.jobId }),
    );
    await close(foreign);
    const after = await shown();
    expect([after.seenCount, after.foreignCount]).toEqual([before.seenCount, 1]);
    expect(await placeOf(next.jobId)).toEqual(own);
    await rule("record.otherShopsWeight", 0.5);
    expect(await placeOf(next.jobId)).toEqual({
      ...own,
      failedCount: (own?.failedCount ?? 0) + 0.5,
      seenCount: (own?.seenCount ?? 0) + 0.5,
    });
    // A job from there is not judged by itself either.
    const itself = await placeOf(foreign.jobId);
    expect(itself?.seenCount).toBe(own?.seenCount);
    await rule("record.otherShopsWeight", 0);
  });

  it("tells the life of a series by parts that were looked at, and how verdicts in circuit held", async () => {
    const quality = await get<QualityPage>("/api/casebook/quality");
    expect(quality.jobCount).toBe(7);
    expect(quality.calibration).toBeNull();
    await request(test.app).get("/api/casebook/series/one?series=nobody").expect(404);
    const series = await get<SeriesPage[]>("/api/casebook/series");
    expect(Array.isArray(series)).toBe(true);
  });
});

import type { ReminderRow } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, makePart, newId, openTestApp, type TestApp, testClock } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
  test.setNow(new Date("2026-11-23T12:00:00Z"));
});
afterAll(() => test.close());

const act = (jobId: string, more: object) =>
  request(test.app)
    .post(`/api/jobs/${jobId}/acts`)
    .send({
      ...{ id: newId(), subjectId: null, word: null, note: null, at: "2026-11-23T12:00:00.000Z" },
      ...{ clockId: testClock, personId: null, ...more },
    })
    .expect(201);
const reminders = async () => (await request(test.app).get("/api/reminders").expect(200)).body as ReminderRow[];

describe("reminders", () => {
  it("tell of open jobs alone: calls, glue by its place, a run that goes on, and the day in the shop's own zone", async () => {
    const jobId = await makeJob(test.app, { deviceModel: "Halden 24" });
    const part = await makePart(test.app, jobId, "C7");
    expect(await reminders()).toEqual([]);
    await act(jobId, { kind: "call_back", word: "promised", note: "the price", value: 1_763_900_000 });
    await act(jobId, { kind: "glue_set", subjectId: part.positionId, value: 3600 });
    await test.inScope(async ({ rows }) => {
      await rows.jobs.update({ dueOn: "2026-11-24" }, { id: jobId });
      const plan = {
        ...{ kind: "burn_in" as const, sampleSeconds: 5, rails: [], mainsId: null, mostInputWatts: null, ripple: null },
        ...{ spots: [], mostKelvinPerMinute: 10, steps: [{ loads: [], dwellSeconds: 7200 }] },
      };
      const rig = { isIsolationTransformer: false, isCaseClosed: false };
      const run = { id: newId(), jobId, plan, isAttendedOnly: false, isSimulated: false, rig, personId: null };
      await rows.proofRuns.insert({ ...run, begunAt: new Date("2026-11-23T11:30:00Z") });
    });
    const told = await reminders();
    expect(told.map((one) => [one.kind, one.at, one.note ?? one.designator])).toEqual([
      ["call_back", new Date(1_763_900_000_000).toISOString(), "the price"],
      ["cured", "2026-11-23T13:00:00.000Z", "C7"],
      ["burn_in", "2026-11-23T13:30:00.000Z", null],
      // Midnight in Berlin.
      ["due", "2026-11-23T23:00:00.000Z", null],
    ]);
    expect(told[0]).toMatchObject({ jobId, deviceModel: "Halden 24" });
    await act(jobId, { kind: "call_back", word: "made", note: "called" });
    expect((await reminders()).map((one) => one.kind)).toEqual(["cured", "burn_in", "due"]);
    await test.inScope(({ rows }) => rows.jobs.update({ handedOverAt: new Date() }, { id: jobId }));
    expect(await reminders()).toEqual([]);
  });
});

import type { RunKind, RunPlan, RunSample } from "@pale-cap/core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { HttpProblem } from "../http/problems";
import { makeJob, makePart, newId, openTestApp, type TestApp } from "../testing/testApp";
import { loadReportInput } from "./loadReportInput";
import { loadRunSamples, loadRuns, loadRunsOf } from "./loadRuns";

let test: TestApp;
let jobId: string;
let netId: string;
const [first, burnIn] = [newId(), newId()];
const at = new Date("2026-11-23T10:00:00Z");

const plan = (kind: RunKind): RunPlan => ({
  kind,
  steps: [
    { loads: [{ netId, amps: 1 }], dwellSeconds: 10 },
    { loads: [{ netId, amps: 2 }], dwellSeconds: 10 },
  ],
  sampleSeconds: 1,
  rails: [{ netId, loadId: newId(), lowVolts: 11, highVolts: 13, mostAmps: 5, heldVolts: null }],
  ...{ mainsId: null, mostInputWatts: null, ripple: null, spots: [], mostKelvinPerMinute: 10 },
});
const sample = (step: number, volts: number, seconds: number): RunSample => ({
  ...{ seconds, step, stepSeconds: seconds, isPaused: false, isMainsOn: true, inputWatts: null, rippleVolts: null },
  rails: [{ netId, volts, amps: step + 1, setAmps: step + 1, isOn: true }],
  celsius: [],
});

beforeAll(async () => {
  test = await openTestApp();
  jobId = await makeJob(test.app);
  netId = (await makePart(test.app, jobId)).netId;
  const other = await makeJob(test.app);
  await test.inScope(async ({ rows, sql }) => {
    const run = (id: string, of: string, kind: RunKind) => ({
      ...{ id, jobId: of, plan: plan(kind), isAttendedOnly: kind === "load_run", isSimulated: false },
      ...{ rig: { isIsolationTransformer: true, isCaseClosed: false }, personId: null, begunAt: at },
    });
    await rows.proofRuns.insert(run(first, jobId, "load_run"));
    await rows.proofRuns.insert(run(burnIn, jobId, "burn_in"));
    await rows.proofRuns.insert(run(newId(), other, "burn_in"));
    const event = { step: null, stop: null, personId: null, at };
    for (const [n, kind] of (["begun", "step_done"] as const).entries())
      await rows.proofRunEvents.insert({ ...event, id: newId(), runId: first, kind, seconds: 20 * n });
    // Stored out of their order, as two writers may.
    const samples = [sample(0, 12.4, 0), sample(0, 12.2, 1), sample(1, 11.9, 2), sample(1, 11.7, 3)];
    for (const n of [2, 0, 3, 1])
      await sql("INSERT INTO proof_run_samples (run_id, number, sample) VALUES ($1, $2, $3) RETURNING number", [
        first,
        n,
        JSON.stringify(samples[n]),
      ]);
    const closing = { jobId, at, receivedAt: at, personId: null };
    for (const [isReopened, note] of [
      [false, "closed"],
      [true, "hums again"],
      [false, "closed again"],
      [true, "hums once more"],
    ] as const)
      await rows.jobClosings.insert({ ...closing, id: newId(), isReopened, note });
  });
});
afterAll(() => test.close());

describe("the runs of a job", () => {
  it("come oldest first, each with what happened to it and without whose job it is, or of one kind alone", async () => {
    const runs = await test.inScope((scope) => loadRuns(scope, jobId));
    expect(runs.map((one) => [one.id, one.plan.kind, one.isAttendedOnly, "jobId" in one, one.begunAt])).toEqual([
      [first, "load_run", true, false, at.toISOString()],
      [burnIn, "burn_in", false, false, at.toISOString()],
    ]);
    expect(runs.map((one) => one.events.map(({ kind, seconds }) => [kind, seconds]))).toEqual([
      [
        ["begun", 0],
        ["step_done", 20],
      ],
      [],
    ]);
    const ofKind = await test.inScope((scope) => loadRunsOf(scope, [jobId], "burn_in"));
    expect(ofKind.map((one) => [one.id, one.jobId])).toEqual([[burnIn, jobId]]);
  });

  it("give their samples in order, from after what is known", async () => {
    const ask = (after: number, runId = first) =>
      test.inScope((scope) => loadRunSamples(scope, jobId, runId, after)).catch((problem: HttpProblem) => problem.code);
    expect(await ask(-1)).toMatchObject({
      samples: [{ seconds: 0 }, { seconds: 1 }, { seconds: 2 }, { seconds: 3 }],
      next: 3,
    });
    expect(await ask(2)).toMatchObject({ samples: [{ seconds: 3 }], next: 3 });
    expect(await ask(3)).toEqual({ samples: [], next: 3 });
    expect(await ask(-1, newId())).toBe("not_found");
  });
});

describe("what a report is drawn from", () => {
  it("has what each step came to, why the job was opened again, and the closing that is about to be", async () => {
    const input = await test.inScope((scope) => loadReportInput(scope, jobId, null));
    expect(input.runs[0]?.findings.map((one) => one?.rails[0]?.volts)).toEqual([12.2, 11.7]);
    expect(input.runs[1]?.findings).toEqual([null, null]);
    expect(input.reopenings).toEqual([
      { at: at.toISOString(), note: "hums again" },
      { at: at.toISOString(), note: "hums once more" },
    ]);
    expect([input.detail.job.id, input.detail.job.handedOverAt]).toEqual([jobId, null]);
    expect(input.nowMilliseconds).toBe(test.now());
    const closing = { handedOverAt: "2026-11-23T12:00:00.000Z", warrantyUntil: "2027-05-23", spentMinutes: 9 };
    const closed = await test.inScope((scope) =>
      loadReportInput(scope, jobId, { ...closing, handOverNote: "fan noise" }),
    );
    expect(closed.detail.job).toMatchObject({ id: jobId, ...closing, handOverNote: "fan noise" });
    expect(closed.detail.nets).toHaveLength(1);
  });
});

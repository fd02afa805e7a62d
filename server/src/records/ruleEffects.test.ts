import request from "supertest";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type MadePart, makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../testing/testApp";
import { ruleEffects } from "./ruleEffects";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const post = (path: string, body: object) => request(test.app).post(path).send(body);
const change = (key: string, value: unknown) => ({
  ...{ id: newId(), key, value, reason: null, changedAt: "2026-11-23T12:00:00.000Z", clockId: null, personId: null },
});

/** 2.5 times typical with 82 % of its C: undecided to the usual school, failed to the strict one. */
async function doubtfulUnit(more: object = {}): Promise<{ jobId: string; part: MadePart }> {
  const jobId = await makeJob(test.app, more);
  const part = await makePart(test.app, jobId, "C3");
  await makePart(test.app, jobId, "C4");
  const farads = { quantity: "capacitance", value: 820e-6, frequencyHertz: 120 };
  for (const body of [{ value: 0.08 }, farads])
    await post(`/api/jobs/${jobId}/readings`, readingBody(part, { ...body, circuitState: "out" })).expect(201);
  return { jobId, part };
}

it("are the verdicts that turn on open jobs of the shop, the newest job first, and none where nothing that judges changes", async () => {
  const named = await doubtfulUnit({ deviceModel: "Halden 24" });
  const nameless = await doubtfulUnit({ deviceMaker: null });
  const closed = await doubtfulUnit();
  const elsewhere = await doubtfulUnit();
  await test.inScope(async ({ sql }) => {
    await sql("UPDATE jobs SET handed_over_at = now() WHERE id = $1 RETURNING id", [closed.jobId]);
    await sql("UPDATE jobs SET realm = 'practice' WHERE id = $1 RETURNING id", [elsewhere.jobId]);
  });
  const effects = (key: string, value: unknown) =>
    test.inScope((scope) => ruleEffects(scope, change(key, value) as Parameters<typeof ruleEffects>[1]));
  const turned = [{ designator: "C3", before: "cannot_tell", after: "failed" }];
  expect(await effects("judge.school", "ten")).toEqual([
    { jobId: nameless.jobId, jobNumber: 2, jobName: "monitor", turned },
    { jobId: named.jobId, jobNumber: 1, jobName: "Brambix Halden 24", turned },
  ]);
  expect(await effects("shop.warrantyMonths", 12)).toEqual([]);
});

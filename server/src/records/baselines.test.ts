import type { JobDetail } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type MadePart, makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../testing/testApp";
import { loadBaselines } from "./baselines";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const post = (path: string, body: object) => request(test.app).post(path).send(body);
const log = (jobId: string, part: MadePart, more: object) =>
  post(`/api/jobs/${jobId}/readings`, readingBody(part, more)).expect(201);
const baselineOf = async (jobId: string) =>
  (await test.inScope((scope) => loadBaselines(scope, [jobId]))).get(jobId) ?? [];

const setGood = (jobId: string) =>
  test.inScope(({ sql }) =>
    sql(
      `UPDATE jobs SET intake_details = coalesce(intake_details, '{}'::jsonb) || '{"isKnownGood": true}' WHERE id = $1 RETURNING id`,
      [jobId],
    ),
  );
/** Closed, as the last judging before it stood. */
const close = (jobId: string, positionId: string, verdict: string) =>
  test.inScope(async ({ sql }) => {
    await sql(
      `INSERT INTO judgement_snapshots (id, job_id, core_version, constants, rules, reading_ids, result, taken_at)
       VALUES ($1, $2, 'x', '{}', '{}', '{}', $3, now()) RETURNING id`,
      [newId(), jobId, JSON.stringify({ [positionId]: { verdict } })],
    );
    await sql("UPDATE jobs SET handed_over_at = now() WHERE id = $1 RETURNING id", [jobId]);
  });

interface Unit {
  readonly jobId: string;
  readonly part: MadePart;
}

/** Units of one board type, with C1 on each. */
async function unitsOfType(count: number): Promise<readonly Unit[]> {
  const first = await makeJob(test.app);
  await makePart(test.app, first);
  await post(`/api/jobs/${first}/board-type`, { id: newId(), boardTypeId: null, name: newId() }).expect(201);
  const [{ revisionId }] = (await test.inScope(({ sql }) =>
    sql(`SELECT board_type_revision_id AS "revisionId" FROM boards WHERE job_id = $1`, [first]),
  )) as [{ revisionId: string }];
  const units = [];
  for (let n = 0; n < count; n++) {
    const jobId = await makeJob(test.app);
    await post(`/api/jobs/${jobId}/board-type/use`, { id: newId(), revisionId }).expect(200);
    const { positions, fittedParts, nets } = (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
    const [netId, positionId, partId] = [nets[0]?.id, positions[0]?.id, fittedParts[0]?.id];
    units.push({ jobId, part: { netId, positionId, partId } as MadePart });
  }
  return units;
}

it("counts what sound parts of closed units read, and nothing of open, failed or unjudged ones", async () => {
  const [mine, sound, failed, open] = (await unitsOfType(4)) as [Unit, Unit, Unit, Unit];
  await log(sound.jobId, sound.part, { value: 0.03, circuitState: "out" });
  await log(failed.jobId, failed.part, { value: 0.9, circuitState: "out" });
  await log(open.jobId, open.part, { value: 0.5, circuitState: "out" });
  expect(await baselineOf(mine.jobId)).toEqual([]);
  await close(sound.jobId, sound.part.positionId, "sound");
  await close(failed.jobId, failed.part.positionId, "failed");
  expect(await baselineOf(mine.jobId)).toMatchObject([
    { designator: "C1", isInCircuit: false, frequencyHertz: 100e3, typical: 0.03, isKnownGood: false, unitCount: 1 },
  ]);
  // A unit is no measure of itself.
  expect(await baselineOf(sound.jobId)).toEqual([]);
});

it("takes a unit that is known to be good at its word, open or not, before those that were only judged", async () => {
  const [mine, good, judged] = (await unitsOfType(3)) as [Unit, Unit, Unit];
  await log(judged.jobId, judged.part, { value: 0.05, circuitState: "in_circuit" });
  await close(judged.jobId, judged.part.positionId, "sound");
  await log(good.jobId, good.part, { value: 0.02, circuitState: null, frequencyHertz: null });
  await log(good.jobId, good.part, { value: 0.7, isPowered: true });
  await log(good.jobId, good.part, { quantity: "capacitance", value: 1e-3, frequencyHertz: 120 });
  await setGood(good.jobId);
  const found = await baselineOf(mine.jobId);
  expect(found).toMatchObject([{ isInCircuit: true, frequencyHertz: 100e3, typical: 0.02, isKnownGood: true }]);
});

it("holds a unit against good brothers and against the middle of all, by the place and not by its name", async () => {
  const study = await makeJob(test.app);
  const part = await makePart(test.app, study, "C4");
  const units = Array.from({ length: 3 }, () => ({ id: newId(), serial: null }));
  await post(`/api/jobs/${study}/family/units`, { id: newId(), familyName: "four", units }).expect(201);
  const partsOf = async (jobId: string) => {
    const { positions, fittedParts, nets } = (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
    return { netId: nets[0]?.id, positionId: positions[0]?.id, partId: fittedParts[0]?.id } as MadePart;
  };
  await log(study, part, { value: 0.04, circuitState: "out" });
  const [one, other, mine] = units.map((unit) => unit.id) as [string, string, string];
  await log(one, await partsOf(one), { value: 0.06, circuitState: "out" });
  const late = await partsOf(other);
  await log(other, late, { value: 0.9, circuitState: "out" });
  await log(other, late, { value: 0.08, circuitState: "out" });
  await test.inScope(({ sql }) =>
    sql("UPDATE positions SET designator = 'C400' WHERE id = $1 RETURNING id", [part.positionId]),
  );
  // The middle of 0.04, 0.06 and what was read last on the third.
  expect(await baselineOf(mine)).toMatchObject([
    { designator: "C4", typical: 0.06, unitCount: 3, isKnownGood: false, isOfBrothers: true },
  ]);
  await setGood(one);
  expect(await baselineOf(mine)).toMatchObject([
    { designator: "C4", typical: 0.06, unitCount: 1, isKnownGood: true },
    { unitCount: 3, isOfBrothers: true },
  ]);
  expect((await baselineOf(one)).map((value) => value.isKnownGood)).toEqual([false]);
});

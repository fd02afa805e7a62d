import type { JobDetail } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, newId, openTestApp, type TestApp } from "../../testing/testApp";

let test: TestApp;
let jobId: string;
beforeAll(async () => {
  test = await openTestApp();
  jobId = await makeJob(test.app);
});
afterAll(() => test.close());

const step = (more: object = {}) => ({
  id: newId(),
  kind: "screws",
  count: 4,
  size: "M3 x 8",
  place: "back",
  photoId: null,
  doneAt: "2026-11-23T11:00:00Z",
  personId: null,
  ...more,
});
const log = (body: object) => request(test.app).post(`/api/jobs/${jobId}/teardown-steps`).send(body);
const detail = async () => (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;

describe("taking apart", () => {
  it("numbers the steps as they come, also when they come at once", async () => {
    const answers = await Promise.all([log(step()), log(step({ kind: "earth_screws", count: 1 })), log(step())]);
    expect(answers.map((one) => one.body.number).sort()).toEqual([1, 2, 3]);
    const again = step();
    await log(again).expect(201);
    expect((await log(again).expect(200)).body.number).toBe(4);
  });

  it("can take a step back without losing the others' numbers, and refuses what cannot be", async () => {
    const [first] = (await detail()).teardownSteps;
    const { id, version, number: _, doneAt: __, ...values } = first as JobDetail["teardownSteps"][number];
    const edit = { writeId: newId(), version, values: { ...values, isRemoved: true } };
    delete (edit.values as { personId?: unknown }).personId;
    delete (edit.values as { isRemoved?: unknown }).isRemoved;
    const body = { ...edit, values: { ...edit.values, isRemoved: true } };
    await request(test.app).patch(`/api/jobs/${jobId}/teardown-steps/${id}`).send(body).expect(200);
    expect((await detail()).teardownSteps.some((one) => one.id === id)).toBe(false);
    expect((await log(step()).expect(201)).body.number).toBe(5);
    expect((await log(step({ count: 0 })).expect(422)).body.errors[0].path).toBe("count");
    expect((await log(step({ photoId: newId() })).expect(409)).body.errors[0].path).toBe("photoId");
  });

  it("counts what went back in, on this job's steps only", async () => {
    const stepId = (await detail()).teardownSteps[0]?.id;
    const back = (more: object) =>
      request(test.app)
        .post(`/api/jobs/${jobId}/teardown-returns`)
        .send({ id: newId(), stepId, countIn: 3, at: "2026-11-23T12:00:00Z", clockId: null, personId: null, ...more });
    await back({}).expect(201);
    expect((await detail()).teardownReturns).toMatchObject([{ stepId, countIn: 3 }]);
    await back({ stepId: newId() }).expect(409);
  });
});

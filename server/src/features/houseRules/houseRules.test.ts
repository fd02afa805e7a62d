import type { HouseRuleChange, HouseRuleValues, Problem } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newId, openTestApp, type TestApp } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const change = (key: string, value: unknown, minute = 0) =>
  request(test.app)
    .post("/api/house-rules/changes")
    .send({ id: newId(), key, value, reason: null, changedAt: `2026-11-23T11:0${minute}:00.000Z`, personId: null });
const rules = async () => (await request(test.app).get("/api/house-rules").expect(200)).body as HouseRuleValues;

describe("house rules", () => {
  it("take a change, keep its history, and go back to the default", async () => {
    expect((await rules())["charge.workingVolts"]).toBe(10);
    await change("charge.workingVolts", 5, 1).expect(201);
    expect((await rules())["charge.workingVolts"]).toBe(5);
    await change("charge.workingVolts", null, 2).expect(201);
    expect((await rules())["charge.workingVolts"]).toBe(10);
    const history = (await request(test.app).get("/api/house-rules/changes").expect(200)).body as HouseRuleChange[];
    expect(history.map((one) => one.value)).toEqual([5, null]);
  });

  it.each([
    ["charge.workingVolts", 400],
    ["charge.mustProveMeter", "yes"],
    ["judge.school", "lenient"],
    ["no.such.rule", 1],
    ["__proto__", 1],
  ])("refuse %s = %s and change nothing", async (key, value) => {
    const before = await rules();
    const answer = await change(key, value, 3).expect(422);
    expect((answer.body as Problem).errors.map((one) => one.path)).toContain("value");
    expect(await rules()).toEqual(before);
  });
});

import { type HouseRuleValues, type Problem, ruleVersion, type ToldRuleChange } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newId, openTestApp, type TestApp, testClock } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const history = async () =>
  (await request(test.app).get("/api/house-rules/changes").expect(200)).body as ToldRuleChange[];
const post = (key: string, value: unknown, version: number, more: object = {}) =>
  request(test.app)
    .post("/api/house-rules/changes")
    .send({
      id: newId(),
      key,
      value,
      reason: null,
      changedAt: "2026-11-23T11:00:00.000Z",
      version,
      clockId: testClock,
      personId: null,
      ...more,
    });
const change = async (key: string, value: unknown) => post(key, value, ruleVersion(await history(), key));
const rules = async () => (await request(test.app).get("/api/house-rules").expect(200)).body as HouseRuleValues;

describe("house rules", () => {
  it("take a change, keep its history, and go back to the default", async () => {
    expect((await rules())["charge.workingVolts"]).toBe(10);
    expect((await change("charge.workingVolts", 5)).status).toBe(201);
    expect((await rules())["charge.workingVolts"]).toBe(5);
    expect((await change("charge.workingVolts", null)).status).toBe(201);
    expect((await rules())["charge.workingVolts"]).toBe(10);
    expect((await history()).map((one) => one.value)).toEqual([5, null]);
  });

  it("go by the order of storing: a change dated a hundred years ahead stays no longer than any other", async () => {
    const version = ruleVersion(await history(), "shop.orderDays");
    await post("shop.orderDays", 77, version, { changedAt: "2126-11-23T11:00:00.000Z" }).expect(201);
    expect((await change("shop.orderDays", 20)).status).toBe(201);
    expect((await rules())["shop.orderDays"]).toBe(20);
  });

  it("let one of two people who change the same rule at once win, and show the other what stands", async () => {
    const version = ruleVersion(await history(), "shop.usualMinutes");
    const answers = await Promise.all([post("shop.usualMinutes", 70, version), post("shop.usualMinutes", 80, version)]);
    expect(answers.map((one) => one.status).sort()).toEqual([201, 409]);
    const refused = answers.find((one) => one.status === 409)?.body as Problem;
    expect(refused).toMatchObject({ code: "stale_version", current: { version: expect.any(Number) } });
  });

  it("write down who changed which one", async () => {
    const before = await test.count("audit_events");
    await change("shop.orderDays", 4);
    expect(await test.count("audit_events")).toBe(before + 1);
  });

  it.each([
    ["charge.workingVolts", 400],
    ["power.hasTransformer", "yes"],
    ["judge.school", "lenient"],
    ["no.such.rule", 1],
    ["__proto__", 1],
  ])("refuse %s = %s and change nothing", async (key, value) => {
    const before = await rules();
    const answer = await change(key, value);
    expect(answer.status).toBe(422);
    expect((answer.body as Problem).errors.map((one) => one.path)).toContain("value");
    expect(await rules()).toEqual(before);
  });
});

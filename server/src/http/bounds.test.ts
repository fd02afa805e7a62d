import { gzipSync } from "node:zlib";
import { mostFieldProblems, type Problem } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, makePart, newId, openTestApp, readingBody, type TestApp } from "../testing/testApp";

let test: TestApp;
let jobId: string;
beforeAll(async () => {
  test = await openTestApp();
  jobId = await makeJob(test.app);
});
afterAll(() => test.close());

const post = (path: string, body: string) =>
  request(test.app).post(path).set("Content-Type", "application/json").send(body);
const edits = () => `/api/jobs/${jobId}/board-edits`;
const refused = async (path: string, body: unknown) =>
  (await post(path, JSON.stringify(body)).expect(422)).body as Problem;

describe("a body of rubbish", () => {
  it("with a quarter of a million entries is refused by their number, in few words", async () => {
    const body = { id: newId(), changes: Array.from({ length: 250_000 }, () => 1) };
    const problem = await refused(edits(), body);
    expect(problem.errors).toEqual([{ path: "changes", code: "too_many_entries", values: { most: 400 } }]);
  });

  it("with tens of thousands of unknown fields is refused without an echo", async () => {
    const many = Object.fromEntries(Array.from({ length: 40_000 }, (_, n) => [`x${n}`, 1]));
    const answer = await post("/api/jobs", JSON.stringify({ id: newId(), ...many })).expect(422);
    expect((answer.body as Problem).errors).toEqual([{ path: "", code: "too_many_fields" }]);
    expect(answer.text.length).toBeLessThan(1000);
  });

  it("nested deeper than anything of ours is refused before a rule is asked", async () => {
    const nested = (times: number) => `${'{"a":'.repeat(times)}1${"}".repeat(times)}`;
    for (const [times, isRefused] of [
      [12, false],
      [13, true],
      [5000, true],
    ] as const) {
      const { errors } = (await post("/api/jobs", nested(times)).expect(422)).body as Problem;
      expect(errors.some((one) => one.code === "too_deep" && one.values?.most === 12)).toBe(isRefused);
    }
  });

  it("with four hundred entries that are all wrong tells of a hundred at most", async () => {
    const wrong = { table: "net", operation: "insert", id: "x", version: "y", values: { name: 1 } };
    const small = await refused(edits(), { id: newId(), changes: Array.from({ length: 40 }, () => wrong) });
    expect(small.errors.length).toBe(mostFieldProblems);
    const large = await refused(edits(), { id: newId(), changes: Array.from({ length: 400 }, () => wrong) });
    expect(large.errors.length).toBeGreaterThan(0);
  });
});

describe("what no store can hold", () => {
  it.each([
    ["the zero character", "\u0000"],
    ["half a character", "\ud800"],
    ["the other half", "x\udc00y"],
  ])("%s in any text, however deep, is a fault of that field", async (_name, text) => {
    const part = await makePart(test.app, jobId, `C${Math.floor(Math.random() * 1e6)}`);
    const { rig, ...reading } = readingBody(part);
    const problem = await refused(`/api/jobs/${jobId}/readings`, { ...reading, rig: { ...rig, measuredAt: text } });
    expect(problem.errors[0]).toEqual({ path: "rig.measuredAt", code: "not_storable" });
    expect((await refused("/api/jobs", { id: newId(), deviceMaker: text })).errors[0]?.path).toBe("deviceMaker");
  });

  it("whole characters beyond the basic plane are taken", async () => {
    await makeJob(test.app, { complaint: "spits \u{1F525} and smoke" });
  });
});

describe("names that every object answers to", () => {
  it.each(["__proto__", "constructor", "toString"])("%s is no table, no quantity and no rule", async (name) => {
    const change = { table: name, operation: "insert", id: newId(), version: null, values: {} };
    expect((await refused(edits(), { id: newId(), changes: [change] })).code).toBe("invalid_body");
    const part = await makePart(test.app, jobId, `R${name.length}`);
    expect((await refused(`/api/jobs/${jobId}/readings`, readingBody(part, { quantity: name }))).code).toBe(
      "invalid_body",
    );
    expect((await refused(`/api/jobs/${jobId}/readings`, readingBody(part, { quantity: { [name]: 1 } }))).code).toBe(
      "invalid_body",
    );
    const rule = { id: newId(), value: 1, reason: null, changedAt: "2026-11-23T12:00:00Z", version: 0 };
    for (const key of [name, { [name]: 1 }]) {
      const body = { ...rule, key, clockId: null, personId: null };
      expect((await refused("/api/house-rules/changes", body)).code).toBe("invalid_body");
    }
  });
});

describe("a body that is packed", () => {
  it.each(["gzip", "deflate", "br"])("and broken (%s) is the sender's fault, not the server's", async (encoding) => {
    const answer = await request(test.app)
      .post("/api/jobs")
      .set("Content-Type", "application/json")
      .set("Content-Encoding", encoding)
      .send(Buffer.from("not packed at all"));
    expect([answer.status, (answer.body as Problem).code]).toEqual([400, "malformed_json"]);
  });

  it("is unpacked and taken", async () => {
    const body = { id: newId(), deviceKind: "monitor", deviceMaker: null, deviceModel: null, complaint: null };
    await request(test.app)
      .post("/api/jobs")
      .set("Content-Type", "application/json")
      .set("Content-Encoding", "gzip")
      .serialize((sent) => sent as unknown as string)
      .send(gzipSync(JSON.stringify({ ...body, personId: null })) as unknown as string)
      .expect(201);
  });
});

import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newId, openTestApp, type TestApp } from "../testing/testApp";
import { writeOnce } from "./idempotency";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

/** One write of the application; how often it was done, and what it answered. */
async function send(more: object, write = async () => {}) {
  let count = 0;
  const client = { id: "", kind: "note /here", jobId: null, body: {}, bytes: null, ...more };
  const done = () =>
    test.inScope((scope) =>
      writeOnce(scope, client, {
        write: async () => {
          count += 1;
          await write();
        },
        answer: async () => "stored",
      }),
    );
  const answer = await done().catch((error: { code?: string }) => error.code ?? "failed");
  return { count, answer };
}

describe("a write with an id", () => {
  it("is done once, in whatever order its fields are written", async () => {
    const id = newId();
    const body = { b: [1, { d: null, c: 2 }], a: 1 };
    expect(await send({ id, body })).toEqual({ count: 1, answer: { isNew: true, result: "stored" } });
    const reordered = { a: 1, b: [1, { c: 2, d: null }] };
    expect(await send({ id, body: reordered })).toEqual({ count: 0, answer: { isNew: false, result: "stored" } });
  });
  it.each([
    ["another body", { body: { a: 2 } }],
    ["another order of a list", { body: { a: 1, b: [2, 1] } }],
    ["another address", { kind: "note /there" }],
    ["another file", { bytes: Buffer.from("two") }],
    ["no file", { bytes: null }],
  ])("is refused with %s", async (_, more) => {
    const first = { id: newId(), body: { a: 1, b: [1, 2] }, bytes: Buffer.from("one") };
    await send(first);
    expect(await send({ ...first, ...more })).toEqual({ count: 0, answer: "id_reused" });
  });
  it("leaves its id free where it fails", async () => {
    const id = newId();
    expect((await send({ id }, () => Promise.reject(new Error("lost")))).answer).toBe("failed");
    expect((await send({ id })).answer).toEqual({ isNew: true, result: "stored" });
  });
});

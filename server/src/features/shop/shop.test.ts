import type { ShopState } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { openTestApp, type TestApp } from "../../testing/testApp";

const openWorld = vi.fn(async () => undefined);
let demo: TestApp;
let alone: TestApp;
beforeAll(async () => {
  demo = await openTestApp({ openWorld }, "demo");
  alone = await openTestApp();
});
afterAll(() => Promise.all([demo.close(), alone.close()]));

const open = (test: TestApp, body: object) => request(test.app).post("/api/shop").send(body);

describe("the shop", () => {
  it("says what is open, and whether the other can be", async () => {
    const of = async (test: TestApp) => (await request(test.app).get("/api/shop").expect(200)).body as ShopState;
    expect(await of(demo)).toEqual({ realm: "demo", canOpenOther: true });
    expect(await of(alone)).toEqual({ realm: "shop", canOpenOther: false });
  });

  it("asks for the other one once, and for nothing that is open or unknown", async () => {
    await open(demo, { realm: "shop" }).expect(202);
    expect(openWorld.mock.calls).toEqual([["shop"]]);
    await open(demo, { realm: "demo" }).expect(409);
    await open(demo, { realm: "practice" }).expect(422);
    await open(alone, { realm: "demo" }).expect(409);
    expect(openWorld).toHaveBeenCalledTimes(1);
  });
});

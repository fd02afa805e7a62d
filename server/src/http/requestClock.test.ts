import type { Request } from "express";
import { describe, expect, it, vi } from "vitest";
import type { Database } from "../database/database";
import { newId } from "../testing/testApp";
import { clockKeeper, requestClock } from "./requestClock";

const now = new Date("2026-11-23T10:00:00.000Z");
const id = newId();
const clock = (headers: object) => requestClock({ headers } as Request, now);

describe("the clock of a request", () => {
  it("is ahead by its time of sending less the server's", () => {
    expect(clock({ "x-clock-id": id, "x-sent-at": String(now.getTime() + 2500) })).toEqual({ id, aheadSeconds: 2.5 });
    expect(clock({ "x-clock-id": id, "x-sent-at": String(now.getTime() - 500) })?.aheadSeconds).toBe(-0.5);
    expect(clock({ "x-clock-id": id, "x-sent-at": "1e14" })).not.toBeNull();
  });
  it("is none where a client says nothing of it, or no sense", () => {
    const sent = String(now.getTime());
    expect(clock({})).toBeNull();
    expect(clock({ "x-clock-id": id })).toBeNull();
    expect(clock({ "x-sent-at": sent })).toBeNull();
    expect(clock({ "x-clock-id": "mine", "x-sent-at": sent })).toBeNull();
    expect(clock({ "x-clock-id": [id], "x-sent-at": sent })).toBeNull();
    for (const wrong of ["soon", "Infinity", "1.1e14", "-1.1e14"]) {
      expect(clock({ "x-clock-id": id, "x-sent-at": wrong })).toBeNull();
    }
  });
});

describe("the keeper of clocks", () => {
  function keeper() {
    const sql = vi.fn(async (_query: string, _bind: readonly unknown[]) => []);
    const write = vi.fn(async (_now: Date, _caller: unknown, act: (scope: { sql: typeof sql }) => unknown) =>
      act({ sql }),
    );
    return { keep: clockKeeper({ write } as unknown as Database), write, sql };
  }
  it("stores each once, with what it was ahead by, and none where there is none", async () => {
    const { keep, write, sql } = keeper();
    await keep(null, now);
    await keep({ id, aheadSeconds: 2 }, now);
    await keep({ id, aheadSeconds: 3 }, now);
    expect(write).toHaveBeenCalledTimes(1);
    expect(sql.mock.lastCall).toEqual([expect.stringContaining("INSERT INTO clocks"), [id, 2, now]]);
  });
  it("tries again where it could not be stored, and tells nobody", async () => {
    const { keep, write } = keeper();
    write.mockRejectedValueOnce(new Error("away"));
    await keep({ id, aheadSeconds: 2 }, now);
    await keep({ id, aheadSeconds: 2 }, now);
    expect(write).toHaveBeenCalledTimes(2);
  });
  it("forgets the oldest beyond a thousand", async () => {
    const { keep, write } = keeper();
    for (let n = 0; n <= 1000; n++) await keep({ id: `clock-${n}`, aheadSeconds: 0 }, now);
    await keep({ id: "clock-1", aheadSeconds: 0 }, now);
    expect(write).toHaveBeenCalledTimes(1001);
    await keep({ id: "clock-0", aheadSeconds: 0 }, now);
    expect(write).toHaveBeenCalledTimes(1002);
  });
});

import { describe, expect, it } from "vitest";
import { inJobTurn } from "./jobTurns";

/** Work that ends when it is told to. */
function held<T>(value: T) {
  let end: () => void = () => undefined;
  const done = new Promise<T>((resolve) => {
    end = () => resolve(value);
  });
  return { work: () => done, end };
}

describe("inJobTurn", () => {
  it("begins the next work of a job when the one before it has ended, and other jobs do not wait", async () => {
    const log: string[] = [];
    const first = held("first");
    const one = inJobTurn("a", () => {
      log.push("first begins");
      return first.work();
    });
    const two = inJobTurn("a", async () => {
      log.push("second begins");
      return "second";
    });
    await inJobTurn("b", async () => log.push("other job"));
    expect(log).toEqual(["first begins", "other job"]);
    first.end();
    expect(await Promise.all([one, two])).toEqual(["first", "second"]);
    expect(log).toEqual(["first begins", "other job", "second begins"]);
  });

  it("tells a failure to whoever asked, and lets the next one go on", async () => {
    const failed = inJobTurn("a", () => Promise.reject(new Error("no")));
    const next = inJobTurn("a", async () => "next");
    await expect(failed).rejects.toThrow("no");
    expect(await next).toBe("next");
  });
});

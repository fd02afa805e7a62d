import { describe, expect, it } from "vitest";
import { Turns } from "./turns";

/** Work that ends when it is told to. */
function held() {
  let end: (how?: Error) => void = () => undefined;
  const done = new Promise<string>((resolve, reject) => {
    end = (how) => (how ? reject(how) : resolve("done"));
  });
  return { work: () => done, end: (how?: Error) => end(how) };
}
const settled = () => new Promise((resolve) => setImmediate(resolve));

describe("turns", () => {
  it("are taken one after the other within a line, whatever became of the one before, and beside each other between lines", async () => {
    const turns = new Turns();
    const begun: string[] = [];
    const first = held();
    const failing = turns.take("a", () => {
      begun.push("a1");
      return first.work();
    });
    const second = turns.take("a", async () => begun.push("a2"));
    await turns.take("b", async () => begun.push("b1"));
    expect(begun).toEqual(["a1", "b1"]);
    first.end(new Error("lost"));
    await expect(failing).rejects.toThrow("lost");
    await second;
    expect(begun).toEqual(["a1", "b1", "a2"]);
  });
  it("leave no line behind when nobody writes, and keep the one that somebody waits in", async () => {
    const turns = new Turns();
    const [first, second] = [held(), held()];
    const one = turns.take("a", first.work);
    const two = turns.take("a", second.work);
    first.end();
    expect(await one).toBe("done");
    await settled();
    expect(turns.size).toBe(1);
    second.end();
    await two;
    await settled();
    expect(turns.size).toBe(0);
  });
});

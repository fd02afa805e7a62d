import { describe, expect, it } from "vitest";
import { randomBoard } from "./randomBoard";
import { StudyBench } from "./studyBench";

describe("the boards of the study", () => {
  it("makes the same boards of the same seed, and all kinds of parts", () => {
    expect(randomBoard(7)).toEqual(randomBoard(7));
    const truths = Array.from({ length: 40 }, (_, seed) => [...randomBoard(seed).truths.values()]).flat();
    expect(new Set(truths)).toEqual(new Set(["sound", "worn", "failed"]));
  });
  it("reads through the instruments: another value lifted than in a bank", () => {
    const { scenario } = randomBoard(3);
    const shared = scenario.capacitors.find((part) => part.net === "12 V")?.at ?? "";
    const bench = new StudyBench(scenario);
    expect(bench.read(shared, "esr", "in_circuit")).toBeLessThan(bench.read(shared, "esr", "lead_lifted") ?? 0);
    expect([bench.readingCount, bench.lifted.size]).toEqual([2, 1]);
  });
});

import { describe, expect, it } from "vitest";
import { judgeStudy } from "./judgeStudy";
import { randomBoard } from "./randomBoard";
import { StudyBench } from "./studyBench";

describe("the study of judgement", () => {
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
  it("has the application find more than the plain rule, with fewer readings than the fixed order", () => {
    const [best, fixed, plain] = (["next_best", "fixed_order", "plain_rule"] as const).map((one) =>
      judgeStudy(one, 11, 12),
    );
    expect(best?.sensitivityRatio).toBeGreaterThan(plain?.sensitivityRatio ?? 1);
    expect(best?.readingsPerBoard).toBeLessThan((fixed?.readingsPerBoard ?? 0) * 0.8);
    expect(plain?.brierScore).toBeNull();
    expect(fixed?.reliability.reduce((sum, bin) => sum + bin.count, 0)).toBe(fixed?.partCount);
  });
});

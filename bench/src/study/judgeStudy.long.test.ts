import { expect, it } from "vitest";
import { judgeStudy } from "./judgeStudy";

it("the study of judgement has the application find more than the plain rule, with fewer readings than the fixed order", () => {
  const [best, fixed, plain] = (["next_best", "fixed_order", "plain_rule"] as const).map((one) =>
    judgeStudy(one, 11, 12),
  );
  expect(best?.sensitivityRatio).toBeGreaterThan(plain?.sensitivityRatio ?? 1);
  expect(best?.readingsPerBoard).toBeLessThan((fixed?.readingsPerBoard ?? 0) * 0.8);
  expect(plain?.brierScore).toBeNull();
  expect(fixed?.reliability.reduce((sum, bin) => sum + bin.count, 0)).toBe(fixed?.partCount);
});

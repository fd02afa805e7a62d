// @vitest-environment happy-dom

import { type SampleDetail, sampleDetail } from "@pale-cap/contract/testing";
import { samplePart, sampleReading } from "@pale-cap/core/testing";
import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { sampleView, underJob } from "../../testing/sampleView";
import { useVerdictLook } from "./useVerdictLook";

afterEach(cleanup);
const shown = (more: SampleDetail) => {
  const view = sampleView(sampleDetail(more));
  const { result } = renderHook(() => useVerdictLook(), { wrapper: underJob(() => view) });
  return result.current("at-C1").verdict;
};
const out = { circuitState: "out", value: 2.4 } as const;

describe("the colour of a part on the board", () => {
  it("is that of the part that sits there now, not of the one that was found", () => {
    const bad = sampleReading("C1", { ...out, sequence: 1 });
    expect(shown({ readings: [bad] })).toBe("failed");
    const fittedParts = [
      samplePart("C1", { removedAt: "2026-11-23T10:20:00Z" }),
      samplePart("C1", { id: "new-C1", origin: "replacement" }),
      samplePart("C2"),
    ];
    const good = sampleReading("C1", { ...out, fittedPartId: "new-C1", value: 0.034, sequence: 2 });
    expect(shown({ fittedParts, readings: [bad, good] })).toBe("sound");
    expect(shown({ fittedParts: fittedParts.filter((one) => one.id !== "new-C1"), readings: [bad] })).not.toBe(
      "failed",
    );
  });
});

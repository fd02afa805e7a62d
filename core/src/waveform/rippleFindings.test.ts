import { describe, expect, it } from "vitest";
import type { ConverterDescription } from "../board/converterDescription";
import type { CaptureAnalysis } from "../facts/captures";
import { withCapturedFrequency } from "./rippleFindings";

describe("what a capture tells of a converter", () => {
  const analysis = { switching: { frequencyHertz: 100e3 } } as CaptureAnalysis;
  const converter = (kind: ConverterDescription["kind"], switchingHertz: number | null) =>
    ({ kind, switchingHertz }) as ConverterDescription;
  it.each([
    ["flyback_discontinuous", null, 100e3],
    ["half_bridge", null, 50e3],
    ["half_bridge", 62e3, 62e3],
  ] as const)("is the frequency of a %s known as %s: %d", (kind, known, found) => {
    expect(withCapturedFrequency(converter(kind, known), analysis).switchingHertz).toBe(found);
  });
  it("is nothing without a switching part", () => {
    const flyback = converter("flyback_discontinuous", null);
    expect(withCapturedFrequency(flyback, { switching: null } as CaptureAnalysis)).toBe(flyback);
    expect(withCapturedFrequency(flyback, undefined)).toBe(flyback);
  });
});

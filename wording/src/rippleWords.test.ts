import { converterSource, ImpossibleConverterError, outputConverters, unknownConverter } from "@pale-cap/core";
import { expect, it } from "vitest";
import { assumptionWords, captureProblemWords, causeWords, converterLabels, impossibleWords } from "./rippleWords";

const problemCodes = [
  "no_table",
  "not_a_number",
  "truncated",
  "time_runs_back",
  "time_uneven",
  "no_interval",
  "too_short",
  "too_long",
  "implausible_volts",
] as const;

it("says of every refused capture what, where and that nothing was stored", () => {
  for (const code of problemCodes) {
    const words = captureProblemWords({ code, row: 7, text: "oops" });
    expect(words, code).toMatch(/Nothing was stored\.$/);
    expect(words, code).not.toContain("_");
  }
  expect(captureProblemWords({ code: "not_a_number", row: 7, text: "oops" })).toContain("“oops” in row 7");
});

it("names every kind of converter, and every assumption with its range", () => {
  for (const kind of outputConverters) {
    expect(converterLabels[kind]).toBeTruthy();
    if (kind === "linear") continue;
    for (const one of converterSource(unknownConverter(kind), { volts: 12, loadAmps: null }).assumptions) {
      expect(assumptionWords(one)).toMatch(/usually .+ to .+/);
    }
  }
  expect(Object.values(causeWords).every(([name, meaning]) => name && meaning)).toBe(true);
});

it("explains an impossible converter by its numbers", () => {
  try {
    converterSource({ ...unknownConverter("buck"), inputVolts: 9 }, { volts: -12, loadAmps: 1 });
    expect.unreachable();
  } catch (error) {
    if (!(error instanceof ImpossibleConverterError)) throw error;
    expect(impossibleWords(error)).toBe("12 V cannot come out of a step-down converter fed with 9 V.");
  }
});

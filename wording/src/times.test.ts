import { type Unit, unitFacts } from "@pale-cap/core";
import { describe, expect, it } from "vitest";
import { failureWords } from "./failureWords";
import { ageText, durationText, lifeText } from "./times";

const plain = (text: string) => text.replaceAll("\u00a0", " ");

describe("times", () => {
  it("give an age in the largest unit that says enough", () => {
    const now = Date.parse("2026-11-23T12:00:00Z");
    const ago = (minutes: number) => ageText(new Date(now - minutes * 60_000).toISOString(), now);
    expect([ago(-5), ago(35), ago(90), ago(30 * 60), ago(48 * 60)]).toEqual([
      "0 min",
      "35 min",
      "2 h",
      "30 h",
      "2 days",
    ]);
  });
  it("give durations and lives without false digits", () => {
    expect([4.277, 99, 240, 9000].map(durationText).map(plain)).toEqual(["4.3 s", "99 s", "4 min", "2.5 h"]);
    expect([2000, 40_000, 131_400].map(lifeText).map(plain)).toEqual(["2.7 months", "4.6 years", "over 15 years"]);
  });
});

describe("failureWords", () => {
  it("says for every unit how to go on", () => {
    for (const unit of Object.keys(unitFacts) as Unit[]) {
      expect(failureWords({ code: "not_a_quantity", unit })).toMatch(/Try/);
      expect(failureWords({ code: "prefix_not_used", unit })).toMatch(/without a prefix/);
    }
    expect(failureWords({ code: "ambiguous_marks", readings: ["1000.5", "1.0005"] })).toContain("1000.5 or 1.0005");
  });
});

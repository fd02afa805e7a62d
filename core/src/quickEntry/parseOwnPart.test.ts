import { describe, expect, it } from "vitest";
import { parseOwnPart } from "./parseOwnPart";

const problems = (line: string) => parseOwnPart(line).problems.map(({ code, word }) => `${code} ${word}`.trim());

describe("a part in the hand, in one line", () => {
  it("is read with where it came from and what was read of it, its words in any order", () => {
    const { entry, problems: none } = parseOwnPart('drawer esr 41m 25v 1000u c 980u 105 lowz 10x20 "KX 5"');
    expect(none).toEqual([]);
    expect(entry).toEqual({
      capacitanceFarads: 1e-3,
      ratedVolts: 25,
      temperatureClassCelsius: 105,
      capacitorClass: "lowz",
      diameterMetres: 0.01,
      heightMetres: 0.02,
      isNonPolar: false,
      series: "KX 5",
      source: "drawer",
      esrOhms: 0.041,
      readFarads: 980e-6,
    });
    expect(parseOwnPart("470/25 np").entry).toMatchObject({ ratedVolts: 25, isNonPolar: true, source: "unknown" });
  });
  it("knows its source by any of its words", () => {
    const sources = ["new", "bought", "used", "pulled", "salvaged", "DRAWER"].map(
      (word) => parseOwnPart(`100u 25v ${word}`).entry.source,
    );
    expect(sources).toEqual(["bought", "bought", "salvaged", "salvaged", "salvaged", "drawer"]);
  });
  it("needs value and volts, and says nothing of an empty line", () => {
    expect(problems("1000u")).toEqual(["value_needed"]);
    expect(problems("25v")).toEqual(["value_needed"]);
    expect(problems(" ")).toEqual([]);
  });
  it("takes no ESR or C without its unit, nor one that is none", () => {
    expect(problems("100u 25v esr 41")).toEqual(["unit_needed esr 41"]);
    expect(problems("100u 25v c 98")).toEqual(["unit_needed c 98"]);
    expect(problems("100u 25v esr")).toEqual(["not_understood esr"]);
    expect(problems("100u 25v esr much")).toEqual(["not_understood esr much"]);
    expect(problems("100u 25v esr 0R")).toEqual(["out_of_range esr 0R"]);
    expect(problems("100u 25v c 1,000u")).toEqual(["comma_thousand c 1,000u"]);
    expect(problems("100u 25v esr 1R esr 2R")).toEqual(["said_twice esr 2R"]);
    expect(problems("100u 25v drawer bought")).toEqual(["said_twice bought"]);
  });
  it("refuses words that belong to a place, and keeps what quick entry refuses", () => {
    for (const word of ["C14", "out", ":12V", "@10/20", "-down", "p5", "20%"]) {
      expect(problems(`100u 25v ${word}`), word).toEqual(["not_of_part"]);
    }
    expect(problems("100u 25v huh")).toEqual(["not_understood huh"]);
  });
});

import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { type PartKind, partKinds } from "../board/board";
import { sections } from "../board/sections";
import { capacitorClasses } from "../capacitors/capacitorClass";
import { completeEntry } from "./completeEntry";
import { kindOfDesignator } from "./entryWords";
import { longestRange, type PartEntry, parsePartEntry } from "./parsePartEntry";
import { printPartEntry } from "./printPartEntry";

const problems = (line: string) => parsePartEntry(line).problems.map((one) => [one.code, one.word]);

describe("parsePartEntry", () => {
  const whole: Partial<PartEntry> = {
    designators: ["C14"],
    kind: "electrolytic",
    section: "output",
    capacitanceFarads: 1000e-6,
    ratedVolts: 25,
    temperatureClassCelsius: 105,
    diameterMetres: 0.01,
    heightMetres: 0.02,
    pitchMetres: 0.005,
  };

  it.each([
    "C14 out 1000u 25v 105 10x20 p5",
    "10x20 p5 105c 25V 1000uF output c14",
    "p5,0 1m 25v C14 10x20mm 105°C out",
  ])("understands %s in any order", (line) => {
    const parsed = parsePartEntry(line);
    expect(parsed.problems).toEqual([]);
    expect(parsed.entry).toMatchObject(whole);
  });

  it.each([
    ["C3 4u7", { capacitanceFarads: 4.7e-6 }],
    ["C3 6v3", { ratedVolts: 6.3 }],
    ["C3 6,3v", { ratedVolts: 6.3 }],
    ["C3 20% 470n", { toleranceRatio: 0.2, capacitanceFarads: 470e-9 }],
    ["C3 -down @60,5/30", { stripeDegrees: 90, xMetres: 0.0605, yMetres: 0.03 }],
    ['C3 :"5 V standby" "Blue 7"', { railName: "5 V standby", series: "Blue 7" }],
    ["C3 :12V poly", { railName: "12V", capacitorClass: "polymer" }],
    ["BR1 15x10", { kind: "bridge", diameterMetres: 0.015 }],
    ["U7 is:optocoupler", { kind: "optocoupler" }],
    ["CX1 100n", { kind: "film" }],
    ["C3 470/25", { capacitanceFarads: 470e-6, ratedVolts: 25 }],
    ["C3 4700uF/16V", { capacitanceFarads: 4.7e-3, ratedVolts: 16 }],
    ["C3 4,7/6,3v", { capacitanceFarads: 4.7e-6, ratedVolts: 6.3 }],
    ["C3 100n/63", { capacitanceFarads: 100e-9, ratedVolts: 63 }],
    ["C3 10u np", { isNonPolar: true }],
    ["C3 10u BP", { isNonPolar: true }],
  ] as const)("reads %s", (line, expected) => {
    expect(parsePartEntry(line).problems).toEqual([]);
    expect(parsePartEntry(line).entry).toMatchObject(expected);
  });

  it("stands for every part of a range, spelled short or long", () => {
    expect(parsePartEntry("C14-C18 470u").entry.designators).toEqual(["C14", "C15", "C16", "C17", "C18"]);
    expect(parsePartEntry("c14-16").entry.designators).toEqual(["C14", "C15", "C16"]);
  });

  it.each([
    ["C1 blah 25v", [["not_understood", "blah"]]],
    ["C1 25v 35v", [["said_twice", "35v"]]],
    ["C1 C2", [["said_twice", "C2"]]],
    ["C1 1.000,5u", [["two_decimal_marks", "1.000,5u"]]],
    [
      "C18-C14",
      [
        ["range_backwards", "C18-C14"],
        ["no_designator", ""],
      ],
    ],
    [
      "C1-C900",
      [
        ["range_too_long", "C1-C900"],
        ["no_designator", ""],
      ],
    ],
    ["C1 1,000u 16v", [["comma_thousand", "1,000u"]]],
    ["C1 1,000/16", [["comma_thousand", "1,000/16"]]],
    ["C1 470/5000", [["out_of_range", "470/5000"]]],
    ["C1 470/25 35v", [["said_twice", "35v"]]],
    ["C1 10f", [["out_of_range", "10f"]]],
    ["C1 5000v", [["out_of_range", "5000v"]]],
    ["C1 107", [["not_understood", "107"]]],
    ["470u 25v", [["no_designator", ""]]],
    ["", [["no_designator", ""]]],
  ] as const)("shows what is wrong with %s and keeps the rest", (line, expected) => {
    expect(problems(line)).toEqual(expected);
  });

  it("keeps what was understood beside what was not", () => {
    expect(parsePartEntry("C9 nonsense 1u 50v").entry).toMatchObject({ designators: ["C9"], capacitanceFarads: 1e-6 });
  });

  test.prop([fc.string({ unit: "binary", maxLength: 80 })])("never throws, whatever is typed", (text) => {
    const { entry, problems: found } = parsePartEntry(text);
    expect(entry.designators.length).toBeLessThanOrEqual(longestRange);
    expect(Array.isArray(found)).toBe(true);
  });

  test.prop([fc.shuffledSubarray(["C14", "out", "1000u", "25v", "105", "10x20", "p5", "-up"], { minLength: 8 })])(
    "does not mind the order",
    (shuffled) => {
      expect(parsePartEntry(shuffled.join(" ")).entry).toMatchObject({ ...whole, stripeDegrees: 270 });
    },
  );
});

const tenths = (most: number) => fc.integer({ min: 1, max: most }).map((n) => Number(`${n}e-4`));
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: null });
const letters = fc.constantFrom("C", "D", "Q", "U", "L", "F", "CX", "BR");
const entries: fc.Arbitrary<PartEntry> = fc
  .record({
    prefix: letters,
    first: fc.integer({ min: 1, max: 900 }),
    count: fc.integer({ min: 1, max: 6 }),
    kind: maybe(fc.constantFrom<PartKind>(...partKinds)),
    section: maybe(fc.constantFrom(...sections)),
    railName: maybe(fc.constantFrom("12 V", "5 V standby", "−15")),
    farads: maybe(fc.tuple(fc.integer({ min: 1, max: 999 }), fc.integer({ min: -12, max: -5 }))),
    tolerance: maybe(fc.constantFrom(0.05, 0.1, 0.2)),
    volts: maybe(fc.constantFrom(2.5, 4, 6.3, 16, 25, 450)),
    celsius: maybe(fc.constantFrom(85, 105, 125)),
    capacitorClass: maybe(fc.constantFrom(...capacitorClasses)),
    size: maybe(fc.tuple(tenths(400), tenths(600))),
    pitch: maybe(tenths(200)),
    place: maybe(fc.tuple(tenths(4000), tenths(4000))),
    stripe: maybe(fc.constantFrom(0, 90, 180, 270)),
    series: maybe(fc.constantFrom("KX", "Low 5")),
    isNonPolar: maybe(fc.constant(true)),
  })
  .map((one) => ({
    designators: Array.from({ length: one.count }, (_, n) => `${one.prefix}${one.first + n}`),
    kind: one.kind ?? kindOfDesignator(one.prefix),
    section: one.section,
    railName: one.railName,
    capacitanceFarads: one.farads ? Number(`${one.farads[0]}e${one.farads[1]}`) : null,
    toleranceRatio: one.tolerance,
    ratedVolts: one.volts,
    temperatureClassCelsius: one.celsius,
    capacitorClass: one.capacitorClass,
    diameterMetres: one.size?.[0] ?? null,
    heightMetres: one.size?.[1] ?? null,
    pitchMetres: one.pitch,
    xMetres: one.place?.[0] ?? null,
    yMetres: one.place?.[1] ?? null,
    stripeDegrees: one.stripe,
    series: one.series,
    isNonPolar: one.isNonPolar,
  }));

describe("printPartEntry", () => {
  test.prop([entries], { numRuns: 400 })("prints every part so that it reads back to itself", (entry) => {
    const parsed = parsePartEntry(printPartEntry(entry));
    expect(parsed.problems).toEqual([]);
    expect(parsed.entry).toEqual(entry);
  });
});

describe("completeEntry", () => {
  const words = (line: string) => completeEntry(line, ["12 V", "5V"], "C15").map((one) => one.word);
  it("offers the next designator first, then sections and the board's rails", () => {
    expect(words("")).toEqual(["C15"]);
    expect(words("C15 ")).toContain("out");
    expect(words("C15 ")).toContain(':"12 V"');
    expect(words("C15 o")).toEqual(["out", "other"]);
    expect(words("C15 :5")).toEqual([":5V"]);
  });
  it("offers no second section, and nothing for a word that is whole", () => {
    expect(words("C15 out ")).toEqual([]);
    expect(words("C15 out p")).toEqual(["poly"]);
    expect(words("C15 bulk")).toEqual([]);
  });
});

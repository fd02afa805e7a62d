import { describe, expect, it } from "vitest";
import { parseLidZones, parseOutline, printLidZones, printOutline } from "./boardShape";

const board = { widthMetres: 0.15, depthMetres: 0.1 };

describe("the shape of a board in a line", () => {
  it("reads back what it prints", () => {
    const outline = parseOutline("0/0 150/0 150/80 120,5/100 0/100", board);
    expect(outline).toEqual({
      value: [
        [0, 0],
        [0.15, 0],
        [0.15, 0.08],
        [0.1205, 0.1],
        [0, 0.1],
      ],
    });
    expect("value" in outline && parseOutline(printOutline(outline.value), board)).toEqual(outline);
    const zones = parseLidZones("90/0 60x100 h18\n0/0 20x20 12.5");
    expect("value" in zones && zones.value[1]).toMatchObject({ widthMetres: 0.02, heightMetres: 0.0125 });
    expect("value" in zones && parseLidZones(printLidZones(zones.value))).toEqual(zones);
  });
  it("says what it does not understand, and takes nothing for none", () => {
    expect(parseOutline("", board)).toEqual({ value: null });
    expect(parseOutline("0/0 abc 5/5", board)).toHaveProperty("problem");
    expect(parseOutline("0/0 1/1", board)).toHaveProperty("problem");
    expect(parseOutline("0/0 200/0 0/50", board)).toHaveProperty("problem");
    expect(parseLidZones("90/0 60 h18")).toHaveProperty("problem");
    expect(parseLidZones(" ")).toEqual({ value: [] });
  });
});

import { fc, test } from "@fast-check/vitest";
import type { Position } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { printPositionsCsv, readPositionsCsv } from "./positionsCsv";

const row = (designator: string, x: number, y: number, side: "top" | "bottom" | null = null) => ({
  ...{ designator, xMetres: expect.closeTo(x / 1e3, 9), yMetres: expect.closeTo(y / 1e3, 9), side },
});

describe("readPositionsCsv", () => {
  it.each([
    "designator,x,y\nC14,98,33.5\n",
    "\ufeffRef;Y mm;X mm;side\r\nc14;33,5;98;top\r\n\r\n",
    "part\tx (mm)\ty (mm)\nC14\t98mm\t33.5",
  ])("reads %j", (text) => {
    const { rows, problems, isEditorList } = readPositionsCsv(text);
    expect([problems, isEditorList]).toEqual([[], false]);
    expect(rows).toEqual([row("C14", 98, 33.5, text.includes("side") ? "top" : null)]);
  });
  it("names each line that it cannot use, and keeps the others", () => {
    const { rows, problems } = readPositionsCsv("designator,x,y\nC1,10,10\n??,1,1\nC1,3,3\nC2,abc,3\nC3,10,4000\n");
    expect(rows).toEqual([row("C1", 10, 10)]);
    expect(problems.map((one) => one.line)).toEqual([3, 4, 5, 6]);
    expect(problems[3]?.text).toContain("4000");
  });
  it("says which column the first line does not name", () => {
    expect(readPositionsCsv("designator,x\nC1,1").problems[0]?.text).toContain("y is missing");
    expect(readPositionsCsv("").rows).toEqual([]);
  });
  it.each([
    [
      '"Designator","Mid X","Mid Y","Layer"\n"C14","500mil","-1000mil","T"\n"C15","0.5in","1in","B"\n',
      [12.7, -25.4, 12.7, 25.4],
    ],
    [
      "Designator;Center-X(mil);Center-Y(mil);Layer\nC14;500;-1000;TopLayer\nC15;500;1000;BottomLayer",
      [12.7, -25.4, 12.7, 25.4],
    ],
    [
      "### placed by hand\n## Unit = inches, Angle = deg.\n# Ref   Val    PosX   PosY  Rot  Side\nC14  1000u  0.5  -1  0  top\nC15 470u 0.5 1 90 bottom\n## End\n",
      [12.7, -25.4, 12.7, 25.4],
    ],
  ])("reads a board editor's list %j with its units, its sides and places below nought", (text, [ax, ay, bx, by]) => {
    const { rows, problems, isEditorList } = readPositionsCsv(text);
    expect([problems, isEditorList]).toEqual([[], true]);
    expect(rows).toEqual([
      row("C14", ax as number, ay as number, "top"),
      row("C15", bx as number, by as number, "bottom"),
    ]);
  });
  test.prop([fc.string({ unit: "binary", maxLength: 200 })])("never throws", (text) => {
    expect(Array.isArray(readPositionsCsv(text).rows)).toBe(true);
  });
});

describe("the round trip", () => {
  const micrometres = fc.integer({ min: 0, max: 1_000_000 });
  test.prop([fc.array(fc.tuple(micrometres, micrometres), { maxLength: 30 })])("brings every place back", (places) => {
    const positions = places.map(([x, y], index) => ({
      designator: `C${index + 1}`,
      xMetres: x / 1e6,
      yMetres: y / 1e6,
    }));
    const { rows, problems } = readPositionsCsv(printPositionsCsv(positions as unknown as Position[]));
    expect(problems).toEqual([]);
    expect(rows.map((one) => one.designator)).toEqual(positions.map((one) => one.designator));
    for (const [index, one] of rows.entries()) {
      expect(one.xMetres).toBeCloseTo(positions[index]?.xMetres ?? Number.NaN, 9);
      expect(one.yMetres).toBeCloseTo(positions[index]?.yMetres ?? Number.NaN, 9);
    }
  });
});

describe("a file that a table program opens", () => {
  it("holds no formula, whatever was stored as a designator", () => {
    const text = printPositionsCsv(
      ["=1+1|cmd", "+C1", "-C1", "@C1"].map((designator) => ({
        designator,
        xMetres: 0,
        yMetres: 0,
      })) as unknown as Position[],
    );
    for (const line of text.split("\n").slice(1, -1)) expect(line).toMatch(/^"?'/);
  });
});

import { fc, test } from "@fast-check/vitest";
import type { Position } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { printPositionsCsv, readPositionsCsv } from "./positionsCsv";

const row = (designator: string, x: number, y: number) => ({ designator, xMetres: x / 1e3, yMetres: y / 1e3 });

describe("readPositionsCsv", () => {
  it.each([
    "designator,x,y\nC14,98,33.5\n",
    "\ufeffRef;Y mm;X mm;side\r\nc14;33,5;98;top\r\n\r\n",
    "part\tx (mm)\ty (mm)\nC14\t98mm\t33.5",
  ])("reads %j", (text) => {
    expect(readPositionsCsv(text)).toEqual({ rows: [row("C14", 98, 33.5)], problems: [] });
  });
  it("names each line that it cannot use, and keeps the others", () => {
    const { rows, problems } = readPositionsCsv("designator,x,y\nC1,10,10\n??,1,1\nC1,3,3\nC2,abc,3\nC3,10,4000\n");
    expect(rows).toEqual([row("C1", 10, 10)]);
    expect(problems.map((one) => one.line)).toEqual([3, 4, 5, 6]);
    expect(problems[3]?.text).toContain("4000");
  });
  it("says which column the first line does not name", () => {
    expect(readPositionsCsv("designator,x\nC1,1").problems[0]?.text).toContain("no column y");
    expect(readPositionsCsv("").rows).toEqual([]);
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

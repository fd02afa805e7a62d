import type { Position } from "@pale-cap/contract";
import { parseQuantity } from "@pale-cap/core";
import { positionsTable } from "@pale-cap/wording";
import Papa from "papaparse";

export interface PlacedDesignator {
  readonly designator: string;
  readonly xMetres: number;
  readonly yMetres: number;
}

/** A line that cannot be used: its number in the file, and why. */
export interface LineProblem {
  readonly line: number;
  readonly text: string;
}

export interface ReadPositions {
  readonly rows: readonly PlacedDesignator[];
  readonly problems: readonly LineProblem[];
}

const columnNames = {
  designator: ["designator", "ref", "reference", "part", "name"],
  x: ["x", "x mm", "x (mm)", "pos x", "posx"],
  y: ["y", "y mm", "y (mm)", "pos y", "posy"],
} as const;

const mostMillimetres = 1000;

/** Places from a file as docs/formats/positions.md has it; never throws, whatever the file is. */
export function readPositionsCsv(text: string): ReadPositions {
  const lines = Papa.parse<string[]>(text.replace(/^\ufeff/, "").trim(), { skipEmptyLines: false }).data;
  const heads = (lines[0] ?? []).map((one) => one.trim().toLowerCase());
  const column = (names: readonly string[]) => heads.findIndex((head) => names.includes(head));
  const [designatorAt, xAt, yAt] = [columnNames.designator, columnNames.x, columnNames.y].map(column) as [
    number,
    number,
    number,
  ];
  const missing = Object.keys(columnNames).filter((_, index) => [designatorAt, xAt, yAt][index] === -1);
  if (missing.length > 0) {
    const problem = `the first line names no column ${missing.join(", ")}; wanted is designator,x,y`;
    return { rows: [], problems: [{ line: 1, text: problem }] };
  }
  const rows: PlacedDesignator[] = [];
  const problems: LineProblem[] = [];
  const seen = new Set<string>();
  for (const [index, cells] of lines.entries()) {
    if (index === 0 || cells.every((cell) => cell.trim() === "")) continue;
    const line = index + 1;
    const refuse = (problem: string) => problems.push({ line, text: problem });
    const designator = cells[designatorAt]?.trim().toUpperCase() ?? "";
    const [x, y] = [xAt, yAt].map((at) => length(cells[at] ?? "")) as [number | null, number | null];
    if (!/^[A-Z]{1,4}\d{1,4}[A-Z]?$/.test(designator)) refuse(`“${cells[designatorAt] ?? ""}” is no designator`);
    else if (seen.has(designator)) refuse(`${designator} stands twice`);
    else if (x === null) refuse(`x “${cells[xAt] ?? ""}” is no place in millimetres from 0 to ${mostMillimetres}`);
    else if (y === null) refuse(`y “${cells[yAt] ?? ""}” is no place in millimetres from 0 to ${mostMillimetres}`);
    else {
      seen.add(designator);
      rows.push({ designator, xMetres: x, yMetres: y });
    }
  }
  return { rows, problems };
}

function length(text: string): number | null {
  const parsed = parseQuantity(text, "mm");
  return parsed.ok && parsed.value >= 0 && parsed.value <= mostMillimetres / 1e3 ? parsed.value : null;
}

/** The places of a board as a file that reads back to the same. */
export function printPositionsCsv(positions: readonly Position[]): string {
  const { fields, rows } = positionsTable(positions);
  const data = rows.map((row) => [...row]);
  return `${Papa.unparse({ fields: [...fields], data }, { newline: "\n", escapeFormulae: true })}\n`;
}

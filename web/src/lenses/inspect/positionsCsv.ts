import type { Position } from "@pale-cap/contract";
import { parseQuantity, type RawPlacement } from "@pale-cap/core";
import { positionsTable } from "@pale-cap/wording";
import Papa from "papaparse";

export interface PlacedDesignator extends RawPlacement {
  readonly designator: string;
}

/** A line that cannot be used: its number in the file, and why. */
export interface LineProblem {
  readonly line: number;
  readonly text: string;
}

export interface ReadPositions {
  readonly rows: readonly PlacedDesignator[];
  readonly problems: readonly LineProblem[];
  /** A board editor's list: its origin is its own, and its y counts upward as a rule. */
  readonly isEditorList: boolean;
}

/** Names of columns, without case, marks and what stands in brackets. */
const columnNames = {
  designator: ["designator", "ref", "refdes", "reference", "part", "name", "component"],
  x: ["x", "xmm", "midx", "centerx", "centrex", "centroidx", "posx", "refx", "locationx"],
  y: ["y", "ymm", "midy", "centery", "centrey", "centroidy", "posy", "refy", "locationy"],
  side: ["side", "layer", "tb", "mountingside"],
} as const;
/** What only this product's own list calls its columns: it counts from the upper left corner, y down. */
const plainNames = ["x", "xmm"];

const mostMillimetres = 1000;
/** A list begins with its columns; what stands before them is talk. */
const mostTalkLines = 40;
const metresOf = { mm: 1e-3, mil: 25.4e-6, inch: 25.4e-3 } as const;
type LengthUnit = keyof typeof metresOf;

const bare = (head: string) =>
  head
    .replace(/[([].*?[)\]]/g, "")
    .replace(/[^a-z]/gi, "")
    .toLowerCase();

/** Places from a file as docs/formats/positions.md has it; never throws, whatever the file is. */
export function readPositionsCsv(text: string): ReadPositions {
  const lines = cellsOf(text);
  const headAt = lines.slice(0, mostTalkLines).findIndex((cells) => missingIn(cells).length === 0);
  if (headAt === -1) {
    const missing = missingIn(lines[0] ?? []).join(", ");
    const problem = `no line names the columns; in the first ${missing} ${missing.includes(",") ? "are" : "is"} missing, wanted is designator,x,y`;
    return { rows: [], problems: [{ line: 1, text: problem }], isEditorList: false };
  }
  const heads = lines[headAt] ?? [];
  const column = (names: readonly string[]) => heads.findIndex((head) => names.includes(bare(head)));
  const at = { designator: column(columnNames.designator), side: column(columnNames.side) };
  const [xAt, yAt] = [column(columnNames.x), column(columnNames.y)];
  const isEditorList = !plainNames.includes(bare(heads[xAt] ?? ""));
  const talk = lines.slice(0, headAt).map((cells) => cells.join(" "));
  const unit = unitIn(heads[xAt] ?? "") ?? unitIn(talk.find((one) => /unit/i.test(one)) ?? "") ?? "mm";
  const rows: PlacedDesignator[] = [];
  const problems: LineProblem[] = [];
  const seen = new Set<string>();
  for (const [index, cells] of lines.entries()) {
    if (index <= headAt || cells.every((cell) => cell.trim() === "") || (cells[0] ?? "").startsWith("#")) continue;
    const line = index + 1;
    const refuse = (problem: string) => problems.push({ line, text: problem });
    const designator = cells[at.designator]?.trim().toUpperCase() ?? "";
    const [x, y] = [xAt, yAt].map((one) => length(cells[one] ?? "", unit, isEditorList)) as [
      number | null,
      number | null,
    ];
    const range = isEditorList ? `between −${mostMillimetres} and ${mostMillimetres}` : `from 0 to ${mostMillimetres}`;
    if (!/^[A-Z]{1,4}\d{1,4}[A-Z]?$/.test(designator)) refuse(`“${cells[at.designator] ?? ""}” is no designator`);
    else if (seen.has(designator)) refuse(`${designator} stands twice`);
    else if (x === null) refuse(`x “${cells[xAt] ?? ""}” is no place in millimetres ${range}`);
    else if (y === null) refuse(`y “${cells[yAt] ?? ""}” is no place in millimetres ${range}`);
    else {
      seen.add(designator);
      rows.push({ designator, xMetres: x, yMetres: y, side: at.side === -1 ? null : sideOf(cells[at.side] ?? "") });
    }
  }
  return { rows, problems, isEditorList };
}

/** Cells by comma, semicolon or tab; of a list that is lined up with spaces, by those. A heading may stand behind a mark. */
function cellsOf(text: string): readonly (readonly string[])[] {
  const clean = text.replace(/^\ufeff/, "").trim();
  const parsed = Papa.parse<string[]>(clean, { skipEmptyLines: false }).data;
  const spaced = clean.split(/\r\n|\n|\r/).map((line) => line.trim().split(/\s+/));
  const hasHead = (all: readonly (readonly string[])[]) =>
    all.slice(0, mostTalkLines).some((cells) => missingIn(unmarked(cells)).length === 0);
  const lines = !hasHead(parsed) && hasHead(spaced) ? spaced : parsed;
  return lines.map((cells) =>
    missingIn(unmarked(cells)).length === 0 ? unmarked(cells) : cells.map((one) => one.trim()),
  );
}

/** Without the mark of a remark, which may stand alone or before the first word. */
function unmarked(cells: readonly string[]): readonly string[] {
  const [first = "", ...rest] = cells;
  const word = first.trim().replace(/^#+\s*/, "");
  return (word === "" && rest.length > 0 ? rest : [word, ...rest]).map((one) => one.trim());
}

function missingIn(cells: readonly string[]): readonly string[] {
  const names = cells.map(bare);
  return (["designator", "x", "y"] as const).filter(
    (one) => !names.some((name) => (columnNames[one] as readonly string[]).includes(name)),
  );
}

function unitIn(text: string): LengthUnit | null {
  const found = /\b(mm|millimet\w*|mils?|thou|inch(?:es)?|in)\b/i.exec(text)?.[1]?.toLowerCase();
  if (found === undefined) return null;
  if (found.startsWith("mm") || found.startsWith("millimet")) return "mm";
  return found.startsWith("in") ? "inch" : "mil";
}

function length(text: string, unit: LengthUnit, mayBeNegative: boolean): number | null {
  const own = unitIn(text.replace(/[\d.,+\u2212-]+/g, " "));
  const digits = text.replace(/\s*(mm|mils?|thou|inch(?:es)?|in|")\s*$/i, "");
  // A number by itself is read as millimetres, so that decimal marks are understood as everywhere.
  const parsed = parseQuantity(digits, "mm");
  if (!parsed.ok) return null;
  const metres = (parsed.value / metresOf.mm) * metresOf[own ?? (/"\s*$/.test(text) ? "inch" : unit)];
  const isWithin = Math.abs(metres) <= mostMillimetres / 1e3 && (mayBeNegative || metres >= 0);
  return isWithin ? metres : null;
}

function sideOf(text: string): RawPlacement["side"] {
  const word = text.trim().toLowerCase();
  if (/^(b|bot|bottom|back|solder|b\.?cu|2)/.test(word)) return "bottom";
  return /^(t|top|front|component|f\.?cu|1)/.test(word) ? "top" : null;
}

/** The places of a board as a file that reads back to the same. */
export function printPositionsCsv(positions: readonly Position[]): string {
  const { fields, rows } = positionsTable(positions);
  const data = rows.map((row) => [...row]);
  return `${Papa.unparse({ fields: [...fields], data }, { newline: "\n", escapeFormulae: true })}\n`;
}

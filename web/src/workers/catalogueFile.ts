import { importLimits } from "@pale-cap/contract";
import { type CatalogueEntry, entryKey, type FileMapping, type RowFault, readCatalogueRow } from "@pale-cap/core";
import Papa from "papaparse";

/** A file as it lies there, before anybody said what its columns are. */
export interface FileLook {
  readonly headers: readonly string[];
  readonly samples: readonly (readonly string[])[];
  readonly rowCount: number;
  readonly delimiter: string;
  readonly encoding: string;
  readonly decimalMark: "." | ",";
}

export type FileRefusal = "empty" | "no_columns" | "too_many_rows";

export interface BadRow {
  /** As a table program numbers it: the heading is row 1. */
  readonly row: number;
  readonly faults: readonly RowFault[];
}

export interface FileRead {
  readonly entries: readonly CatalogueEntry[];
  readonly bad: readonly BadRow[];
  readonly badCount: number;
}

/**
 * The text of a file in whatever Unicode it comes: a byte order mark says which; without one UTF-8, and where that does not
 * hold, the old western table.
 */
export function decodeFile(bytes: Uint8Array): { readonly text: string; readonly encoding: string } {
  const marks = [
    ["utf-16le", [0xff, 0xfe]],
    ["utf-16be", [0xfe, 0xff]],
    ["utf-8", [0xef, 0xbb, 0xbf]],
  ] as const;
  const marked = marks.find(([, mark]) => mark.every((byte, n) => bytes[n] === byte));
  if (marked) return { text: new TextDecoder(marked[0]).decode(bytes), encoding: marked[0] };
  try {
    return { text: new TextDecoder("utf-8", { fatal: true }).decode(bytes), encoding: "utf-8" };
  } catch {
    return { text: new TextDecoder("windows-1252").decode(bytes), encoding: "windows-1252" };
  }
}

/** Rows of cells; a heading is the first. */
export function parseRows(text: string): { readonly rows: readonly string[][]; readonly delimiter: string } {
  const { data, meta } = Papa.parse<string[]>(text.replace(/^\ufeff/, ""), {
    skipEmptyLines: "greedy",
    delimitersToGuess: [",", ";", "\t", "|"],
  });
  return { rows: data, delimiter: meta.delimiter };
}

export function lookAt(rows: readonly string[][], delimiter: string, encoding: string): FileLook | FileRefusal {
  const [headers, ...rest] = rows;
  if (!headers || rest.length === 0) return "empty";
  if (headers.length < 3) return "no_columns";
  if (rest.length > importLimits.rows) return "too_many_rows";
  const decimals = rest.slice(0, 200).flat();
  const isComma = delimiter !== "," && decimals.some((cell) => /^\s*\d+,\d+\s*$/.test(cell));
  return {
    headers,
    samples: rest.slice(0, 3),
    rowCount: rest.length,
    ...{ delimiter, encoding },
    decimalMark: isComma ? "," : ".",
  };
}

const toldRows = 200;
const breath = 1000;

/**
 * Every row as a part, or what is wrong with it. A part that a row before names too is refused.
 *
 * @param onProgress told now and then how many rows are read; false stops
 * @returns null where it was stopped
 */
export async function readRows(
  rows: readonly string[][],
  mapping: FileMapping,
  onProgress: (rowCount: number) => Promise<boolean>,
): Promise<FileRead | null> {
  const entries: CatalogueEntry[] = [];
  const bad: BadRow[] = [];
  const firstRows = new Map<string, number>();
  let badCount = 0;
  for (const [n, cells] of rows.entries()) {
    if (n === 0) continue;
    if (n % breath === 0 && !(await onProgress(n))) return null;
    const row = n + 1;
    const read = readCatalogueRow(cells, mapping);
    const faults = "faults" in read ? read.faults : doubled(read.entry, row, firstRows);
    if ("entry" in read && faults.length === 0) entries.push(read.entry);
    else {
      badCount += 1;
      if (bad.length < toldRows) bad.push({ row, faults });
    }
  }
  return { entries, bad, badCount };
}

function doubled(entry: CatalogueEntry, row: number, firstRows: Map<string, number>): readonly RowFault[] {
  const key = entryKey(entry);
  const otherRow = firstRows.get(key);
  if (otherRow === undefined) {
    firstRows.set(key, row);
    return [];
  }
  return [{ column: "orderCode", code: "doubled", text: entry.orderCode, otherRow }];
}

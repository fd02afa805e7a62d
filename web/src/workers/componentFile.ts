import {
  type ComponentColumn,
  type ComponentEntry,
  type ComponentFault,
  componentKey,
  mapComponentHeader,
  readComponentRow,
} from "@pale-cap/core";

/** As many rows as a file of other parts may have. */
export const mostComponentRows = 20_000;

export interface ComponentFileRead {
  readonly entries: readonly ComponentEntry[];
  /** As a table program numbers them: the heading is row 1. */
  readonly bad: readonly { readonly row: number; readonly faults: readonly ComponentFault[] }[];
  /** Headings that name no column: what stands below them is left out. */
  readonly unknownHeaders: readonly string[];
}

export type ComponentFileRefusal = "empty" | "no_headings" | "too_many_rows";

/** Every row of a file of other parts, or why none of it can be read. */
export function readComponentFile(
  rows: readonly string[][],
  minorPerUnit: number,
): ComponentFileRead | ComponentFileRefusal {
  const [headers, ...rest] = rows;
  if (!headers || rest.length === 0) return "empty";
  if (rest.length > mostComponentRows) return "too_many_rows";
  const columns = withoutDoubles(headers.map(mapComponentHeader));
  if (!(["kind", "maker", "typeNumber", "price"] as const).every((one) => columns.includes(one))) return "no_headings";
  const entries: ComponentEntry[] = [];
  const bad: { row: number; faults: readonly ComponentFault[] }[] = [];
  const firstRows = new Map<string, number>();
  for (const [n, cells] of rest.entries()) {
    const row = n + 2;
    const read = readComponentRow(cells, columns, minorPerUnit);
    if ("faults" in read) bad.push({ row, faults: read.faults });
    else {
      const key = componentKey(read.entry);
      const otherRow = firstRows.get(key);
      firstRows.set(key, otherRow ?? row);
      if (otherRow === undefined) entries.push(read.entry);
      else
        bad.push({ row, faults: [{ column: "typeNumber", code: "doubled", text: read.entry.typeNumber, otherRow }] });
    }
  }
  return { entries, bad, unknownHeaders: headers.filter((one, n) => columns[n] === null && one.trim() !== "") };
}

/** A column that is named twice is the first one's. */
function withoutDoubles(columns: readonly (ComponentColumn | null)[]): readonly (ComponentColumn | null)[] {
  return columns.map((one, n) => (one !== null && columns.indexOf(one) === n ? one : null));
}

import { useMemo, useState } from "react";
import classes from "./ui.module.css";

export type SortKey = string | number | null;

/** Rows narrowed by any words and sorted by one column; unknown values last, whichever way. */
export function useListOrder<Row>(of: {
  readonly rows: readonly Row[];
  readonly sortKeys: Readonly<Record<string, (row: Row) => SortKey>>;
  /** All that a row says, in lower case. */
  readonly textOf: (row: Row) => string;
}) {
  const { rows, sortKeys, textOf } = of;
  const [filter, setFilter] = useState("");
  const [sort, setSort] = useState<{ readonly column: string; readonly isDown: boolean } | null>(null);
  const shown = useMemo(() => {
    const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
    const found = rows.filter((row) => words.every((word) => textOf(row).includes(word)));
    const key = sort && sortKeys[sort.column];
    return key ? [...found].sort((a, b) => compare(key(a), key(b), sort.isDown)) : found;
  }, [rows, filter, sort, sortKeys, textOf]);
  /** A heading that sorts: up, down, and back to the order of the board. */
  const head = (column: string) => {
    const isSorted = sort?.column === column;
    return (
      <th key={column} scope="col" aria-sort={isSorted ? (sort.isDown ? "descending" : "ascending") : "none"}>
        {sortKeys[column] ? (
          <button
            type="button"
            className={classes.sort}
            onClick={() => setSort(isSorted && sort.isDown ? null : { column, isDown: isSorted })}
          >
            {column}
            {isSorted && (sort.isDown ? " ↓" : " ↑")}
          </button>
        ) : (
          column
        )}
      </th>
    );
  };
  return { shown, filter, setFilter, head };
}

function compare(a: SortKey, b: SortKey, isDown: boolean): number {
  if (a === null || b === null) return Number(a === null) - Number(b === null);
  const order =
    typeof a === "number" && typeof b === "number"
      ? a - b
      : String(a).localeCompare(String(b), "en", { numeric: true });
  return isDown ? -order : order;
}

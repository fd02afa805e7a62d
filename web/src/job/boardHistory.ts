import type { BoardChange, BoardRows } from "@pale-cap/contract";

/** An edit that takes another back, and what the rows must still say for it to be the right one. */
export interface InverseEdit {
  readonly changes: readonly BoardChange[];
  /** Values that the edit had written, by row: somebody else's later change is not taken back with it. */
  readonly written: Readonly<Record<string, object>>;
}

/**
 * The batch that takes a batch back: insertions are deleted, deletions restored, updates set to what stood before, all in
 * the opposite order.
 *
 * @returns null where there is no way back (a part that was added to a place that stood already)
 */
export function inverseOf(changes: readonly BoardChange[], before: BoardRows, after: BoardRows): InverseEdit | null {
  const made = new Set(changes.filter((one) => one.operation === "insert").map((one) => one.id));
  const inverse: BoardChange[] = [];
  const written: Record<string, object> = {};
  for (const change of [...changes].reverse()) {
    if (change.table === "fittedPart" && change.operation === "insert") {
      if (!change.values || !made.has(change.values.positionId)) return null;
      continue;
    }
    const was = rowOf(before, change);
    const is = rowOf(after, change);
    const bare = { table: change.table, id: change.id, values: null };
    switch (change.operation) {
      case "insert":
      case "restore":
        inverse.push({ ...bare, operation: "delete", version: is?.version ?? null } as BoardChange);
        break;
      case "delete":
        inverse.push({ ...bare, operation: "restore", version: (was?.version ?? 0) + 1 } as BoardChange);
        break;
      case "update":
        if (!was || !change.values) return null;
        written[change.id] = change.values;
        inverse.push({
          ...bare,
          operation: "update",
          version: is?.version ?? null,
          values: onlyKeys(was, change.values),
        } as BoardChange);
    }
  }
  return { changes: inverse, written };
}

/** The inverse on the rows as they stand now; a row that says something else keeps its old version and is refused. */
export function atLatest({ changes, written }: InverseEdit, latest: BoardRows): readonly BoardChange[] {
  return changes.map((change) => {
    const row = rowOf(latest, change);
    const wrote = written[change.id];
    const isOurs = row && wrote && JSON.stringify(onlyKeys(row, wrote)) === JSON.stringify(onlyKeys(wrote, wrote));
    return isOurs ? ({ ...change, version: row.version } as BoardChange) : change;
  });
}

interface VersionedRow {
  readonly id: string;
  readonly version: number;
}

function rowOf(rows: BoardRows, change: BoardChange): VersionedRow | undefined {
  const table = { board: rows.boards, net: rows.nets, position: rows.positions, fittedPart: rows.fittedParts }[
    change.table
  ];
  return (table as readonly VersionedRow[]).find((row) => row.id === change.id);
}

function onlyKeys(row: object, like: object): object {
  return Object.fromEntries(
    Object.keys(like)
      .sort()
      .map((key) => [key, (row as Record<string, unknown>)[key]]),
  );
}

interface History {
  readonly undo: readonly InverseEdit[];
  readonly redo: readonly InverseEdit[];
}

const empty: History = { undo: [], redo: [] };
const longest = 200;
const histories = new Map<string, History>();
const listeners = new Set<() => void>();

/** What can be taken back on each job while this page is open. */
export const boardHistory = {
  of: (jobId: string): History => histories.get(jobId) ?? empty,
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  /** After an edit by hand: it can be undone, and what was undone before is gone. */
  made(jobId: string, inverse: InverseEdit | null): void {
    if (inverse) set(jobId, { undo: [...boardHistory.of(jobId).undo, inverse].slice(-longest), redo: [] });
  },
  undone(jobId: string, inverse: InverseEdit | null): void {
    const { undo, redo } = boardHistory.of(jobId);
    set(jobId, { undo: undo.slice(0, -1), redo: inverse ? [...redo, inverse] : redo });
  },
  redone(jobId: string, inverse: InverseEdit | null): void {
    const { undo, redo } = boardHistory.of(jobId);
    set(jobId, { undo: inverse ? [...undo, inverse] : undo, redo: redo.slice(0, -1) });
  },
};

function set(jobId: string, history: History): void {
  histories.set(jobId, history);
  for (const listener of listeners) listener();
}

import type { BoardDetail } from "@pale-cap/contract";
import { useCallback, useMemo, useState } from "react";
import { useJob } from "../../job/JobContext";
import { useShownBoardEdit } from "../../job/useBoardEdit";
import { alignedParts, duplicatedParts, movedParts, spacedParts, turnedParts } from "./arrangement";

const nobody: ReadonlySet<string> = new Set();

/** Marking, moving, turning, aligning and copying parts of the board; each act is one edit that can be undone. */
export function useArranging() {
  const { shown: detail } = useJob();
  const [edit, { problem }] = useShownBoardEdit();
  const [markedIds, setMarked] = useState(nobody);
  const [moved, setMoved] = useState<ReadonlyMap<string, readonly [number, number]>>(new Map());

  const change = useCallback(
    (make: (detail: BoardDetail) => ReturnType<typeof movedParts>) =>
      edit((latest) => {
        const changes = make(latest);
        return changes.length > 0 ? changes : undefined;
      }),
    [edit],
  );

  const onMove = useCallback(
    (id: string, by: readonly [number, number], fromMetres: readonly [number, number]) => {
      const ids = markedIds.has(id) ? markedIds : new Set([id]);
      setMoved((now) => {
        const next = new Map(now);
        for (const one of detail.positions) {
          if (!ids.has(one.id)) continue;
          const drawn = one.id === id ? fromMetres : ([one.xMetres, one.yMetres] as const);
          const [x, y] = now.get(one.id) ?? drawn;
          if (x === null || y === null) continue;
          next.set(one.id, [x + by[0], y + by[1]]);
        }
        return next;
      });
      void change((latest) => movedParts(latest, ids, by, { id, fromMetres })).then(() =>
        setMoved((now) => new Map([...now].filter(([one]) => !ids.has(one)))),
      );
    },
    [change, detail.positions, markedIds],
  );

  return {
    problem,
    arranging: useMemo(
      () => ({
        markedIds,
        moved,
        onMark: (id: string) =>
          setMarked((now) => new Set(now.has(id) ? [...now].filter((one) => one !== id) : [...now, id])),
        onMove,
        onTurn: (id: string) =>
          void change((latest) => turnedParts(latest, markedIds.has(id) ? markedIds : new Set([id]))),
      }),
      [markedIds, moved, onMove, change],
    ),
    acts: {
      alignRow: () => void change((latest) => alignedParts(latest, markedIds, "row")),
      alignColumn: () => void change((latest) => alignedParts(latest, markedIds, "column")),
      space: () => void change((latest) => spacedParts(latest, markedIds)),
      turn: () => void change((latest) => turnedParts(latest, markedIds)),
      duplicate: () => void change((latest) => duplicatedParts(latest, markedIds)),
      clear: () => setMarked(nobody),
    },
  };
}

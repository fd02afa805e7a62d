import { reworkSteps } from "@pale-cap/core";
import { useState } from "react";
import { useJob } from "../../job/JobContext";
import { useTarget } from "../../job/useTarget";
import { useKeys } from "../../ui/useKeys";
import type { ReworkRows } from "./reworkRows";
import { isPossible, type useTick } from "./useTick";

/** Where an arrow says that the stripe of the new part points. */
const arrows = { ArrowRight: 0, ArrowDown: 90, ArrowLeft: 180, ArrowUp: 270 } as const;

/**
 * Rework with one hand: n goes from place to place, 1 to 4 tick its steps, a widens them to all of its value, an arrow says
 * where the stripe is seen.
 *
 * @param isOneAtATime by the house rule: then taking out is never ticked for a whole value
 */
export function useReworkKeys(
  groups: readonly ReworkRows[],
  tick: ReturnType<typeof useTick>[0],
  isOneAtATime: (group: ReworkRows) => boolean,
) {
  const { facts } = useJob();
  const [target, select] = useTarget();
  const [isWhole, setWhole] = useState(false);
  const rows = groups.flatMap((group) => group.rows);
  const at = rows.findIndex((row) => row.position.id === target?.id);
  const row = rows[at];
  const group = groups.find((one) => row && one.rows.includes(row));
  const meant = isWhole && group ? group.rows : row ? [row] : [];

  function step(index: number): void {
    const name = reworkSteps[index];
    if (!name || !row || !group) return;
    const isHeld = name === "removed" && isOneAtATime(group) && group.rows.length > 1;
    const others = group.rows.filter((one) => one !== row);
    const isOtherEmpty = others.some((one) => one.done.has("removed") && !one.done.has("fitted"));
    if (isHeld && !row.done.has("removed") && (isWhole || isOtherEmpty)) return;
    tick(
      name,
      meant,
      meant.some((one) => !one.done.has(name) && isPossible(facts, one, name, true)),
    );
  }

  useKeys("Rework", [
    {
      key: "n",
      label: "next place",
      action: () => {
        const next = rows[(at + 1) % rows.length];
        if (next) select({ kind: "part", id: next.position.id });
      },
    },
    ...["old part out", "new part in", "polarity by the mark", "polarity by the stripe"].map((label, index) => ({
      key: String(index + 1),
      label,
      action: () => step(index),
    })),
    { key: "a", label: "steps for this place, or for all of its value", action: () => setWhole((now) => !now) },
    ...Object.entries(arrows).map(([key, degrees]) => ({
      key,
      label: "stripe seen there",
      action: () =>
        tick(
          "polarity_part_mark",
          meant.filter((one) => one.done.has("fitted")),
          true,
          degrees,
        ),
    })),
  ]);
  return [isWhole, setWhole] as const;
}

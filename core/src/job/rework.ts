import type { ReworkStep, ReworkTick } from "./jobFacts";

/** Which steps of a position stand as done: the latest tick of each step decides. */
export function doneSteps(ticks: readonly ReworkTick[], positionId: string): ReadonlySet<ReworkStep> {
  const done = new Set<ReworkStep>();
  const ordered = ticks
    .filter((tick) => tick.positionId === positionId)
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  for (const tick of ordered) {
    if (tick.isDone) done.add(tick.step);
    else done.delete(tick.step);
  }
  return done;
}

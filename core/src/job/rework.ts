import type { ReworkStep, ReworkTick } from "../facts/jobFacts";
import { inOrder } from "../readings/factMoment";

/** Which steps of a position stand as done: the tick that was stored last decides. */
export function doneSteps(ticks: readonly ReworkTick[], positionId: string): ReadonlySet<ReworkStep> {
  const done = new Set<ReworkStep>();
  for (const tick of inOrder(ticks)) {
    if (tick.positionId !== positionId) continue;
    if (tick.isDone) done.add(tick.step);
    else done.delete(tick.step);
  }
  return done;
}

/** The last tick that changed what is in the unit: something came out or went in, or that was taken back. */
export function lastAct(ticks: readonly ReworkTick[]): ReworkTick | null {
  return inOrder(ticks.filter((tick) => tick.step === "removed" || tick.step === "fitted")).at(-1) ?? null;
}

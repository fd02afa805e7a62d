import type { JobAct } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import { isChange } from "../facts/reworkTicks";
import { isBefore, type LoggedFact } from "../readings/factMoment";

interface Changes {
  readonly ticks: readonly ReworkTick[];
  readonly acts: readonly JobAct[];
}

/**
 * What changed the unit last as far as a rail is concerned: a part in or out anywhere, or this rail's trim. What was read
 * before it proves nothing.
 *
 * @param netId null: of no rail, so that no trim counts
 */
export function lastChange(netId: string | null, { ticks, acts }: Changes): LoggedFact | null {
  const trims = netId === null ? [] : acts.filter((act) => act.kind === "trim_turned" && act.subjectId === netId);
  return latest([...ticks.filter(isChange), ...trims]);
}

export const latest = (facts: readonly LoggedFact[]): LoggedFact | null =>
  facts.reduce<LoggedFact | null>((last, one) => (last === null || isBefore(last, one) ? one : last), null);

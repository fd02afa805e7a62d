import type { JobAct } from "../facts/jobActs";
import { inOrder } from "../readings/factMoment";
import { curesUntil } from "./workPoints";

/** `cured`: glue that was put on; `burn_in`: a long run that ends, or ended and wants to be looked at; `due`: what was promised. */
export type ReminderKind = "call_back" | "cured" | "burn_in" | "due";

export interface Reminder {
  readonly kind: ReminderKind;
  /** From when on it wants somebody. */
  readonly atMilliseconds: number;
  /** What a person wrote; null: nothing. */
  readonly note: string | null;
  /** The place of the glue; null: the unit. */
  readonly positionId: string | null;
}

const dayMilliseconds = 86_400_000;
/** Cured glue and a run that ended are told for so long, and a due day so long before. */
const toldForMilliseconds = dayMilliseconds;

interface ReminderQuestion {
  readonly acts: readonly JobAct[];
  /** Long runs that were begun: when each ends by its plan, or ended. */
  readonly runEndsMilliseconds: readonly number[];
  /** The promised day as it begins in the shop; null: none was promised. */
  readonly dueMilliseconds: number | null;
  readonly nowMilliseconds: number;
}

/**
 * What a job wants somebody to think of, the soonest first: calls that were promised and not made, glue until it has cured and a day
 * longer, runs that end or ended within the last day, and the promised day from the day before on.
 */
export function jobReminders(question: ReminderQuestion): readonly Reminder[] {
  const { acts, runEndsMilliseconds, dueMilliseconds, nowMilliseconds } = question;
  const calls: JobAct[] = [];
  for (const act of inOrder(acts)) {
    if (act.kind !== "call_back") continue;
    // A call settles every promise that was made before it.
    if (act.word === "made") calls.length = 0;
    else calls.push(act);
  }
  const glue = new Map(
    inOrder(acts).flatMap((act) => (act.kind === "glue_set" ? [[act.subjectId, act] as const] : [])),
  );
  const isTold = (at: number) => at > nowMilliseconds - toldForMilliseconds;
  return [
    ...calls.map((act) => ({
      ...{ kind: "call_back" as const, note: act.note, positionId: null },
      atMilliseconds: 1000 * (act.value ?? 0),
    })),
    ...[...glue].flatMap(([positionId, act]): Reminder[] => {
      const atMilliseconds = curesUntil(act);
      return isTold(atMilliseconds) ? [{ kind: "cured", note: null, positionId, atMilliseconds }] : [];
    }),
    ...runEndsMilliseconds
      .filter(isTold)
      .map((atMilliseconds) => ({ kind: "burn_in" as const, note: null, positionId: null, atMilliseconds })),
    ...(dueMilliseconds !== null && dueMilliseconds <= nowMilliseconds + toldForMilliseconds
      ? [{ kind: "due" as const, note: null, positionId: null, atMilliseconds: dueMilliseconds }]
      : []),
  ].sort((a, b) => a.atMilliseconds - b.atMilliseconds);
}

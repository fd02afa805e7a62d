import type { LoggedFact } from "../readings/factMoment";
/** What was logged about the way to mains: what blew, and what was tested since. */
export const powerEventKinds = ["fuse_blown", "breaker_tripped", "short_test", "gate_overruled"] as const;
export type PowerEventKind = (typeof powerEventKinds)[number];

export interface PowerEvent extends LoggedFact {
  readonly kind: PowerEventKind;
  /** With short_test: ohms across the bulk, where a number was read. */
  readonly resistanceOhms: number | null;
  /** With short_test: what the person concluded. */
  readonly hasShort: boolean | null;
  /** With gate_overruled: the reason. */
  readonly note: string | null;
}

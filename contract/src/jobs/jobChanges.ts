import { number, strictObject } from "../fields/fields";
import type { AddedList, JobDetail } from "./jobDetail";

export const jobChangesQuerySchema = strictObject({ after: number().integer().min(0).required() });

/** What came to a job after a place in the shop's order. */
export interface JobChanges {
  /** Up to here it is told. */
  readonly sequence: number;
  readonly added: { readonly [K in AddedList]: JobDetail[K] };
  /** All that is not only added to, where something of it changed since; null where nothing did. */
  readonly rest: Omit<JobDetail, AddedList> | null;
}

/** Who looks at a job now. */
export interface Presence {
  readonly personId: string;
  readonly name: string;
  readonly benchName: string | null;
}

/** What a job's stream says: that something came, up to which place; or who is there. */
export type JobStreamEvent =
  | { readonly kind: "changed"; readonly sequence: number }
  | { readonly kind: "present"; readonly people: readonly Presence[] }
  /** The house rules changed: what they say is asked for anew. */
  | { readonly kind: "rules" }
  /** The stream was deaf for a while: ask for everything after what is known. */
  | { readonly kind: "missed" };

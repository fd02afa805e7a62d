import type { ReminderKind } from "@pale-cap/core";

/** Something that an open job wants somebody to think of. */
export interface ReminderRow {
  readonly jobId: string;
  readonly jobNumber: number;
  readonly deviceKind: string;
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  readonly kind: ReminderKind;
  readonly at: string;
  readonly note: string | null;
  /** The place that it is about; null: the unit. */
  readonly designator: string | null;
}

import type { InferType } from "yup";
import { nullableDay, nullableId, nullableText, number, strictObject } from "../fields/fields";
import type { Role } from "../rights/rights";

/** One line of who did what when. */
export interface AuditLine {
  readonly id: string;
  readonly at: string;
  readonly personId: string | null;
  readonly name: string | null;
  readonly role: Role | null;
  readonly benchName: string | null;
  /** The kind of a write, or a named act. */
  readonly act: string;
  readonly jobId: string | null;
  readonly jobNumber: number | null;
  readonly subject: string | null;
  readonly details: Readonly<Record<string, unknown>>;
}

export interface AuditPage {
  readonly lines: readonly AuditLine[];
  /** Where the next page goes on; null on the last. */
  readonly nextBefore: string | null;
}

export const auditPageSize = 100;

export const auditQuerySchema = strictObject({
  /** Words in act, name, bench or job number. */
  search: nullableText(80),
  personId: nullableId(),
  from: nullableDay(),
  until: nullableDay(),
  /** Goes on below this line: moment and id. */
  before: nullableText(80),
  /** Readings and what else is logged all day long are left out unless they are wanted. */
  withFacts: number().oneOf([0, 1]).required(),
});
export type AuditQuery = InferType<typeof auditQuerySchema>;

import { type VerdictWord, verdictWords } from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import {
  idField,
  instantField,
  nullableId,
  nullableText,
  nullableWord,
  strictObject,
  textField,
  versionField,
} from "../fields/fields";

/** A person's verdict on a part, with the reason; null takes the last one back. Append-only. */
export const overruleSchema = strictObject({
  id: idField(),
  fittedPartId: idField(),
  verdict: nullableWord<VerdictWord>(verdictWords),
  reason: textField(300),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewOverrule = InferType<typeof overruleSchema>;
export type OverruleRow = NewOverrule & StoredFact;

/** The summary of the verdict in a person's own words; null goes back to the one that is made from the model. */
export const verdictSummarySchema = strictObject({
  writeId: idField(),
  version: versionField(),
  text: nullableText(2000),
});
export type VerdictSummaryEdit = InferType<typeof verdictSummarySchema>;

/** A verdict that a change of a house rule turned. */
export interface TurnedVerdict {
  readonly designator: string;
  readonly before: VerdictWord;
  readonly after: VerdictWord;
}

/** What a change of a house rule did to one open job. */
export interface RuleEffect {
  readonly jobId: string;
  readonly jobNumber: number;
  readonly jobName: string;
  readonly turned: readonly TurnedVerdict[];
}

import type { ChargeStateName, Lens } from "@pale-cap/core";
import type { InferType } from "yup";
import { nullableText, number, strictObject, wordField } from "../fields/fields";

/** A line of the bench. */
export interface BenchLine {
  readonly id: string;
  readonly number: number;
  readonly deviceKind: string;
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  readonly complaint: string | null;
  readonly lens: Lens;
  readonly openPointCount: number;
  readonly chargeName: ChargeStateName;
  readonly chargeVolts: number | null;
  readonly chargeAt: string | null;
  readonly dueOn: string | null;
  readonly createdAt: string;
  readonly handedOverAt: string | null;
  /** Entries that came after the job was closed. */
  readonly lateFactCount: number;
}

/** A page of the bench: open jobs or closed ones, newest first. */
export interface BenchPage {
  readonly lines: readonly BenchLine[];
  /** Closed jobs to which something came afterwards; told with the first page of open ones. */
  readonly late: readonly BenchLine[];
  /** How many there are over all pages. */
  readonly total: number;
  /** Every summary is folded; until then it is worth asking again at once. */
  readonly isSettled: boolean;
  /** Numbers below this one come on the next page; null on the last. */
  readonly nextBelow: number | null;
}

const benchStates = ["open", "closed", "practice"] as const;
export type BenchState = (typeof benchStates)[number];
export const benchPageSize = 100;

/** Which page: words are looked for in device, serial, fault, number and customer. */
export const benchQuerySchema = strictObject({
  state: wordField<BenchState>(benchStates),
  search: nullableText(80),
  below: number().integer().min(1).max(2_147_483_647).nullable().defined(),
});
export type BenchQuery = InferType<typeof benchQuerySchema>;

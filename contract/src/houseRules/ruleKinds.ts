import type { DrainKitItem } from "@pale-cap/core";
import { drainKitItemSchema } from "../energy/energy";
import { array, textField } from "../fields/fields";

/** What a rule's value may be. */
export type RuleKind =
  | { readonly type: "number"; readonly least: number; readonly most: number }
  | { readonly type: "flag" }
  | { readonly type: "choice"; readonly options: Readonly<Record<string, string>> }
  | { readonly type: "text"; readonly longest: number; readonly mayBeEmpty: boolean }
  | { readonly type: "kit" }
  | { readonly type: "codes" };

/** One rule of the shop: what it is by default, where that comes from, and why. */
export interface HouseRule<T> {
  readonly title: string;
  readonly value: T;
  readonly unit: string;
  readonly kind: RuleKind;
  readonly source: string;
  readonly why: string;
}

/** The unit of an amount of money: stored in the smallest coin of the shop's currency, shown and typed in its usual one. */
export const moneyUnit = "minor units";

export type Words = readonly [title: string, source: string, why: string];

export const amount = (
  value: number,
  unit: string,
  range: readonly [number, number],
  words: Words,
): HouseRule<number> => ({
  ...worded(words),
  value,
  unit,
  kind: { type: "number", least: range[0], most: range[1] },
});
export const flag = (value: boolean, words: Words): HouseRule<boolean> => ({
  ...worded(words),
  value,
  unit: "",
  kind: { type: "flag" },
});
export const choice = <T extends string>(
  value: T,
  options: Readonly<Record<T, string>>,
  words: Words,
): HouseRule<T> => ({
  ...worded(words),
  value,
  unit: "",
  kind: { type: "choice", options },
});
export const text = (value: string, words: Words, longest = 60): HouseRule<string> => ({
  ...worded(words),
  value,
  unit: "",
  // What is empty by default may be empty.
  kind: { type: "text", longest, mayBeEmpty: value === "" },
});

export const drainKitSchema = array().of(drainKitItemSchema.required()).max(20).required();

export const kit = (value: readonly DrainKitItem[], words: Words): HouseRule<readonly DrainKitItem[]> => ({
  ...worded(words),
  value,
  unit: "",
  kind: { type: "kit" },
});

export const codesSchema = array().of(textField(160)).max(500).required();

/** A list of codes that a screen of its own keeps. */
export const codes = (words: Words): HouseRule<readonly string[]> => ({
  ...worded(words),
  value: [],
  unit: "",
  kind: { type: "codes" },
});

function worded([title, source, why]: Words) {
  return { title, source, why };
}

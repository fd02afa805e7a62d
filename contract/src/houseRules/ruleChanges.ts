import { ValidationError } from "yup";
import type { StoredFact } from "../facts/clock";
import { type Fault, fault, faultOf } from "../faults";
import {
  idField,
  instantField,
  mixed,
  nullableId,
  nullableText,
  number,
  strictObject,
  textField,
} from "../fields/fields";
import type { FieldProblem } from "../problem";
import type { RuleEffect } from "../verdicts/verdicts";
import { type HouseRuleKey, type HouseRuleValues, houseRules } from "./houseRules";
import { codesSchema, drainKitSchema } from "./ruleKinds";

/** What is wrong with a value for a rule; null when it may be stored. */
export function ruleProblem(key: string, value: unknown): FieldProblem | null {
  const what = ruleFault(key, value);
  return what && { path: "", ...what };
}

function ruleFault(key: string, value: unknown): FieldProblem | Fault | null {
  if (typeof key !== "string" || !Object.hasOwn(houseRules, key)) return fault("not_rule");
  const { kind, unit } = houseRules[key as HouseRuleKey];
  switch (kind.type) {
    case "number":
      if (typeof value !== "number" || !Number.isFinite(value)) return fault("wrong_type", { type: "number" });
      if (value < kind.least || value > kind.most)
        return fault("outside_limits", { least: kind.least, most: kind.most, unit });
      return null;
    case "flag":
      return typeof value === "boolean" ? null : fault("not_flag");
    case "choice":
      return typeof value === "string" && Object.hasOwn(kind.options, value) ? null : fault("not_known_word");
    case "kit":
    case "codes":
      try {
        (kind.type === "kit" ? drainKitSchema : codesSchema).validateSync(value, { strict: true });
        return null;
      } catch (error) {
        return error instanceof ValidationError ? { path: error.path ?? "", ...faultOf(error) } : fault("not_valid");
      }
    case "text":
      if (typeof value !== "string" || value.length > kind.longest || (value.trim() === "" && !kind.mayBeEmpty))
        return fault("not_short_word");
      if (key === "shop.address") return addressProblem(value);
      return key === "shop.currency" || key === "shop.timeZone" ? localeProblem(key, value) : null;
  }
}

/** What a label's code leads to: a page of the network, with room for the job's number. */
function addressProblem(value: string): Fault | null {
  return value === "" || (value.includes("{number}") && /^https?:\/\/[^\s/]+(\/\S*)?$/i.test(value))
    ? null
    : fault("not_address");
}

/** A currency or time zone that the platform does not know would break every sum or date shown. */
function localeProblem(key: "shop.currency" | "shop.timeZone", value: string): Fault | null {
  try {
    const options = key === "shop.currency" ? { style: "currency", currency: value } : { timeZone: value };
    if (key === "shop.currency") new Intl.NumberFormat("en", options as Intl.NumberFormatOptions);
    else new Intl.DateTimeFormat("en", options as Intl.DateTimeFormatOptions);
    return null;
  } catch {
    return fault(key === "shop.currency" ? "not_currency" : "not_time_zone");
  }
}

/** A change of one rule; null goes back to the default. Append-only. */
export const houseRuleChangeSchema = strictObject({
  id: idField(),
  key: textField(60),
  value: mixed()
    .nullable()
    .defined()
    .test("rule", function check(value) {
      const problem = value === null ? null : ruleProblem((this.parent as { key: string }).key, value);
      if (problem === null) return true;
      const { path, ...message } = problem;
      return this.createError({ message, path: path === "" ? this.path : `${this.path}.${path}` });
    }),
  reason: nullableText(300),
  changedAt: instantField(),
  /** The change of this rule that it comes on top of, by its sequence; 0: the default. */
  version: number().integer().min(0).required(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type HouseRuleChange = {
  readonly id: string;
  readonly key: string;
  readonly value: unknown;
  readonly reason: string | null;
  readonly changedAt: string;
  readonly version: number;
  readonly clockId: string | null;
  readonly personId: string | null;
};

/** A change as it is told: with the verdicts that it turned on open jobs. */
export interface ToldRuleChange extends Omit<HouseRuleChange, "version">, Omit<StoredFact, "cameAfterClosing"> {
  readonly effects: readonly RuleEffect[];
}

/** The defaults with the shop's changes over them; a key or value that is no longer known is ignored. */
export function foldHouseRules(changes: readonly { readonly key: string; readonly value: unknown }[]): HouseRuleValues {
  const values: Record<string, unknown> = Object.fromEntries(
    Object.entries(houseRules).map(([key, { value }]) => [key, value]),
  );
  for (const { key, value } of changes) {
    if (!Object.hasOwn(houseRules, key)) continue;
    const isKept = value !== null && ruleProblem(key, value) === null;
    values[key] = isKept ? value : houseRules[key as HouseRuleKey].value;
  }
  return values as HouseRuleValues;
}

/** The version that a change of a rule must come on top of: the sequence of its last change, 0 without one. */
export function ruleVersion(
  changes: readonly { readonly key: string; readonly sequence: number | null }[],
  key: string,
): number {
  return changes.filter((one) => one.key === key).at(-1)?.sequence ?? 0;
}

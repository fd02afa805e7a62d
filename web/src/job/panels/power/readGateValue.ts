import { type GateItem, type GateValue, gateItemRules, parseQuantity } from "@pale-cap/core";
import { failureWords } from "@pale-cap/wording";

/** What was typed for a test before power: a number, or `ol` where the meter showed none. */
export function readGateValue(
  text: string,
  item: GateItem,
): { readonly value: GateValue | null; readonly problem: string | null } {
  if (text.trim() === "") return { value: null, problem: null };
  if (/^\s*(ol?|open)\s*$/i.test(text)) return { value: "open", problem: null };
  const parsed = parseQuantity(text, gateItemRules[item].quantity === "resistance" ? "Ω" : "V");
  if (!parsed.ok) return { value: null, problem: failureWords(parsed.failure) };
  if (parsed.value < 0) return { value: null, problem: "below zero: the probes the other way round, and again" };
  return { value: parsed.value, problem: null };
}

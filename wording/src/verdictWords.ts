import type { TurnedVerdict } from "@pale-cap/contract";
import type { VerdictWord } from "@pale-cap/core";

export const verdictLabels: Readonly<Record<VerdictWord, string>> = {
  sound: "sound",
  worn: "worn",
  failed: "failed",
  cannot_tell: "cannot tell",
  not_measured: "not measured",
};

/** A chance as a person reads it: no false certainty at either end. */
export function chanceWords(probability: number): string {
  if (probability > 0.99) return "over 99 %";
  return probability < 0.01 ? "under 1 %" : `${Math.round(probability * 100)} %`;
}

/** A verdict that a changed rule turned: what it was and what it is. */
export function turnedWords({ designator, before, after }: TurnedVerdict): string {
  return `${designator} ${verdictLabels[before]} → ${verdictLabels[after]}`;
}

import type { PartSource, RemovingWay, SolderAlloy, TransistorSchool } from "@pale-cap/contract";
import type { ReplacementStrategy } from "@pale-cap/core";

const removing: Readonly<Record<RemovingWay, string>> = {
  group_with_photo:
    "All of one value out together where a board photo or the drawing shows each place, else one at a time.",
  one_at_a_time: "One out, one in: the next place opens when the last one is filled.",
  all_of_value: "All of one value out together.",
};
const alloys: Readonly<Record<SolderAlloy, string>> = {
  any: "Low-melt alloy only to remove, never in the final joint.",
  leaded: "Leaded solder; low-melt alloy only to remove.",
  lead_free: "Lead-free solder; low-melt alloy only to remove.",
};

/** How old parts come out and what goes into the joint, by the house rules. */
export const reworkRuleWords = (way: RemovingWay, alloy: SolderAlloy): string => `${removing[way]} ${alloys[alloy]}`;

const strategies: Readonly<Record<ReplacementStrategy, string>> = {
  failed_only: "only the bad ones go",
  same_group: "the same value on the same rail goes with a bad one",
  all_electrolytics: "every electrolytic goes when one is bad",
  whole_supply: "the whole supply goes when one is bad, no part by itself",
};
const sources: Readonly<Record<PartSource, string>> = {
  trusted: "trusted distributors only",
  any: "any source, counterfeits checked by weight, size and ESR",
  salvaged_measured: "salvaged parts too, if measured and marked as such",
};
const transistors: Readonly<Record<TransistorSchool, string>> = {
  same_type: "a transistor by the same type only",
  equal_or_better: "a transistor by equal or better Vds, Id, Rds(on), gate charge, body diode and package",
};

/** What the shop replaces and where it buys, in a line. */
export function choosingRuleWords(rules: {
  readonly howMany: ReplacementStrategy;
  readonly source: PartSource;
  readonly transistor: TransistorSchool;
}): string {
  return `House rules: ${strategies[rules.howMany]}; ${sources[rules.source]}; ${transistors[rules.transistor]}.`;
}

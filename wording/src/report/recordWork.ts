import type { ReportBlock } from "@pale-cap/contract";
import { houseRules as allRules } from "@pale-cap/contract";
import { boardDamages, isChosen, lastActOf, oldPartPlaces } from "@pale-cap/core";
import { listWords } from "../boardWords";
import { partKindLabels } from "../entryWords";
import { moneyText } from "../money";
import { overrideLabels } from "../needWords";
import { damageWords, oldPartLabels } from "../workWords";
import { emptyNow, fittedNow, partFigures, partName } from "./partWords";
import { list, paragraph, section, table } from "./reportDocument";
import type { ReportModel } from "./reportModel";

/** Which way was taken, and why a limit was set by hand or a part taken that breaks one. */
export function choices({ detail, houseRules }: ReportModel): readonly ReportBlock[] {
  const nameOf = (id: string) => detail.positions.find((one) => one.id === id)?.designator ?? "a place";
  const chosen = detail.plans.filter((plan) => isChosen(plan) || plan.isLeftEmpty);
  const reasons = detail.plans.flatMap((plan) =>
    Object.entries(plan.reasons ?? {}).flatMap(([key, reason]) =>
      reason ? [`${nameOf(plan.positionId)}, ${reasonNames[key] ?? key}: ${reason}`] : [],
    ),
  );
  if (chosen.length === 0) return [];
  const out = chosen.filter((one) => !one.isLeftEmpty).map((one) => nameOf(one.positionId));
  const empty = chosen.filter((one) => one.isLeftEmpty).map((one) => nameOf(one.positionId));
  return section("Strategy", [
    paragraph(
      [
        `How many are replaced, by the house: ${waysOfReplacing[houseRules["choose.howMany"]]}.`,
        out.length > 0 ? `To be replaced: ${listWords(out)}.` : "",
        empty.length > 0 ? `Left empty on purpose: ${listWords(empty)}.` : "",
        detail.job.priceLimitMinor === null ? "" : "A price limit was given.",
      ]
        .filter(Boolean)
        .join(" "),
    ),
    list(reasons),
  ]);
}

const waysOfReplacing = (allRules["choose.howMany"].kind as { readonly options: Readonly<Record<string, string>> })
  .options;
const reasonNames: Readonly<Record<string, string>> = overrideLabels;

/** New parts of every kind that stand in the unit, with where they came from and what they cost. */
export function partsFitted(model: ReportModel): readonly ReportBlock[] {
  const currency = model.houseRules["shop.currency"];
  const fitted = fittedNow(model);
  const total = fitted.reduce((sum, { part }) => sum + (part.priceMinor ?? 0), 0);
  const unpriced = fitted.filter(({ part }) => part.priceMinor == null).length;
  const oldTo = (id: string) => {
    const act = lastActOf(model.facts.acts, "old_part_to", id);
    const place = oldPartPlaces.find((one) => one === act?.word);
    return place ? oldPartLabels[place] : "";
  };
  const rows = fitted.map(({ designator, kind, part }) => [
    designator,
    partKindLabels[kind],
    partName(part),
    partFigures(part),
    oldTo(part.positionId),
    part.priceMinor == null ? "not noted" : moneyText(part.priceMinor, currency),
  ]);
  const empty = emptyNow(model);
  return section("Parts fitted", [
    table("Parts fitted", ["Part", "Kind", "Which", "Marked", "Old one to", "Cost"], rows, [5]) ?? paragraph("None."),
    fitted.length === 0
      ? null
      : paragraph(
          `Together ${moneyText(total, currency)} in the shop's own cost${unpriced > 0 ? `, ${unpriced} without a price` : ""}.`,
          "dim",
        ),
    empty.length > 0 ? paragraph(`Out, and nothing in their place: ${listWords(empty)}.`) : null,
  ]);
}

/** What was done on the board beside parts out and in. */
export function work({ detail, facts }: ReportModel): readonly ReportBlock[] {
  const nameOf = (id: string | null) => detail.positions.find((one) => one.id === id)?.designator ?? "?";
  const isForNow = ({ id }: { readonly id: string }) => lastActOf(facts.acts, "temporary_part", id)?.word === "for_now";
  const items = [
    ...boardDamages(facts.acts).map((one) => `${nameOf(one.positionId)}: ${damageWords(one)}.`),
    ...detail.positions.filter(isForNow).map((one) => `${one.designator} is in for now only.`),
    ...facts.acts.filter((one) => one.kind === "mechanical").map((one) => one.note ?? ""),
  ];
  return section("Work on the board", [list(items)]);
}

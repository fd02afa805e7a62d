import type { BetaInterval, NoLife, RecordedChange, WeibullLife } from "@pale-cap/core";
import { faultName, findingWords } from "./explanationWords";

const percent = (ratio: number) => {
  const value = 100 * ratio;
  if (value > 0 && value < 0.5) return "under 1 %";
  if (value < 100 && value > 99.5) return "over 99 %";
  return `${Math.round(value)} %`;
};

/** Said wherever shares of units are told. */
export const selectionWords =
  "Units come because they failed: these are shares of what came in, not of all that were sold.";

/** A count with what it lets expect; below the house's fewest it is told as too few. */
export function shareWords(count: number, total: number, share: BetaInterval | null): string {
  if (total === 0) return "none seen";
  if (!share) return `${count} of ${total}, too few to count on`;
  return `${count} of ${total}: ${percent(share.lowRatio)} to ${percent(share.highRatio)}`;
}

const changeTexts: Readonly<Record<RecordedChange["kind"], (change: RecordedChange) => string>> = {
  prior: ({ fault }) => `${faultName(fault)}, as what was wrong`,
  shows: ({ fault, other }) => `“${findingWords(other ?? "")}” where ${faultName(fault)}`,
  causes: ({ fault, other }) => `${faultName(other ?? "")}, after ${faultName(fault)}`,
};

/** What closed jobs moved, with what it was, what it is here, and of how many jobs. */
export function changeWords(change: RecordedChange): string {
  const jobs = Math.round(10 * change.total) / 10;
  const before = change.of === "model" ? "by its like" : "by default";
  const here = change.of === "model" ? "for this model" : "here";
  return (
    `${changeTexts[change.kind](change)}: ${percent(change.defaultProbability)} ${before}, ` +
    `${percent(change.probability)} ${here}, ${jobs} job${jobs === 1 ? "" : "s"}`
  );
}

/** A life told from closed jobs, with how far it is known. */
export function lifeWords(life: WeibullLife | NoLife): string {
  if (life === "no_failures")
    return "None has failed yet: no life can be told, only that it is longer than their ages.";
  if (life === "no_survivors") return "All that were seen had failed: how long they lived cannot be told.";
  const { tenPercentHours, tenPercentLowHours, tenPercentHighHours } = life;
  return (
    `A tenth has failed by ${hoursText(tenPercentHours)}, ` +
    `somewhere between ${hoursText(tenPercentLowHours)} and ${hoursText(tenPercentHighHours)}.`
  );
}

/** Hours of running, rounded to what they are known to. */
export const hoursText = (hours: number): string =>
  `${Number(hours.toPrecision(2)).toLocaleString("en").replaceAll(",", "\u202f")}\u00a0h`;

/** Whether one series lives shorter than another. */
export function againstWords(name: string, other: string, probability: number | null): string {
  if (probability === null) return `Of one of them no life can be told: ${name} and ${other} cannot be compared yet.`;
  const chance = percent(probability);
  if (probability >= 0.95) return `${name} lives shorter than ${other}: ${chance} by what was seen of both.`;
  if (probability <= 0.05)
    return `${name} lives longer than ${other}: ${percent(1 - probability)} by what was seen of both.`;
  return `Which of the two lives shorter is open: ${chance} for ${name} by what was seen of both.`;
}

export const apartLabels: Readonly<Record<"salvaged" | "suspect_lot", string>> = {
  salvaged: "salvaged parts",
  suspect_lot: "of a lot that was set aside",
};

/** How long an estimate held: minutes that were spent over minutes that were quoted. */
export function minutesWords(minutes: {
  readonly medianRatio: number;
  readonly lowRatio: number;
  readonly highRatio: number;
  readonly count: number;
}): string {
  const ratio = (value: number) => `${Number(value.toPrecision(2))}`;
  return (
    `Half of ${minutes.count} jobs took ${ratio(minutes.medianRatio)} times their quoted minutes or less; ` +
    `eight of ten lay between ${ratio(minutes.lowRatio)} and ${ratio(minutes.highRatio)}.`
  );
}

/** A change that is left out and stands in no list just now: of one model, of a place, of a series. */
export function leftOutWords(code: string): string {
  const [kind = "", ...rest] = code.split("/");
  const [scope = "", subject = ""] = rest.length > 1 ? [rest[0], rest.slice(1).join("/")] : ["", rest[0] ?? ""];
  const of = scope.startsWith("model:") ? scope.slice(6).split("|").filter(Boolean).join(" ") : "one board type";
  if (kind === "place") return `${subject} of ${of}, left out`;
  if (kind === "maker") return `Maker ${subject.split("|")[0]}, left out`;
  if (kind === "series" || kind === "series_age") return `Series ${subject.split("|")[0]}, left out`;
  const [fault = "", other] = subject.split(">");
  return `${faultName(fault)}${other ? `, ${findingWords(other)}` : ""} for ${of}, left out`;
}

/** How often a new part went in at a place, and how many units were back with it bad again. */
export function fittedWords(count: number, returnedCount: number): string {
  const times = count === 1 ? "once new" : `${count} times new`;
  return returnedCount === 0 ? `${times}, none was back with it` : `${times}, ${returnedCount} back with it bad`;
}

import type { FactKind, ProblemCode } from "@pale-cap/contract";

/** What waits in the outbox, as a person would call it. */
export const factLabels: Readonly<Record<FactKind, string>> = {
  reading: "A reading",
  signs: "A look",
  overrule: "An overrule",
  charge: "A charge entry",
  power: "A power entry",
  ticks: "A tick",
  return: "A count",
  act: "An entry",
  acceptance: "An acceptance",
  quote: "A quote",
  quoteAnswer: "An answer to a quote",
};

/** How far this computer's clock is from the server's, in words; seconds ahead. */
export function clockWords(aheadSeconds: number): string {
  const minutes = Math.abs(aheadSeconds) / 60;
  const far = minutes < 90 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 60)} h`;
  return aheadSeconds > 0
    ? `This computer's clock is ${far} ahead of the server's: what is measured here verifies no stored charge until it is set.`
    : `This computer's clock is ${far} behind the server's: times are shown as it gave them.`;
}

/** Why what was confirmed is not stored yet. */
export function waitWords(code: ProblemCode | null): string {
  switch (code) {
    case "not_signed_in":
      return "nobody is signed in here";
    case "too_many":
      return "too much came at once, and it is sent again in a moment";
    default:
      return "the server does not answer";
  }
}

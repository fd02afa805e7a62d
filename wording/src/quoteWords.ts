import type {
  AnswerWay,
  Consent,
  ConsentState,
  QuoteAnswerWord,
  QuoteDrift,
  QuoteLine,
  QuoteLineKind,
} from "@pale-cap/core";
import { moneyText } from "./money";

const lineKinds: Readonly<Record<QuoteLineKind, string>> = {
  labour: "Labour",
  part: "Parts",
  small_parts: "Small parts",
  least_charge: "To the least charge",
  test: "Test",
  disposal: "Disposal",
  other: "Other",
};

/** A line as the customer reads it. */
export function quoteLineWords({ kind, words, quantity }: QuoteLine): string {
  if (kind === "labour") return words ?? `${lineKinds.labour}, ${quantity} min`;
  const name = words ?? lineKinds[kind];
  return quantity === 1 ? name : `${quantity} × ${name}`;
}

export const answerWordLabels: Readonly<Record<QuoteAnswerWord, string>> = { yes: "yes", no: "no", up_to: "up to" };
export const answerWayLabels: Readonly<Record<AnswerWay, string>> = {
  counter: "at the counter",
  phone: "by phone",
  message: "by message",
  mail: "by mail",
  letter: "by letter",
};

const states: Readonly<Record<ConsentState, string>> = {
  no_quote: "Nothing was quoted yet.",
  not_answered: "Not answered yet: nothing is agreed.",
  agreed: "Agreed",
  declined: "Declined: no work beyond what is owed anyway.",
  older_answer: "The newer version is not answered: what was agreed before still holds",
};

/** What the customer agreed to, and how far it reaches. */
export function consentWords({ state, allowedMinor, answer }: Consent, currency: string): string {
  const reach = allowedMinor === null ? "" : moneyText(allowedMinor, currency);
  if (state === "older_answer" && answer?.word === "no")
    return "The newer version is not answered, and the one before was declined.";
  if (state === "agreed" || state === "older_answer") {
    return answer?.word === "up_to"
      ? `${states[state]}, up to ${reach}.`
      : `${states[state]}; it may grow to ${reach}.`;
  }
  return states[state];
}

/** What quotes of the kind were worth here, for the minutes that are reckoned with now. */
export function driftWords({ ratio, count }: QuoteDrift, minutes: number): string {
  const percent = Math.round(100 * Math.abs(ratio - 1));
  if (percent < 5) return `${count} closed jobs of this kind took what was quoted.`;
  const way = ratio > 1 ? "longer" : "shorter";
  return `${count} closed jobs of this kind took ${percent} % ${way} than quoted: by that, ${minutes} min would be ${Math.round(minutes * ratio)}.`;
}

/** Work beyond an answer. */
export const beyondWords = (beyondMinor: number, currency: string): string =>
  `As it stands it comes to ${moneyText(beyondMinor, currency)} more than was agreed: ask again before going on.`;

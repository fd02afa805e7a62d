import { OutOfRangeError } from "../errors";
import { requireNonNegative } from "../numerics/requireRange";
import { inOrder } from "../readings/factMoment";

/** What a line of a quote is for. */
export const quoteLineKinds = ["labour", "part", "small_parts", "least_charge", "test", "disposal", "other"] as const;
export type QuoteLineKind = (typeof quoteLineKinds)[number];

/** Minutes of labour or pieces, at a price each in minor units; a minute's may be a fraction. */
export interface QuoteLine {
  readonly kind: QuoteLineKind;
  readonly words: string | null;
  readonly quantity: number;
  readonly unitMinor: number;
}

export interface QuoteTotals {
  readonly netMinor: number;
  readonly taxMinor: number;
  readonly totalMinor: number;
}

/** Half a minor unit goes up: each line is rounded by itself, as it is printed. */
const halfUp = (value: number): number => Math.floor(value + 0.5 + 1e-9);

/** @throws {OutOfRangeError} below nought */
export function lineMinor({ quantity, unitMinor }: Pick<QuoteLine, "quantity" | "unitMinor">): number {
  requireNonNegative("quantity", quantity);
  requireNonNegative("unitMinor", unitMinor);
  return halfUp(quantity * unitMinor);
}

/**
 * What a quote comes to: lines rounded one by one, tax on their sum.
 *
 * @example quoteTotals([{ kind: "labour", words: null, quantity: 45, unitMinor: 100 }], 0.19).totalMinor // 5355
 */
export function quoteTotals(lines: readonly QuoteLine[], taxRatio: number): QuoteTotals {
  if (!(taxRatio >= 0 && taxRatio < 1)) throw new OutOfRangeError("taxRatio", taxRatio, "from 0 to below 1");
  const netMinor = lines.reduce((sum, line) => sum + lineMinor(line), 0);
  const taxMinor = halfUp(netMinor * taxRatio);
  return { netMinor, taxMinor, totalMinor: netMinor + taxMinor };
}

export interface QuoteQuestion {
  readonly minutes: number;
  readonly labourPerHourMinor: number;
  /** What goes in, one entry a kind, at what it costs the shop. */
  readonly parts: readonly { readonly words: string; readonly count: number; readonly priceMinor: number }[];
  readonly markupRatio: number;
  readonly smallPartsMinor: number;
  /** A repair is never charged below this; what is missing becomes a line. */
  readonly leastMinor: number;
}

/**
 * The lines of a quote: minutes at the house's rate, parts with its markup, small parts flat, and what is missing to the least charge.
 *
 *     labour = minutes x rate / 60,  part = price x (1 + markup)
 *
 * Arithmetic solid, the numbers are the shop's.
 */
export function proposedLines(question: QuoteQuestion): readonly QuoteLine[] {
  const { minutes, labourPerHourMinor, parts, markupRatio, smallPartsMinor, leastMinor } = question;
  requireNonNegative("markupRatio", markupRatio);
  const lines: QuoteLine[] = [
    ...(minutes > 0
      ? [{ kind: "labour" as const, words: null, quantity: minutes, unitMinor: labourPerHourMinor / 60 }]
      : []),
    ...parts.map(({ words, count, priceMinor }) => ({
      ...{ kind: "part" as const, words, quantity: count, unitMinor: halfUp(priceMinor * (1 + markupRatio)) },
    })),
    ...(parts.length > 0 && smallPartsMinor > 0
      ? [{ kind: "small_parts" as const, words: null, quantity: 1, unitMinor: smallPartsMinor }]
      : []),
  ];
  const missing = leastMinor - lines.reduce((sum, line) => sum + lineMinor(line), 0);
  return missing > 0 ? [...lines, { kind: "least_charge", words: null, quantity: 1, unitMinor: missing }] : lines;
}

/** Up to a limit: the customer's own, whatever was quoted. */
export const quoteAnswerWords = ["yes", "no", "up_to"] as const;
export type QuoteAnswerWord = (typeof quoteAnswerWords)[number];
/** How an answer came. */
export const answerWays = ["counter", "phone", "message", "mail", "letter"] as const;
export type AnswerWay = (typeof answerWays)[number];

interface Placed {
  readonly id: string;
  readonly sequence: number | null;
}
export interface GivenQuote extends Placed {
  readonly lines: readonly QuoteLine[];
  readonly taxRatio: number;
}
export interface GivenAnswer extends Placed {
  readonly quoteId: string;
  readonly word: QuoteAnswerWord;
  readonly limitMinor: number | null;
}

/** `older_answer`: a newer quote waits for its own; what was answered before still holds. */
export type ConsentState = "no_quote" | "not_answered" | "agreed" | "declined" | "older_answer";

export interface Consent<Q extends GivenQuote = GivenQuote, A extends GivenAnswer = GivenAnswer> {
  readonly state: ConsentState;
  readonly quote: Q | null;
  /** The last that was given, and the quote that it was given to. */
  readonly answer: A | null;
  readonly answered: Q | null;
  /** With tax; null: nothing was answered, so nothing is allowed and nothing refused. */
  readonly allowedMinor: number | null;
}

/**
 * What the customer agreed to: by the last answer, to the quote that it was given to. A yes covers a little more than the sum, a
 * limit is the customer's own and covers itself.
 *
 * @param toleranceRatio by which a sum that was agreed to may grow before it is asked again
 */
export function consentOf<Q extends GivenQuote, A extends GivenAnswer>(
  quotes: readonly Q[],
  answers: readonly A[],
  toleranceRatio: number,
): Consent<Q, A> {
  const quote = inOrder(quotes).at(-1) ?? null;
  const answer = inOrder(answers).at(-1) ?? null;
  const answered = quotes.find((one) => one.id === answer?.quoteId) ?? null;
  if (!quote) return { state: "no_quote", quote, answer: null, answered: null, allowedMinor: null };
  if (!answer || !answered) return { state: "not_answered", quote, answer: null, answered: null, allowedMinor: null };
  const { totalMinor } = quoteTotals(answered.lines, answered.taxRatio);
  const allowed = { yes: Math.floor(totalMinor * (1 + toleranceRatio)), no: 0, up_to: answer.limitMinor ?? 0 };
  const isOlder = answered.id !== quote.id;
  const state = isOlder ? "older_answer" : answer.word === "no" ? "declined" : "agreed";
  return { state, quote, answer, answered, allowedMinor: allowed[answer.word] };
}

/** By how much a sum goes beyond what was allowed; null: within it, or nothing was answered. */
export function beyondConsentMinor({ allowedMinor }: Pick<Consent, "allowedMinor">, totalMinor: number): number | null {
  return allowedMinor !== null && totalMinor > allowedMinor ? totalMinor - allowedMinor : null;
}

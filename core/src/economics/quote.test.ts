import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import {
  beyondConsentMinor,
  consentOf,
  type GivenAnswer,
  type GivenQuote,
  lineMinor,
  proposedLines,
  type QuoteLine,
  quoteTotals,
} from "./quote";

const labour = (minutes: number): QuoteLine => ({ kind: "labour", words: null, quantity: minutes, unitMinor: 100 });
const question = {
  ...{ minutes: 50, labourPerHourMinor: 6000, markupRatio: 0.3, smallPartsMinor: 200, leastMinor: 0 },
  parts: [{ words: "C11, C12", count: 2, priceMinor: 85 }],
};

describe("a quote", () => {
  it("is minutes, parts with their markup and small parts, each line rounded half up by itself", () => {
    const lines = proposedLines(question);
    expect(lines.map((one) => [one.kind, lineMinor(one)])).toEqual([
      ["labour", 5000],
      // 85 x 1.3 = 110.5, half up.
      ["part", 222],
      ["small_parts", 200],
    ]);
    expect(quoteTotals(lines, 0.19)).toEqual({ netMinor: 5422, taxMinor: 1030, totalMinor: 6452 });
    expect(lineMinor({ quantity: 25, unitMinor: 5950 / 60 })).toBe(2479);
  });
  it("has no empty line, and is filled up to the least charge", () => {
    expect(proposedLines({ ...question, minutes: 0, parts: [] })).toEqual([]);
    const least = proposedLines({ ...question, minutes: 10, parts: [], leastMinor: 2500 });
    expect(least.at(-1)).toMatchObject({ kind: "least_charge", unitMinor: 1500 });
    expect(proposedLines({ ...question, leastMinor: 5422 }).map((one) => one.kind)).not.toContain("least_charge");
  });
  it("refuses what is below nought, and a tax that eats it", () => {
    expect(() => lineMinor({ quantity: -1, unitMinor: 5 })).toThrow(OutOfRangeError);
    expect(() => lineMinor({ quantity: 1, unitMinor: -5 })).toThrow(OutOfRangeError);
    expect(() => quoteTotals([], 1)).toThrow(OutOfRangeError);
    expect(() => quoteTotals([], -0.1)).toThrow(OutOfRangeError);
  });
  test.prop([
    fc.array(fc.integer({ min: 0, max: 900 }), { maxLength: 8 }),
    fc.double({ min: 0, max: 0.5, noNaN: true }),
  ])("is whole minor units, and its total is what is printed above it", (minutes, tax) => {
    const lines = minutes.map(labour);
    const { netMinor, taxMinor, totalMinor } = quoteTotals(lines, tax);
    expect([netMinor, taxMinor, totalMinor].every(Number.isInteger)).toBe(true);
    expect(netMinor).toBe(lines.reduce((sum, one) => sum + lineMinor(one), 0));
    expect(totalMinor).toBe(netMinor + taxMinor);
  });
});

describe("what the customer agreed to", () => {
  const quote = (id: string, sequence: number, minutes: number): GivenQuote => ({
    ...{ id, sequence, lines: [labour(minutes)], taxRatio: 0 },
  });
  const answer = (sequence: number, word: GivenAnswer["word"], quoteId = "q1", limitMinor: number | null = null) => ({
    ...{ id: `a${sequence}`, sequence, quoteId, word, limitMinor },
  });
  const of = (quotes: GivenQuote[], answers: GivenAnswer[]) => consentOf(quotes, answers, 0.1);
  const first = quote("q1", 1, 50);
  it("is nothing until it is asked and answered", () => {
    expect(of([], [])).toMatchObject({ state: "no_quote", allowedMinor: null });
    expect(of([first], [])).toMatchObject({ state: "not_answered", quote: first, allowedMinor: null });
    expect(of([first], [answer(2, "yes", "gone")]).state).toBe("not_answered");
    expect(beyondConsentMinor(of([first], []), 99_999)).toBeNull();
  });
  it("is a little more than a sum that was agreed to, a limit as it is, and nothing after a no", () => {
    const yes = of([first], [answer(2, "yes")]);
    expect([yes.state, yes.allowedMinor]).toEqual(["agreed", 5500]);
    expect([beyondConsentMinor(yes, 5500), beyondConsentMinor(yes, 5501)]).toEqual([null, 1]);
    expect(of([first], [answer(2, "up_to", "q1", 4000)])).toMatchObject({ state: "agreed", allowedMinor: 4000 });
    const no = of([first], [answer(2, "yes"), answer(3, "no")]);
    expect([no.state, no.allowedMinor, beyondConsentMinor(no, 100)]).toEqual(["declined", 0, 100]);
  });
  it("stays what it was while a newer quote waits, in the order of storing", () => {
    const newer = quote("q2", 5, 90);
    const waiting = of([newer, first], [answer(2, "yes")]);
    expect(waiting).toMatchObject({ state: "older_answer", quote: newer, answered: first, allowedMinor: 5500 });
    expect(of([first, newer], [answer(6, "yes", "q2"), answer(2, "no")])).toMatchObject({
      ...{ state: "agreed", allowedMinor: 9900 },
    });
  });
});

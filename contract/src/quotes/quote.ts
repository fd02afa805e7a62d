import {
  type AnswerWay,
  answerWays,
  type QuoteAnswerWord,
  type QuoteLineKind,
  quoteAnswerWords,
  quoteLineKinds,
} from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import { fault } from "../faults";
import {
  array,
  finiteNumber,
  idField,
  instantField,
  nullableId,
  nullableText,
  number,
  strictObject,
  textField,
  wordField,
} from "../fields/fields";

const mostMinor = 1e10;

/** A sum as the customer was told it, line by line. Append-only: a changed one is another version. */
export const quoteSchema = strictObject({
  id: idField(),
  lines: array()
    .of(
      strictObject({
        kind: wordField<QuoteLineKind>(quoteLineKinds),
        words: nullableText(300),
        quantity: finiteNumber().min(0).max(100_000).required(),
        unitMinor: finiteNumber().min(0).max(mostMinor).required(),
      }).required(),
    )
    .min(1)
    .max(60)
    .required(),
  taxRatio: finiteNumber().min(0).max(0.6).required(),
  validDays: number().integer().min(1).max(365).required(),
  note: nullableText(500),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewQuote = InferType<typeof quoteSchema>;
export type QuoteRow = NewQuote & StoredFact;

/** What the customer said to a version: who, how and when. */
export const quoteAnswerSchema = strictObject({
  id: idField(),
  quoteId: idField(),
  word: wordField<QuoteAnswerWord>(quoteAnswerWords),
  limitMinor: number()
    .integer()
    .min(0)
    .max(mostMinor)
    .nullable()
    .defined()
    .when("word", ([word], schema) =>
      word === "up_to"
        ? schema.nonNullable(fault("needed"))
        : schema.test("none", fault("must_stay_empty"), (value) => value === null),
    ),
  byWhom: textField(80),
  way: wordField<AnswerWay>(answerWays),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewQuoteAnswer = InferType<typeof quoteAnswerSchema>;
export type QuoteAnswerRow = NewQuoteAnswer & StoredFact;

import type { NewQuote, NewQuoteAnswer } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only: a changed quote is another version. */
export interface QuoteDbRow extends Omit<NewQuote, "at" | "clockId">, FactColumns {
  jobId: string;
  at: Date;
}

export const quotes = (sequelize: Sequelize) =>
  defineTable<QuoteDbRow>(sequelize, "quotes", {
    id: column.key,
    jobId: column.id,
    lines: column.typedJson,
    taxRatio: column.real,
    validDays: column.whole,
    note: column.typed,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });

/** Append-only: what was said last counts. */
export interface QuoteAnswerDbRow extends Omit<NewQuoteAnswer, "at" | "clockId">, FactColumns {
  jobId: string;
  at: Date;
}

export const quoteAnswers = (sequelize: Sequelize) =>
  defineTable<QuoteAnswerDbRow>(sequelize, "quote_answers", {
    id: column.key,
    jobId: column.id,
    quoteId: column.id,
    word: column.text,
    limitMinor: column.count,
    byWhom: column.typed,
    way: column.text,
    at: column.moment,
    personId: column.id,
    ...factColumns,
  });

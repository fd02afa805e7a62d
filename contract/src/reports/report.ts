import type { InferType } from "yup";
import { strictObject, wordField } from "../fields/fields";
import type { PaperSize } from "../houseRules/houseRules";
import type { PhotoMark } from "../photos/photo";

export const reportAudiences = ["customer", "record"] as const;
export type ReportAudience = (typeof reportAudiences)[number];

export interface ReportLine {
  readonly name: string;
  readonly points: readonly (readonly [number, number])[];
}

/** A piece of a report, in the order in which it is read; whoever draws it adds no word of its own. */
export type ReportBlock =
  | { readonly kind: "heading"; readonly words: string }
  | { readonly kind: "text"; readonly words: string; readonly tone?: "dim" | "warning" }
  | { readonly kind: "list"; readonly items: readonly string[] }
  | {
      readonly kind: "table";
      readonly name: string;
      readonly heads: readonly string[];
      readonly rows: readonly (readonly string[])[];
      /** Columns of numbers: they stand to the right. */
      readonly figures?: readonly number[];
    }
  | {
      readonly kind: "chart";
      readonly name: string;
      readonly x: string;
      readonly y: string;
      readonly lines: readonly ReportLine[];
      readonly limits: readonly number[];
    }
  | {
      readonly kind: "photo";
      readonly photoId: string;
      readonly caption: string;
      readonly widthPixels: number;
      readonly heightPixels: number;
      readonly marks: readonly PhotoMark[];
    };

/** A report as it is read: on the screen, on paper, and in what is stored of it. */
export interface ReportDocument {
  readonly audience: ReportAudience;
  readonly title: string;
  readonly device: string;
  readonly dates: readonly (readonly [name: string, words: string])[];
  /** What must be seen before anything else. */
  readonly notices: readonly string[];
  readonly blocks: readonly ReportBlock[];
  /** Whose it is, at the foot of every page. */
  readonly foot: string;
}

const papers = ["a4", "letter"] as const satisfies readonly PaperSize[];
/** Whose report, and on which paper; without one on the shop's own. */
export const reportQuerySchema = strictObject({
  audience: wordField<ReportAudience>(reportAudiences),
  paper: wordField<PaperSize>(papers).optional().default(undefined),
});
export type ReportQuery = InferType<typeof reportQuerySchema>;

/** What a version says that the one before did not, and what it says no more. */
export interface ReportDifference {
  readonly added: readonly string[];
  readonly gone: readonly string[];
}

/** A report as it was handed over: one a closing, never changed but where a customer's name was taken out. */
export interface ReportVersion {
  readonly id: string;
  readonly number: number;
  readonly madeAt: string;
  readonly coreVersion: string;
  /** Against the version before; null: there was none. */
  readonly difference: Readonly<Record<ReportAudience, ReportDifference>> | null;
}

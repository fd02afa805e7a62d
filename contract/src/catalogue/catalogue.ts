import { type CapacitorClass, type CatalogueEntry, type CataloguePart, capacitorClasses } from "@pale-cap/core";
import type { InferType } from "yup";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  nullableId,
  nullableText,
  nullableWord,
  number,
  strictObject,
  textField,
} from "../fields/fields";

/** A part that can be bought, with how many of it lie free in the drawers. */
export interface StockedPart extends CataloguePart {
  readonly stockCount: number;
}

/** A line of the catalogue, with what tells it from every other and what its sheet prints. */
export interface CatalogueRow extends StockedPart, Pick<CatalogueEntry, "orderCode" | "printed"> {
  /** Where it came from: the name of a file. */
  readonly source: string | null;
}

const nullableNumber = () => finiteNumber().nullable().defined();

/** What no part can break and still be worth a look: the server filters by it before anything is sent. null: not asked. */
export const catalogueReachSchema = strictObject({
  leastFarads: nullableNumber(),
  mostFarads: nullableNumber(),
  leastVolts: nullableNumber(),
  leastClassCelsius: nullableNumber(),
  mostDiameterMetres: nullableNumber(),
  mostHeightMetres: nullableNumber(),
  mostEsrOhms: nullableNumber(),
  leastRippleAmps: nullableNumber(),
  isLowEsrOnly: boolean().required(),
  /** What will flow, to weigh lives by before they are reckoned. */
  rippleAmps: nullableNumber(),
  /** As many as are expected to last longest come, beside the cheapest and what lies in drawers. */
  mostCount: number().integer().min(1).max(4000).required(),
});
export type CatalogueReach = InferType<typeof catalogueReachSchema>;

export interface ReachedParts {
  readonly parts: readonly StockedPart[];
  /** In the whole catalogue. */
  readonly totalCount: number;
  /** More are within reach than are sent: the longest lived, the cheapest and what lies in drawers are. */
  readonly isCut: boolean;
  /** Within reach but for what no reason overrides. */
  readonly refused: { readonly voltsCount: number; readonly classCount: number; readonly notLowEsrCount: number };
}

export const cataloguePageSize = 200;

/** Parts by their ids: those that a job chose. */
export const cataloguePartsSchema = strictObject({ ids: array().of(idField()).max(400).required() });

/** Words are looked for in maker, series and order code; values as they are typed. */
export const catalogueSearchSchema = strictObject({
  text: nullableText(80),
  capacitorClass: nullableWord<CapacitorClass>(capacitorClasses),
  isInDrawer: boolean().required(),
  offset: number().integer().min(0).max(1_000_000).required(),
});
export type CatalogueSearch = InferType<typeof catalogueSearchSchema>;

export interface CataloguePage {
  readonly rows: readonly CatalogueRow[];
  readonly foundCount: number;
  readonly totalCount: number;
}

export const importLimits = { rows: 200_000, uploadBytes: 64 * 1024 * 1024, toldChanges: 200 } as const;

/** Rows of a file that were read and found possible; they come beside it, zipped, as one JSON array of entries. */
export const catalogueImportSchema = strictObject({
  id: idField(),
  source: textField(120),
  rowCount: number().integer().min(1).max(importLimits.rows).required(),
  personId: nullableId(),
});
export type CatalogueImport = InferType<typeof catalogueImportSchema>;

/** A field of a part as it was and as the file has it now. */
export interface ImportChange {
  readonly maker: string;
  readonly series: string;
  readonly orderCode: string;
  readonly fields: readonly {
    readonly name: string;
    readonly before: number | string;
    readonly after: number | string;
  }[];
}

export interface ImportOutcome {
  readonly addedCount: number;
  readonly changedCount: number;
  readonly sameCount: number;
  /** The first of them. */
  readonly changes: readonly ImportChange[];
}

import type { OpenPlace, PartMovement } from "@pale-cap/core";
import { type InferType, tuple } from "yup";
import type { CatalogueRow } from "../catalogue/catalogue";
import { fault } from "../faults";
import {
  array,
  boolean,
  idField,
  nullableBetween,
  nullableId,
  nullablePositive,
  nullableText,
  number,
  strictObject,
  textField,
  versionField,
} from "../fields/fields";

const mostMinor = 100_000_000;
const minor = () => number().integer().min(0).max(mostMinor);

const supplierValuesSchema = strictObject({
  name: textField(60),
  shippingMinor: minor().required(),
  /** Shipping is free from goods of so much on; null: never. */
  freeFromMinor: minor().nullable().defined(),
  days: number().integer().min(0).max(365).required(),
  isUsed: boolean().required(),
});
export type SupplierValues = InferType<typeof supplierValuesSchema>;

export const newSupplierSchema = strictObject({ id: idField(), values: supplierValuesSchema.required() });
export const supplierEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  values: supplierValuesSchema.required(),
});

/** What a supplier asks for a part: from so many on a piece costs so much. An empty list takes the offer back. */
export const offerSchema = strictObject({
  writeId: idField(),
  cataloguePartId: idField(),
  breaks: array()
    .of(tuple([number().integer().min(1).required(), minor().required()]).required())
    .max(12)
    .required()
    .test("rising", fault("not_rising"), (breaks) =>
      (breaks ?? []).every((one, n) => n === 0 || one[0] > (breaks?.[n - 1]?.[0] ?? 0)),
    ),
  stock: number().integer().min(0).max(10_000_000).nullable().defined(),
  days: number().integer().min(0).max(365).nullable().defined(),
});
export type OfferEdit = InferType<typeof offerSchema>;

export type OfferRow = Omit<OfferEdit, "writeId">;
export interface SupplierRow extends SupplierValues {
  readonly id: string;
  readonly version: number;
  readonly offers: readonly OfferRow[];
}

export const newOrderSchema = strictObject({
  id: idField(),
  supplierId: idField(),
  lines: array()
    .of(
      strictObject({
        id: idField(),
        cataloguePartId: idField(),
        count: number().integer().min(1).max(100_000).required(),
        unitMinor: minor().required(),
      }).required(),
    )
    .min(1)
    .max(200)
    .required(),
  note: nullableText(200),
  personId: nullableId(),
});
export type NewOrder = InferType<typeof newOrderSchema>;

export const orderEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  isClosed: boolean().required(),
});

const pieceSchema = strictObject({
  massKilograms: nullablePositive(10),
  diameterMetres: nullablePositive(0.2),
  heightMetres: nullablePositive(0.5),
  esrOhms: nullablePositive(1e6),
  capacitanceFarads: nullablePositive(10),
});

/** A delivery as it came: how many, where they go, and what a sample of them read. */
export const receiptSchema = strictObject({
  id: idField(),
  orderLineId: idField(),
  count: number().integer().min(1).max(5000).required(),
  drawer: nullableText(24),
  lot: nullableText(40),
  dateCode: nullableText(16),
  pieces: array().of(pieceSchema.required()).max(200).required(),
  /** What share of bad ones the shop bears. */
  allowedBadRatio: nullableBetween(0, 0.99).nonNullable().required(),
  personId: nullableId(),
});
export type Receipt = InferType<typeof receiptSchema>;

export interface LotCheckRow {
  readonly id: string;
  readonly count: number;
  readonly measuredCount: number;
  readonly badCount: number;
  readonly tooManyProbability: number;
  readonly decision: "accept" | "measure_more" | "reject";
  readonly at: string;
}

export interface OrderLineRow {
  readonly id: string;
  readonly part: CatalogueRow;
  readonly count: number;
  readonly unitMinor: number;
  readonly receivedCount: number;
  readonly checks: readonly LotCheckRow[];
}

export interface OrderRow {
  readonly id: string;
  readonly version: number;
  readonly supplierId: string;
  readonly supplierName: string;
  readonly at: string;
  readonly note: string | null;
  readonly isClosed: boolean;
  readonly lines: readonly OrderLineRow[];
}

/** What is known of every part that could be wanted: what open jobs chose, what lies there, what is on its way, what went out. */
export interface OrderBasis {
  readonly places: readonly (OpenPlace & { readonly jobNumber: number; readonly designator: string })[];
  readonly parts: readonly (PartMovement & { readonly part: CatalogueRow })[];
}

import type { MovementKind, StockSums } from "@pale-cap/core";
import type { InferType } from "yup";
import { boardLimits, markingFields } from "../boards/board";
import {
  idField,
  nullableBetween,
  nullableDay,
  nullableId,
  nullablePositive,
  nullableText,
  number,
  strictObject,
  versionField,
  wordField,
} from "../fields/fields";

export const stockOrigins = ["distributor", "salvaged", "unknown"] as const;
export type StockOrigin = (typeof stockOrigins)[number];

/** What stands on a part that no catalogue lists. */
const markingSchema = strictObject({ ...markingFields(), pitchMetres: nullablePositive(boardLimits.lengthMetres) });
export type StockMarking = InferType<typeof markingSchema>;

const itemFields = {
  drawer: nullableText(24),
  origin: wordField<StockOrigin>(stockOrigins),
  lot: nullableText(40),
  dateCode: nullableText(16),
  receivedOn: nullableDay(),
  usedHours: nullableBetween(0, 200_000),
  note: nullableText(200),
};
export type StockItemValues = InferType<ReturnType<typeof itemValuesSchema>>;
const itemValuesSchema = () => strictObject(itemFields);

/** A new heap of equal parts: of a catalogue part, or by its own marking. */
export const newStockItemSchema = strictObject({
  id: idField(),
  cataloguePartId: nullableId(),
  marking: markingSchema.nullable().default(undefined).defined(),
  values: itemValuesSchema().required(),
  count: number().integer().min(0).max(100_000).required(),
  personId: nullableId(),
});
export type NewStockItem = InferType<typeof newStockItemSchema>;

export const stockItemEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  values: itemValuesSchema().required(),
  /** Why none of it goes into a unit; null: it may. */
  setAsideReason: nullableText(200),
});
export type StockItemEdit = InferType<typeof stockItemEditSchema>;

/** What a person moves by hand; the rest follows choosing and rework. */
export const handMovements = ["received", "scrapped", "counted"] as const satisfies readonly MovementKind[];

export const stockMovementSchema = strictObject({
  id: idField(),
  kind: wordField<(typeof handMovements)[number]>(handMovements),
  pieces: number().integer().min(0).max(100_000).required(),
  note: nullableText(200),
  personId: nullableId(),
});
export type NewStockMovement = InferType<typeof stockMovementSchema>;

export const stockActKinds = [
  ...["capacitance_read", "esr_read", "voltage_loss_read", "leakage_read"],
  ...["volts_read", "drained", "reform_step", "reform_ended"],
] as const;
export type StockActKind =
  | "capacitance_read"
  | "esr_read"
  | "voltage_loss_read"
  | "leakage_read"
  | "volts_read"
  | "drained"
  | "reform_step"
  | "reform_ended";

/**
 * What was done with a loose part: read, leakage tested, re-formed, drained. `value`: farads, ohms, ratio, amperes, volts; of a
 * draining its ohms. `volts`: at which leakage was read or which step was set. A part tested with volts is charged.
 */
export const stockActSchema = strictObject({
  id: idField(),
  kind: wordField<StockActKind>(stockActKinds as readonly StockActKind[]),
  value: nullableBetween(-2000, 1e9),
  volts: nullableBetween(0, 2000),
  /** Since the step was set. */
  seconds: nullableBetween(0, 1e6),
  riseKelvin: nullableBetween(-20, 200),
  frequencyHertz: nullablePositive(1e7),
  note: nullableText(200),
  personId: nullableId(),
});
export type NewStockAct = InferType<typeof stockActSchema>;

export interface StockActRow extends Omit<NewStockAct, "personId"> {
  readonly itemId: string;
  readonly at: string;
}

/** A heap of equal parts as it lies in its drawer. */
export interface StockItem extends StockItemValues, StockSums {
  readonly id: string;
  readonly version: number;
  readonly cataloguePartId: string | null;
  /** Of the catalogue part, or its own. */
  readonly marking: StockMarking & {
    readonly maker: string | null;
    readonly orderCode: string | null;
    readonly esrOhms: number | null;
    readonly rippleAmpsRms: number | null;
    readonly ratedLifeHours: number | null;
    readonly priceMinor: number | null;
  };
  readonly setAsideReason: string | null;
  /** In their order. */
  readonly acts: readonly StockActRow[];
}

export interface StockMovementRow {
  readonly id: string;
  readonly kind: MovementKind;
  readonly countDelta: number;
  readonly reservedDelta: number;
  readonly jobNumber: number | null;
  readonly designator: string | null;
  readonly note: string | null;
  readonly at: string;
}

/** One heap with all that ever moved in it. */
export interface StockItemDetail extends StockItem {
  readonly movements: readonly StockMovementRow[];
}

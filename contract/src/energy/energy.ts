import {
  chargeEventKinds,
  type DrainKitItem,
  type LineSide,
  lineSides,
  type StoreKind,
  storeKinds,
} from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import { fault } from "../faults";
import {
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableId,
  nullablePositive,
  number,
  strictObject,
  textField,
  versionField,
  wordField,
} from "../fields/fields";

/** One part of the shop's kit, as it is kept in the house rule and with every drain that used it. */
export const drainKitItemSchema = strictObject({
  name: textField(60),
  kind: wordField<DrainKitItem["kind"]>(["resistor", "lamp"]),
  count: number().integer().min(1).max(8).required(),
  ohms: nullablePositive(10e6).when("kind", ([kind], schema) =>
    kind === "resistor" ? schema.nonNullable(fault("needed")).min(10) : schema,
  ),
  watts: finiteNumber().moreThan(0).max(2000).required(),
  volts: finiteNumber().moreThan(0).max(5000).required(),
});

const storeValues = {
  name: textField(60),
  kind: wordField<StoreKind>(storeKinds),
  positionId: nullableId(),
  /** The net of an output bank. */
  netId: nullableId(),
  /** The board that it is on; that of its part or net where none is said, else the first. */
  boardId: nullableId().optional(),
  capacitanceFarads: nullablePositive(1),
  expectedVolts: nullablePositive(1000),
  bleederOhms: nullablePositive(100e6).min(100),
  drainOhms: nullablePositive(10e6).min(10),
};

export const newEnergyStoreSchema = strictObject({ id: idField(), ...storeValues });
export type NewEnergyStore = InferType<typeof newEnergyStoreSchema>;

export const energyStoreEditSchema = strictObject({
  writeId: idField(),
  version: versionField(),
  values: strictObject(storeValues).required(),
});
export type EnergyStoreEdit = InferType<typeof energyStoreEditSchema>;
export type EnergyStoreRow = NewEnergyStore & { readonly version: number };

export const chargeEventSchema = strictObject({
  id: idField(),
  storeId: nullableId(),
  kind: wordField(chargeEventKinds),
  volts: finiteNumber()
    .min(-2000)
    .max(2000)
    .nullable()
    .defined()
    .when("kind", ([kind], schema) => (kind === "voltage_measured" ? schema.nonNullable(fault("needed")) : schema)),
  resistanceOhms: nullablePositive(10e6).min(10),
  drainItem: drainKitItemSchema.nullable().defined(),
  isMeterProved: boolean().required(),
  /** Left out by what was confirmed before it was asked: then the drain was off. */
  isDrainOn: boolean().optional(),
  lineSide: wordField<LineSide>(lineSides).nullable().optional(),
  /** Read by a simulated instrument: never in a customer's job. */
  isSimulated: boolean().optional(),
  at: instantField(),
  clockId: nullableId(),
  personId: nullableId(),
});
export type NewChargeEvent = InferType<typeof chargeEventSchema>;
export type ChargeEventRow = NewChargeEvent &
  StoredFact & { readonly isDrainOn: boolean; readonly lineSide: LineSide | null; readonly isSimulated: boolean };

/** What an older page did not tell of a reading is what it meant. */
export const readingUnder = (event: Pick<NewChargeEvent, "isDrainOn" | "lineSide" | "isSimulated">) => ({
  isDrainOn: event.isDrainOn ?? false,
  lineSide: event.lineSide ?? null,
  isSimulated: event.isSimulated ?? false,
});

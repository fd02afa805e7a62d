import type { InferType } from "yup";
import {
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableId,
  nullablePositive,
  strictObject,
  textField,
  versionField,
  wordField,
} from "../fields/fields";

const storeValues = {
  name: textField(60),
  positionId: nullableId(),
  capacitanceFarads: nullablePositive(1),
  expectedVolts: nullablePositive(1000),
  drainOhms: nullablePositive(10e6),
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

export const chargeEventKinds = [
  "mains_connected",
  "mains_disconnected",
  "live_reading",
  "drain_started",
  "voltage_measured",
] as const;

export const chargeEventSchema = strictObject({
  id: idField(),
  storeId: nullableId(),
  kind: wordField(chargeEventKinds),
  volts: finiteNumber()
    .min(-2000)
    .max(2000)
    .nullable()
    .defined()
    .when("kind", ([kind], schema) => (kind === "voltage_measured" ? schema.nonNullable("is needed") : schema)),
  resistanceOhms: nullablePositive(10e6),
  isMeterProved: boolean().required(),
  at: instantField(),
  personId: nullableId(),
});
export type ChargeEventRow = InferType<typeof chargeEventSchema>;

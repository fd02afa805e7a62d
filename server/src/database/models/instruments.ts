import type { Instrument } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface InstrumentRow extends Omit<Instrument, "simulatedSet"> {
  isRemoved: boolean;
}

export const instruments = (sequelize: Sequelize) =>
  defineTable<InstrumentRow>(sequelize, "instruments", {
    id: column.key,
    version: column.whole,
    name: column.text,
    kind: column.text,
    driver: column.text,
    transport: column.text,
    host: column.text,
    port: column.whole,
    devicePath: column.text,
    baudRate: column.whole,
    isEnabled: column.flag,
    benchId: column.id,
    channel: column.whole,
    checkedOn: column.day,
    isRemoved: column.flag,
  });

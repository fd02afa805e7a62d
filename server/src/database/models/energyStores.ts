import type { EnergyStoreRow } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface EnergyStoreDbRow extends Omit<EnergyStoreRow, "version"> {
  jobId: string;
  version: number;
}

export const energyStores = (sequelize: Sequelize) =>
  defineTable<EnergyStoreDbRow>(sequelize, "energy_stores", {
    id: column.key,
    jobId: column.id,
    version: column.whole,
    name: column.text,
    kind: column.text,
    positionId: column.id,
    netId: column.id,
    boardId: column.id,
    bleederOhms: column.real,
    capacitanceFarads: column.real,
    expectedVolts: column.real,
    drainOhms: column.real,
  });

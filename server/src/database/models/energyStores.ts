import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface EnergyStoreDbRow {
  id: string;
  jobId: string;
  version: number;
  name: string;
  positionId: string | null;
  capacitanceFarads: number | null;
  expectedVolts: number | null;
  drainOhms: number | null;
}

export const energyStores = (sequelize: Sequelize) =>
  defineTable<EnergyStoreDbRow>(sequelize, "energy_stores", {
    id: column.key,
    jobId: column.id,
    version: column.whole,
    name: column.text,
    positionId: column.id,
    capacitanceFarads: column.real,
    expectedVolts: column.real,
    drainOhms: column.real,
  });

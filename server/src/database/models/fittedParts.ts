import type { CapacitorClass, PartSource } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface FittedPartDbRow {
  id: string;
  positionId: string;
  version: number;
  capacitanceFarads: number | null;
  ratedVolts: number | null;
  temperatureClassCelsius: number | null;
  capacitorClass: CapacitorClass | null;
  diameterMetres: number | null;
  heightMetres: number | null;
  stripeDegrees: number | null;
  isNonPolar: boolean;
  datasheetEsrOhms: number | null;
  toleranceRatio: number | null;
  series: string | null;
  origin: "found" | "replacement";
  cataloguePartId: string | null;
  source: PartSource | null;
  stockItemId: string | null;
  maker: string | null;
  orderCode: string | null;
  priceMinor: number | null;
  fittedAt: Date | null;
  removedAt: Date | null;
}

export const fittedParts = (sequelize: Sequelize) =>
  defineTable<FittedPartDbRow>(sequelize, "fitted_parts", {
    id: column.key,
    positionId: column.id,
    version: column.whole,
    capacitanceFarads: column.real,
    ratedVolts: column.real,
    temperatureClassCelsius: column.real,
    capacitorClass: column.text,
    diameterMetres: column.real,
    heightMetres: column.real,
    stripeDegrees: column.real,
    isNonPolar: column.flag,
    datasheetEsrOhms: column.real,
    toleranceRatio: column.real,
    series: column.text,
    origin: column.text,
    cataloguePartId: column.id,
    source: column.text,
    stockItemId: column.id,
    maker: column.text,
    orderCode: column.text,
    priceMinor: column.whole,
    fittedAt: column.moment,
    removedAt: column.moment,
  });

import type { CatalogueEntry } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export type CataloguePartRow = { -readonly [K in keyof CatalogueEntry]: CatalogueEntry[K] } & {
  id: string;
  source: string | null;
};

export const catalogueParts = (sequelize: Sequelize) =>
  defineTable<CataloguePartRow>(sequelize, "catalogue_parts", {
    id: column.key,
    maker: column.text,
    series: column.text,
    orderCode: column.text,
    capacitorClass: column.text,
    capacitanceFarads: column.real,
    ratedVolts: column.real,
    temperatureClassCelsius: column.real,
    diameterMetres: column.real,
    heightMetres: column.real,
    pitchMetres: column.real,
    esrOhms: column.real,
    rippleAmpsRms: column.real,
    ratedLifeHours: column.real,
    priceMinor: column.whole,
    printed: column.json,
    source: column.text,
  });

import type { CatalogueComponent } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export type CatalogueComponentRow = { -readonly [K in keyof CatalogueComponent]: CatalogueComponent[K] };

/** Other parts than electrolytics; which ratings each has follows from its kind. */
export const catalogueComponents = (sequelize: Sequelize) =>
  defineTable<CatalogueComponentRow>(sequelize, "catalogue_components", {
    id: column.key,
    kind: column.text,
    maker: column.text,
    typeNumber: column.text,
    ratings: column.json,
    priceMinor: column.whole,
  });

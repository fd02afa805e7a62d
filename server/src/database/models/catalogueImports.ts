import type { ImportOutcome } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** What a file changed in the catalogue. */
export interface CatalogueImportRow extends ImportOutcome {
  id: string;
  sequence: number;
  at: Date;
  personId: string | null;
  source: string;
}

export const catalogueImports = (sequelize: Sequelize) =>
  defineTable<CatalogueImportRow>(sequelize, "catalogue_imports", {
    id: column.key,
    sequence: column.count,
    at: column.moment,
    personId: column.id,
    source: column.text,
    addedCount: column.whole,
    changedCount: column.whole,
    sameCount: column.whole,
    changes: column.json,
  });

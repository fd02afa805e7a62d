import type { LotCheckRow } from "@pale-cap/contract";
import type { SampledPiece } from "@pale-cap/core";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

/** What the sample of a delivery said. */
export interface LotCheckDbRow extends Omit<LotCheckRow, "at"> {
  sequence: number;
  at: Date;
  personId: string | null;
  orderLineId: string;
  itemId: string;
  allowedBadRatio: number;
  pieces: readonly SampledPiece[];
}

export const lotChecks = (sequelize: Sequelize) =>
  defineTable<LotCheckDbRow>(sequelize, "lot_checks", {
    id: column.key,
    sequence: column.count,
    at: column.moment,
    personId: column.id,
    orderLineId: column.id,
    itemId: column.id,
    count: column.whole,
    measuredCount: column.whole,
    badCount: column.whole,
    allowedBadRatio: column.real,
    tooManyProbability: column.real,
    decision: column.text,
    pieces: column.json,
  });

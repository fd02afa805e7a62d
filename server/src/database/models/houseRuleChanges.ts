import type { RuleEffect } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable, type FactColumns, factColumns } from "./table";

/** Append-only; the rules in force are the fold over the defaults. */
export interface HouseRuleChangeRow extends FactColumns {
  id: string;
  key: string;
  value: unknown;
  reason: string | null;
  personId: string | null;
  changedAt: Date;
  effects: readonly RuleEffect[];
}

export const houseRuleChanges = (sequelize: Sequelize) =>
  defineTable<HouseRuleChangeRow>(sequelize, "house_rule_changes", {
    id: column.key,
    key: column.text,
    value: column.json,
    reason: column.text,
    personId: column.id,
    changedAt: column.moment,
    effects: column.json,
    ...factColumns,
  });

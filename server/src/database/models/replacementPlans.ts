import type { ComponentPlan, PlanReasons } from "@pale-cap/contract";
import type { Sequelize } from "sequelize";
import { column, defineTable } from "./table";

export interface ReplacementPlanRow {
  id: string;
  positionId: string;
  version: number;
  cataloguePartId: string | null;
  partInHandId: string | null;
  stockItemId: string | null;
  /** Nothing goes in: its neighbours carry it. */
  isLeftEmpty: boolean;
  component: ComponentPlan | null;
  otherPart: string | null;
  round: number;
  diameterMaxMetres: number | null;
  heightMaxMetres: number | null;
  pitchMetres: number | null;
  esrMaxOhms: number | null;
  rippleAmpsRms: number | null;
  ambientCelsius: number | null;
  capacitanceMinFarads: number | null;
  capacitanceMaxFarads: number | null;
  leastRatedVolts: number | null;
  esrMinOhms: number | null;
  reasons: PlanReasons;
}

export const replacementPlans = (sequelize: Sequelize) =>
  defineTable<ReplacementPlanRow>(sequelize, "replacement_plans", {
    id: column.key,
    positionId: column.id,
    version: column.whole,
    cataloguePartId: column.id,
    partInHandId: column.id,
    stockItemId: column.id,
    isLeftEmpty: column.flag,
    component: column.json,
    otherPart: column.text,
    round: column.whole,
    diameterMaxMetres: column.real,
    heightMaxMetres: column.real,
    pitchMetres: column.real,
    esrMaxOhms: column.real,
    rippleAmpsRms: column.real,
    ambientCelsius: column.real,
    capacitanceMinFarads: column.real,
    capacitanceMaxFarads: column.real,
    leastRatedVolts: column.real,
    esrMinOhms: column.real,
    reasons: column.json,
  });

import { type CataloguePart, type ReworkStep, reworkSteps } from "@pale-cap/core";
import type { InferType } from "yup";
import type { StoredFact } from "../facts/clock";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableBetween,
  nullableId,
  nullablePositive,
  number,
  strictObject,
  wordField,
} from "../fields/fields";

/** What was decided for a position. Version 0 makes the plan, any other edits it. */
export const planEditSchema = strictObject({
  writeId: idField(),
  version: number().integer().min(0).required(),
  cataloguePartId: nullableId(),
  overrides: strictObject({
    diameterMaxMetres: nullablePositive(0.2),
    heightMaxMetres: nullablePositive(0.2),
    pitchMetres: nullablePositive(0.05),
    esrMaxOhms: nullablePositive(1000),
    rippleAmpsRms: nullableBetween(0, 100),
    ambientCelsius: nullableBetween(-40, 150),
  }).required(),
});
export type PlanEdit = InferType<typeof planEditSchema>;

export interface PlanRow {
  readonly positionId: string;
  readonly version: number;
  readonly cataloguePartId: string | null;
  readonly overrides: PlanEdit["overrides"];
}

/**
 * Ticks of one rework step for a group of positions. Removing ends the fitted part, fitting makes a new one from the
 * plan with the id and stripe given here; unticking takes that back.
 */
export const ticksSchema = strictObject({
  id: idField(),
  step: wordField<ReworkStep>(reworkSteps),
  isDone: boolean().required(),
  at: instantField(),
  items: array()
    .of(
      strictObject({
        id: idField(),
        positionId: idField(),
        fittedPartId: nullableId(),
        stripeDegrees: finiteNumber().min(0).max(359.999).nullable().defined(),
      }).required(),
    )
    .min(1)
    .max(200)
    .required(),
  clockId: nullableId(),
  personId: nullableId(),
});

export interface TickRow extends StoredFact {
  readonly id: string;
  readonly positionId: string;
  readonly step: ReworkStep;
  readonly isDone: boolean;
  readonly at: string;
}

/** A part that can be bought, with how many of it lie in the drawers. */
export interface StockedPart extends CataloguePart {
  readonly stockCount: number;
}

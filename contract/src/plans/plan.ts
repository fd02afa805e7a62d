import { type PartSource, partSources, type ReworkStep, reworkSteps } from "@pale-cap/core";
import type { InferType } from "yup";
import { boardLimits, type FittedPartRow, markingFields } from "../boards/board";
import { type ComponentPlan, componentPlanSchema } from "../catalogue/component";
import type { StoredFact } from "../facts/clock";
import { fault } from "../faults";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  instantField,
  nullableBetween,
  nullableId,
  nullablePositive,
  nullableText,
  number,
  strictObject,
  wordField,
} from "../fields/fields";

/** A part that no catalogue knows, as far as anyone read it off. */
const ownPartSchema = strictObject({
  ...markingFields(),
  isNonPolar: boolean().required(),
  source: wordField<PartSource>(partSources),
});
export type OwnPart = InferType<typeof ownPartSchema>;

/** What a reason is given for: each limit that can be set by hand, and the part itself. */
export const reasonKeys = [
  ...["diameterMaxMetres", "heightMaxMetres", "pitchMetres", "esrMaxOhms", "esrMinOhms", "rippleAmpsRms"],
  ...["ambientCelsius", "capacitanceMinFarads", "capacitanceMaxFarads", "leastRatedVolts", "part"],
] as const;
export type ReasonKey = (typeof reasonKeys)[number];
export type PlanReasons = Readonly<Partial<Record<ReasonKey, string | null>>>;

/** What was decided for a position. Version 0 makes the plan, any other edits it. */
export const planEditSchema = strictObject({
  writeId: idField(),
  version: number().integer().min(0).required(),
  cataloguePartId: nullableId(),
  /**
   * The part itself, once it lies there: `ownPart` with its marking, or with null a piece of the catalogue part. Left out: the
   * one that lies there stays, as long as the same part is chosen.
   */
  partInHand: strictObject({
    id: idField(),
    ownPart: ownPartSchema.nullable().default(undefined).defined(),
  })
    .nullable()
    .default(undefined)
    .optional()
    .when("cataloguePartId", ([cataloguePartId], schema) =>
      schema.test(
        "one",
        fault("own_or_catalogue"),
        (part) => part == null || (cataloguePartId === null) === (part.ownPart !== null),
      ),
    ),
  /** Which heap of the drawers the part comes out of; left out: as it is while the same part is chosen. */
  stockItemId: nullableId().optional(),
  /** Of a place that holds no electrolytic: what is known of the old part, and what goes in. Left out: as it is. */
  component: componentPlanSchema.nullable().default(undefined).optional(),
  /** Of such a place: what goes in, in words, where no catalogue has it. Left out: as it is. */
  otherPart: nullableText(80).optional(),
  /** Nothing goes in there: only where no part is chosen. Left out: as it is while nothing is chosen. */
  isLeftEmpty: boolean().optional(),
  /** Out of any drawer that has it free: the server picks the oldest. */
  isFromDrawer: boolean().optional(),
  overrides: strictObject({
    diameterMaxMetres: nullablePositive(0.2),
    heightMaxMetres: nullablePositive(0.2),
    pitchMetres: nullablePositive(0.05),
    esrMaxOhms: nullablePositive(1000),
    rippleAmpsRms: nullableBetween(0, 100),
    ambientCelsius: nullableBetween(-40, 150),
    capacitanceMinFarads: nullablePositive(boardLimits.capacitanceFarads).optional(),
    capacitanceMaxFarads: nullablePositive(boardLimits.capacitanceFarads).optional(),
    leastRatedVolts: nullablePositive(boardLimits.ratedVolts).optional(),
    esrMinOhms: nullablePositive(1000).optional(),
  }).required(),
  /** Why a limit was set by hand, or a part taken that breaks one; left out: as it was. */
  reasons: strictObject(
    Object.fromEntries(reasonKeys.map((key) => [key, nullableText(200).optional()])) as Record<
      ReasonKey,
      ReturnType<typeof nullableText>
    >,
  )
    .optional()
    .default(undefined),
});
export type PlanEdit = Omit<InferType<typeof planEditSchema>, "reasons"> & {
  readonly reasons?: PlanReasons | undefined;
};

export interface PlanRow {
  readonly positionId: string;
  readonly version: number;
  readonly cataloguePartId: string | null;
  readonly partInHandId: string | null;
  /** The heap that one piece is promised from; null: it has to be got. */
  readonly stockItemId: string | null;
  /** Nothing goes in: what stands beside it carries it. */
  readonly isLeftEmpty: boolean;
  readonly component: ComponentPlan | null;
  readonly otherPart: string | null;
  /** The round of the job that it was made in. */
  readonly round: number;
  readonly overrides: PlanEdit["overrides"];
  readonly reasons: PlanReasons;
}

/** What an edit of a plan leaves: the plan, and the parts of its place. */
export interface PlanAnswer {
  readonly plan: PlanRow;
  readonly fittedParts: readonly FittedPartRow[];
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
  /** The part that went in. */
  readonly fittedPartId: string | null;
  readonly at: string;
}

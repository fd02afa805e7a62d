import {
  type ComponentKind,
  type ComponentRatings,
  componentKinds,
  type RatingName,
  ratingNames,
} from "@pale-cap/core";
import type { InferType } from "yup";
import { array, finiteNumber, idField, nullableText, nullableWord, strictObject, wordField } from "../fields/fields";

/** Other parts than electrolytics: of one kind, or by their ids, as a job's plans name them. */
export const componentQuerySchema = strictObject({
  kind: nullableWord<ComponentKind>(componentKinds),
  ids: array().of(idField()).max(200).required(),
});
export type ComponentQuery = InferType<typeof componentQuerySchema>;

/** A rating that somebody read off a part or its sheet: a number in SI, or a word. */
const ratingSchema = strictObject({
  name: wordField<RatingName>(ratingNames),
  number: finiteNumber().min(-1e9).max(1e12).nullable().defined(),
  word: nullableText(40),
});

/** What is known of an old part that is no electrolytic, and what takes its place. */
export const componentPlanSchema = strictObject({
  kind: wordField<ComponentKind>(componentKinds),
  ratings: array().of(ratingSchema.required()).max(ratingNames.length).required(),
  componentId: idField().nullable(),
});
export type ComponentPlan = InferType<typeof componentPlanSchema>;

export function ratingsOf(plan: Pick<ComponentPlan, "ratings">): ComponentRatings {
  return Object.fromEntries(plan.ratings.map(({ name, number, word }) => [name, number ?? word]));
}

export function ratingList(ratings: ComponentRatings): ComponentPlan["ratings"] {
  return Object.entries(ratings).flatMap(([name, value]) =>
    value == null
      ? []
      : [
          {
            name: name as RatingName,
            number: typeof value === "number" ? value : null,
            word: typeof value === "string" ? value : null,
          },
        ],
  );
}

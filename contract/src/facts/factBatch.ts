import type { InferType, ObjectSchema } from "yup";
import { chargeEventSchema } from "../energy/energy";
import { fault } from "../faults";
import { array, idField, mixed, strictObject, wordField } from "../fields/fields";
import { acceptanceSchema } from "../jobs/job";
import { jobActSchema } from "../jobs/jobActs";
import { ticksSchema } from "../plans/plan";
import { powerEventSchema } from "../power/power";
import type { Problem } from "../problem";
import { quoteAnswerSchema, quoteSchema } from "../quotes/quote";
import { readingSchema, signsSchema } from "../readings/reading";
import { teardownReturnSchema } from "../teardown/teardown";
import { overruleSchema } from "../verdicts/verdicts";

/** What can wait on a client and be sent again under its own id: only ever added. */
const schemas = {
  reading: readingSchema,
  signs: signsSchema,
  overrule: overruleSchema,
  charge: chargeEventSchema,
  power: powerEventSchema,
  ticks: ticksSchema,
  return: teardownReturnSchema,
  acceptance: acceptanceSchema,
  act: jobActSchema,
  quote: quoteSchema,
  quoteAnswer: quoteAnswerSchema,
} as const;
export type FactKind = keyof typeof schemas;
export type FactBody<K extends FactKind> = InferType<(typeof schemas)[K]>;
export const factSchemas: { readonly [K in FactKind]: ObjectSchema<FactBody<K>> } = schemas;
export const factKinds = Object.keys(schemas) as FactKind[];

export const mostFactsInBatch = 50;

/** Facts of one job in the order in which they were confirmed; each is stored or refused by itself. */
export const factBatchSchema = strictObject({
  facts: array()
    .of(
      strictObject({
        kind: wordField<FactKind>(factKinds),
        // The whole batch must not fall with one bad fact: each body is checked at its turn.
        body: mixed<{ readonly id: string }>()
          .required()
          .test("object", fault("not_object_with_id"), (value) => hasId(value)),
      }).required(),
    )
    .min(1)
    .max(mostFactsInBatch)
    .required(),
});

function hasId(value: unknown): boolean {
  return typeof value === "object" && value !== null && idField().isValidSync((value as { id?: unknown }).id);
}

/** What became of one fact of a batch: its rows as stored, or what was said against it. */
export type FactAnswer =
  | { readonly id: string; readonly kind: FactKind; readonly rows: unknown }
  | { readonly id: string; readonly kind: FactKind; readonly problem: Problem };

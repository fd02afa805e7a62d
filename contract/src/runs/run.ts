import type { RunEvent, RunKind, RunPlan, RunSample, RunSpot } from "@pale-cap/core";
import { runKinds } from "@pale-cap/core";
import type { InferType } from "yup";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  nullableId,
  nullablePositive,
  number,
  strictObject,
  wordField,
} from "../fields/fields";

const positive = (most: number) => finiteNumber().moreThan(0).max(most).required();
/** Two days: longer than that nobody burns in. */
const longestDwellSeconds = 48 * 3600;
export const mostRunSteps = 60;

const planSchema = strictObject({
  kind: wordField<RunKind>(runKinds),
  steps: array()
    .of(
      strictObject({
        loads: array()
          .of(strictObject({ netId: idField(), amps: finiteNumber().min(-500).max(500).required() }).required())
          .max(8)
          .required(),
        dwellSeconds: positive(longestDwellSeconds),
      }).required(),
    )
    .max(mostRunSteps)
    .required(),
  sampleSeconds: finiteNumber().min(0.5).max(60).required(),
  rails: array()
    .of(
      strictObject({
        netId: idField(),
        loadId: idField(),
        lowVolts: finiteNumber().min(0).max(1000).required(),
        highVolts: positive(1000),
        mostAmps: positive(500),
        heldVolts: nullablePositive(1000),
      }).required(),
    )
    .max(8)
    .required(),
  mainsId: nullableId(),
  mostInputWatts: nullablePositive(20e3),
  ripple: strictObject({ scopeId: idField(), netId: idField(), mostVolts: nullablePositive(500) })
    .nullable()
    .defined(),
  spots: array()
    .of(
      strictObject({
        thermometerId: idField(),
        targetKind: wordField<RunSpot["targetKind"]>(["part", "rail", "unit"]),
        targetId: idField(),
        mostCelsius: finiteNumber().min(20).max(250).required(),
      }).required(),
    )
    .max(8)
    .required(),
  mostKelvinPerMinute: positive(200),
});

/**
 * A run that begins now. `switchesMains` is the press at this very moment by which the mains goes on; without it the mains is on
 * already.
 */
export const newRunSchema = strictObject({
  id: idField(),
  plan: planSchema.required(),
  switchesMains: boolean().required(),
  isOverloadMeant: boolean().required(),
  /** Heat in a closed case is another than on the bench. */
  isCaseClosed: boolean().required(),
  personId: nullableId(),
});
export type NewRun = InferType<typeof newRunSchema>;

/** What a person tells a run while it goes on. */
export const runWords = ["pause", "continue", "cancel"] as const;
export type RunWord = (typeof runWords)[number];
export const runWordSchema = strictObject({
  id: idField(),
  word: wordField<RunWord>(runWords),
  personId: nullableId(),
});

/** From which sample on: the number of the last that is known. */
export const runSamplesQuerySchema = strictObject({ after: number().integer().min(-1).optional() });

/** A run as it is stored: its plan, and what happened to it since. */
export interface RunRow {
  readonly id: string;
  readonly plan: RunPlan;
  /** An instrument of it has no limits or no time-out of its own: somebody stays. */
  readonly isAttendedOnly: boolean;
  readonly isSimulated: boolean;
  readonly personId: string | null;
  readonly begunAt: string;
  readonly events: readonly (RunEvent & { readonly at: string })[];
}

/** Samples of a run from a place on, and what is behind them. */
export interface RunSamples {
  readonly samples: readonly RunSample[];
  /** Ask for what comes after this one next time. */
  readonly next: number;
}

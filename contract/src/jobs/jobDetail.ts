import type { BaselineValue, JobFacts, ShopRecord } from "@pale-cap/core";
import type { Board, FittedPartRow, Net, Position } from "../boards/board";
import type { CaptureRow } from "../captures/capture";
import type { ChargeEventRow, EnergyStoreRow } from "../energy/energy";
import type { PhotoRow } from "../photos/photo";
import type { PlanRow, TickRow } from "../plans/plan";
import type { PowerEventRow } from "../power/power";
import type { QuoteAnswerRow, QuoteRow } from "../quotes/quote";
import type { ReadingRow, SignRow } from "../readings/reading";
import type { TeardownReturnRow, TeardownStepRow } from "../teardown/teardown";
import type { OverruleRow } from "../verdicts/verdicts";
import type { Acceptance, Job } from "./job";
import type { JobActRow } from "./jobActs";

/** One job with all that was logged on it: what every lens is drawn from. */
export interface JobDetail {
  readonly job: Job;
  /** In their order; every unit has one. Rails and places say on which they are. */
  readonly boards: readonly Board[];
  readonly nets: readonly Net[];
  readonly positions: readonly Position[];
  readonly fittedParts: readonly FittedPartRow[];
  readonly readings: readonly ReadingRow[];
  readonly signs: readonly SignRow[];
  readonly captures: readonly CaptureRow[];
  readonly overrules: readonly OverruleRow[];
  /** What good boards of the same type read; drawn from other jobs. */
  readonly baseline: readonly BaselineValue[];
  readonly energyStores: readonly EnergyStoreRow[];
  readonly chargeEvents: readonly ChargeEventRow[];
  readonly powerEvents: readonly PowerEventRow[];
  readonly photos: readonly PhotoRow[];
  readonly teardownSteps: readonly TeardownStepRow[];
  readonly teardownReturns: readonly TeardownReturnRow[];
  readonly plans: readonly PlanRow[];
  readonly ticks: readonly TickRow[];
  readonly acts: readonly JobActRow[];
  readonly acceptances: readonly Acceptance[];
  readonly quotes: readonly QuoteRow[];
  readonly quoteAnswers: readonly QuoteAnswerRow[];
  /** What the shop's other closed jobs say to it; null: nothing, or the house rules leave it out. */
  readonly record: ShopRecord | null;
}

/** Lists of a job that are only ever added to: what came after a place in the order is told alone. */
export const addedLists = [
  "readings",
  "signs",
  "overrules",
  "chargeEvents",
  "powerEvents",
  "teardownReturns",
  "ticks",
  "acts",
  "acceptances",
  "quotes",
  "quoteAnswers",
] as const;
export type AddedList = (typeof addedLists)[number];

/**
 * The same as core's computations take it. What came after the job was closed proves nothing until it is opened again:
 * it is left out here, and shown.
 */
export function jobFacts(detail: JobDetail): JobFacts {
  const { job } = detail;
  const { complaint, symptoms, handedOverAt, deviceKind: kind, deviceAgeYears: ageYears, intakeDetails } = job;
  const device = { kind, ageYears, topology: intakeDetails.topology };
  const isSupplyChecked = Object.values(intakeDetails.supplyChecks ?? {}).some((one) => one !== null);
  const intake = {
    checks: intakeDetails.supplyChecks ?? {},
    outputVolts: intakeDetails.asReceived?.outputVolts ?? null,
  };
  const known = { complaint, symptoms, handedOverAt, device, isSupplyChecked, intake };
  return { ...withoutSimulated(withoutLateFacts(detail)), ...known };
}

/** What a simulated instrument read in a customer's job, before that was refused, says nothing of the unit. */
function withoutSimulated(detail: JobDetail): JobDetail {
  if (detail.job.takesSimulated) return detail;
  const real = <T extends { readonly isSimulated: boolean }>(list: readonly T[]) =>
    list.some((one) => one.isSimulated) ? list.filter((one) => !one.isSimulated) : list;
  const { readings, chargeEvents, captures } = detail;
  const kept = { readings: real(readings), chargeEvents: real(chargeEvents), captures: real(captures) };
  const isWhole = kept.readings === readings && kept.chargeEvents === chargeEvents && kept.captures === captures;
  return isWhole ? detail : { ...detail, ...kept };
}

const factLists = [...addedLists, "captures"] as const satisfies readonly (keyof JobDetail)[];

function withoutLateFacts(detail: JobDetail): JobDetail {
  if (detail.job.handedOverAt === null || lateFactCount(detail) === 0) return detail;
  const kept = factLists.map((list) => [list, detail[list].filter((one) => !one.cameAfterClosing)]);
  return { ...detail, ...Object.fromEntries(kept) };
}

/** What was accepted, by its key; one that came after the job was closed accepts nothing while it is. */
export function acceptedReasons(detail: JobDetail): ReadonlyMap<string, string> {
  return new Map(withoutLateFacts(detail).acceptances.map((one) => [one.key, one.reason]));
}

/** How many entries came after the job was closed, while it is. */
export function lateFactCount(detail: JobDetail): number {
  if (detail.job.handedOverAt === null) return 0;
  return factLists.reduce((sum, list) => sum + detail[list].filter((one) => one.cameAfterClosing).length, 0);
}

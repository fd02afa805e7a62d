import type {
  ChargeEventRow,
  JobDetail,
  NewReading,
  NewSigns,
  NewTicks,
  OverruleRow,
  PowerEventRow,
  TeardownReturnRow,
} from "@pale-cap/contract";

interface FactOf<K extends string, B> {
  readonly kind: K;
  readonly jobId: string;
  readonly body: B & { readonly id: string };
}

/** Something that happened on the bench: only ever added, so that it can wait and be sent again under its own id. */
export type Fact =
  | FactOf<"reading", NewReading>
  | FactOf<"signs", NewSigns>
  | FactOf<"overrule", OverruleRow>
  | FactOf<"charge", ChargeEventRow>
  | FactOf<"power", PowerEventRow>
  | FactOf<"ticks", NewTicks>
  | FactOf<"return", TeardownReturnRow>;

/** A fact in the outbox; `refusal` is what the server said against it, null while it waits. */
export type QueuedFact = Fact & { readonly refusal: string | null };

/**
 * The job with what is still on its way laid over it, so that a reading counts from the moment it was confirmed. Rows have
 * the ids that the server will store, so nothing stands twice. Ticks wait: what they change is the server's to make.
 */
export function withOutbox(detail: JobDetail, facts: readonly QueuedFact[]): JobDetail {
  return facts.reduce(laidOver, detail);
}

function laidOver(job: JobDetail, fact: QueuedFact): JobDetail {
  switch (fact.kind) {
    case "reading":
      return { ...job, readings: added(job.readings, { ...fact.body, receivedAt: fact.body.measuredAt }) };
    case "signs": {
      const { observations, ...common } = fact.body;
      const rows = observations.map((one) => ({ ...common, ...one }));
      return { ...job, signs: rows.reduce((signs: JobDetail["signs"], row) => added(signs, row), job.signs) };
    }
    case "overrule":
      return { ...job, overrules: added(job.overrules, fact.body) };
    case "charge":
      return { ...job, chargeEvents: added(job.chargeEvents, fact.body) };
    case "power":
      return { ...job, powerEvents: added(job.powerEvents, fact.body) };
    case "return":
      return { ...job, teardownReturns: added(job.teardownReturns, fact.body) };
    case "ticks":
      return job;
  }
}

function added<T extends { readonly id: string }>(rows: readonly T[], row: T): readonly T[] {
  return rows.some((one) => one.id === row.id) ? rows : [...rows, row];
}

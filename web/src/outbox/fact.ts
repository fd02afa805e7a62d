import {
  type FactBody,
  type FactKind,
  type JobDetail,
  readingUnder,
  type StoredFact,
  testedAs,
} from "@pale-cap/contract";

interface FactOf<K extends FactKind> {
  readonly kind: K;
  readonly jobId: string;
  readonly body: FactBody<K>;
}

/** Something that happened on the bench: only ever added, so that it can wait and be sent again under its own id. */
export type Fact = { readonly [K in FactKind]: FactOf<K> }[FactKind];

/** A fact before it is confirmed: the outbox says by which clock it was. */
export type NewFact = {
  readonly [K in FactKind]: Omit<FactOf<K>, "body"> & { readonly body: Omit<FactBody<K>, "clockId"> };
}[FactKind];

/** Why a fact stands aside: what the server said against it. */
export interface Aside {
  readonly refusal: string;
  /** The server failed over it, twice: it says nothing against the fact itself. */
  readonly isTrouble: boolean;
  /** It waits for the person who signed it, or one who may. */
  readonly isForAnother?: boolean;
}

/** A fact in the outbox. */
export type QueuedFact = Fact & {
  /** null while it waits. */
  readonly aside: Aside | null;
  /** It is stored on this computer and outlives the page. */
  readonly isKept: boolean;
  /** How often the server failed over this one alone. */
  readonly failureCount: number;
};

/**
 * The job with what is still on its way laid over it, so that a reading counts from the moment it was kept here. Rows have
 * the ids that the server will store, so nothing stands twice. The parts that a tick takes out or puts in are the
 * server's to make; what nothing but this page holds waits too.
 */
export function withOutbox(
  detail: JobDetail,
  facts: readonly QueuedFact[],
  aheadSecondsOf: (clockId: string | null) => number | null,
): JobDetail {
  return facts.filter((fact) => fact.isKept).reduce((job, fact) => laidOver(job, fact, aheadSecondsOf), detail);
}

function laidOver(
  job: JobDetail,
  fact: QueuedFact,
  aheadSecondsOf: (clockId: string | null) => number | null,
): JobDetail {
  const { clockId } = fact.body;
  const moment: StoredFact = {
    sequence: null,
    clockId,
    receivedAt: null,
    clockAheadSeconds: aheadSecondsOf(clockId),
    cameAfterClosing: job.job.handedOverAt !== null,
  };
  switch (fact.kind) {
    case "reading":
      return {
        ...job,
        readings: added(job.readings, { ...fact.body, isSimulated: fact.body.isSimulated ?? false, ...moment }),
      };
    case "signs": {
      const { observations, positionId = null, ...common } = fact.body;
      const rows = observations.map((one) => ({ ...common, positionId, ...one, ...moment }));
      return { ...job, signs: rows.reduce((signs: JobDetail["signs"], row) => added(signs, row), job.signs) };
    }
    case "overrule":
      return { ...job, overrules: added(job.overrules, { ...fact.body, ...moment }) };
    case "charge":
      return { ...job, chargeEvents: added(job.chargeEvents, { ...fact.body, ...readingUnder(fact.body), ...moment }) };
    case "power":
      return { ...job, powerEvents: added(job.powerEvents, { ...fact.body, ...testedAs(fact.body), ...moment }) };
    case "return":
      return { ...job, teardownReturns: added(job.teardownReturns, { ...fact.body, ...moment }) };
    case "act":
      return { ...job, acts: added(job.acts, { ...fact.body, ...moment }) };
    case "quote":
      return { ...job, quotes: added(job.quotes, { ...fact.body, ...moment }) };
    case "quoteAnswer":
      return { ...job, quoteAnswers: added(job.quoteAnswers, { ...fact.body, ...moment }) };
    case "acceptance":
      return { ...job, acceptances: added(job.acceptances, { ...fact.body, ...moment }) };
    case "ticks": {
      const { items, step, isDone, at } = fact.body;
      const rows = items.map(({ id, positionId, fittedPartId }) => ({
        ...{ id, positionId, fittedPartId, step, isDone, at },
        ...moment,
      }));
      return { ...job, ticks: rows.reduce((ticks: JobDetail["ticks"], row) => added(ticks, row), job.ticks) };
    }
  }
}

function added<T extends { readonly id: string }>(rows: readonly T[], row: T): readonly T[] {
  return rows.some((one) => one.id === row.id) ? rows : [...rows, row];
}

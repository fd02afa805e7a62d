import type {
  Acceptance,
  ChargeEventRow,
  FittedPartRow,
  JobActRow,
  JobDetail,
  OverruleRow,
  PowerEventRow,
  QuoteAnswerRow,
  QuoteRow,
  ReadingRow,
  SignRow,
  TeardownReturnRow,
  TickRow,
} from "@pale-cap/contract";
import { api } from "../api/api";
import { store } from "../app/store/store";
import { jobApi } from "../job/jobApi";
import { byId, upsertAll } from "../job/patching";
import type { Fact } from "./fact";

/** What the server stored of a fact, laid into the cached job before the fact leaves: nothing blinks, nothing is fetched. */
export function layStored(fact: Fact, rows: unknown): void {
  store.dispatch(jobApi.util.updateQueryData("job", fact.jobId, (detail) => withStored(detail, fact.kind, rows)));
  // What goes in leaves its drawer.
  store.dispatch(api.util.invalidateTags(fact.kind === "ticks" ? ["Bench", "Stock"] : ["Bench"]));
}

function withStored(job: JobDetail, kind: Fact["kind"], rows: unknown): JobDetail {
  switch (kind) {
    case "reading":
      return { ...job, readings: upsertAll(job.readings, [rows as ReadingRow], byId) };
    case "signs":
      return { ...job, signs: upsertAll(job.signs, rows as readonly SignRow[], byId) };
    case "overrule":
      return { ...job, overrules: upsertAll(job.overrules, [rows as OverruleRow], byId) };
    case "charge":
      return { ...job, chargeEvents: upsertAll(job.chargeEvents, [rows as ChargeEventRow], byId) };
    case "power":
      return { ...job, powerEvents: upsertAll(job.powerEvents, [rows as PowerEventRow], byId) };
    case "return":
      return { ...job, teardownReturns: upsertAll(job.teardownReturns, [rows as TeardownReturnRow], byId) };
    case "act":
      return { ...job, acts: upsertAll(job.acts, [rows as JobActRow], byId) };
    case "quote":
      return { ...job, quotes: upsertAll(job.quotes, [rows as QuoteRow], byId) };
    case "quoteAnswer":
      return { ...job, quoteAnswers: upsertAll(job.quoteAnswers, [rows as QuoteAnswerRow], byId) };
    case "acceptance":
      return { ...job, acceptances: upsertAll(job.acceptances, [rows as Acceptance], byId) };
    case "ticks": {
      const { ticks, fittedParts } = rows as { ticks: readonly TickRow[]; fittedParts: readonly FittedPartRow[] };
      return {
        ...job,
        ticks: upsertAll(job.ticks, ticks, byId),
        fittedParts: upsertAll(job.fittedParts, fittedParts, byId),
      };
    }
  }
}

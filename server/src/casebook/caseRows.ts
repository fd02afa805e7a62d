import { type JobDetail, jobFacts, modelKey } from "@pale-cap/contract";
import {
  type ClosedCase,
  closedCase,
  currentPart,
  type JobRules,
  partSubjects,
  recordLevels,
  seriesKey,
  tradeConstants,
} from "@pale-cap/core";
import { deviceName, faultName, findingWords, partFigures, partName } from "@pale-cap/wording";
import type { ClosedFindingRow } from "../database/models/closedFindings";
import type { ClosedJobRow, StoredTally } from "../database/models/closedJobs";

const { usualHoursPerDay } = tradeConstants.casebook;
const daysOfYear = 365.25;

/** What stands beside a closed job's own rows. */
export interface CaseSurroundings {
  readonly boardTypeId: string | null;
  readonly boardTypeName: string | null;
  readonly quotedMinutes: number | null;
  /** Whose job it was. */
  readonly personId: string | null;
  /** It came back with the same fault: nothing was shown to be its cause. */
  readonly hasReturnedSame: boolean;
  /** Places where the job that it is the return of had put in new parts: they are not as old as the device. */
  readonly renewed: readonly string[];
  /** Origin and lot of the heaps that its parts came out of. */
  readonly heaps: ReadonlyMap<string, { readonly origin: string; readonly lot: string | null }>;
}

export interface CaseRows {
  readonly job: Omit<ClosedJobRow, "realm" | "isForeign">;
  readonly findings: readonly Omit<ClosedFindingRow, "realm">[];
}

/** A closed job as the casebook keeps it. */
export function caseRows(detail: JobDetail, rules: JobRules, around: CaseSurroundings): CaseRows {
  const { job } = detail;
  const closed = closedCase(jobFacts(detail), rules, around.hasReturnedSame);
  const { deviceKind, deviceMaker, deviceModel, deviceAgeYears: ageYears, intakeDetails } = job;
  const hoursPerDay = intakeDetails.purpose.hoursPerDay ?? null;
  const hours = ageYears === null ? null : ageYears * daysOfYear * (hoursPerDay ?? usualHoursPerDay);
  const findings = closed.parts.map((part): CaseRows["findings"][number] => {
    const standing = currentPart(detail.fittedParts, part.positionId);
    const fitted = standing?.origin === "replacement" ? standing : undefined;
    const heap = fitted?.stockItemId ? around.heaps.get(fitted.stockItemId) : undefined;
    const { kind: partKind, ...rest } = part;
    return {
      ...{ jobId: job.id, partKind, ...rest, hours: around.renewed.includes(part.designator) ? null : hours },
      ...{ seriesKey: part.series?.trim() ? seriesKey(part.series) : null },
      fittedLabel: fitted ? [partName(fitted), partFigures(fitted)].filter(Boolean).join(" ") : null,
      fittedSeries: fitted?.series ?? null,
      fittedSeriesKey: fitted?.series?.trim() ? seriesKey(fitted.series) : null,
      fittedOrigin: heap?.origin ?? fitted?.source ?? null,
      fittedLot: heap?.lot ?? null,
      fittedCataloguePartId: fitted?.cataloguePartId ?? null,
    };
  });
  const key = modelKey(deviceMaker, deviceModel);
  const prices = detail.fittedParts.flatMap((one) =>
    one.origin === "replacement" && one.removedAt === null && one.priceMinor != null ? [one.priceMinor] : [],
  );
  return {
    job: {
      ...{ jobId: job.id, number: job.number, deviceKind, deviceMaker, deviceModel, modelKey: key },
      ...{ boardTypeId: around.boardTypeId, topology: closed.topology, ageYears, hoursPerDay },
      ...{ symptoms: [...closed.symptoms], outcome: closed.outcome, causes: [...closed.causes] },
      ...{ complaint: job.complaint, closedAt: new Date(job.handedOverAt ?? job.createdAt) },
      ...{ spentMinutes: job.spentMinutes, quotedMinutes: around.quotedMinutes, personId: around.personId },
      partsMinor: prices.length > 0 ? prices.reduce((sum, one) => sum + one, 0) : null,
      tests: closed.tests,
      tallies: talliesOf(closed, key, around, ageYears),
    },
    findings,
  };
}

/** Counts as they are summed: of faults among supplies built alike and of its model, of parts at their place and of their series. */
function talliesOf(
  closed: ClosedCase,
  key: string | null,
  { boardTypeId, renewed }: CaseSurroundings,
  ageYears: number | null,
): readonly StoredTally[] {
  const units = [...(key ? [`model:${key}`] : []), ...(boardTypeId ? [`type:${boardTypeId}`] : [])];
  const scopes = [...(closed.topology ? [`topology:${closed.topology}`] : []), ...units];
  const faults = closed.tallies.flatMap(({ kind, fault, other, isSeen }) =>
    scopes.map(
      (scope): StoredTally => ({ kind, scope, subject: other === null ? fault : `${fault}>${other}`, isSeen }),
    ),
  );
  const parts = closed.parts.flatMap((part): StoredTally[] => {
    const subjects = partSubjects(part, ageYears);
    // What was put in here is followed as what was put in, and not as what units come with.
    if (!subjects || renewed.includes(part.designator)) return [];
    const isSeen = part.shown === "failed";
    return recordLevels.flatMap((kind) => {
      const subject = subjects[kind];
      if (subject === null) return [];
      return (kind === "place" ? units : [""]).map((scope): StoredTally => ({ kind, scope, subject, isSeen }));
    });
  });
  return [...faults, ...parts];
}

/** All words by which a job is found: nothing of its customer, who is found on the bench. */
export function caseWords(detail: JobDetail, boardTypeName: string | null, causes: readonly string[]): string {
  const { job } = detail;
  const parts = detail.fittedParts.flatMap((part) => {
    const at = detail.positions.find((one) => one.id === part.positionId);
    return [at?.designator, part.series, part.maker, part.orderCode];
  });
  return [
    String(job.number),
    ...[job.deviceKind, deviceName(job), job.deviceSerial, boardTypeName, job.complaint, job.symptomNote],
    ...job.symptoms.map(findingWords),
    ...causes.map(faultName),
    ...[job.verdictSummary, job.handOverNote],
    ...new Set(parts),
    ...detail.positions.map((one) => one.note),
    ...detail.acts.map((one) => one.note),
  ]
    .filter((one) => one != null && one !== "")
    .join(" ");
}

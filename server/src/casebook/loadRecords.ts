import { modelKey, recordCode } from "@pale-cap/contract";
import {
  ageBandOf,
  anyFault,
  type DeviceKind,
  deviceProfiles,
  type FaultTally,
  type FittedPart,
  faultTallyKinds,
  type MadePart,
  makerSubject,
  type PartTally,
  recordLevels,
  type Section,
  type ShopRecord,
  seriesSubject,
} from "@pale-cap/core";
import type { StoredTally } from "../database/models/closedJobs";
import type { JobRow } from "../database/models/jobs";
import type { Scope } from "../database/scope";
import { loadRuleValues } from "../records/rules";

type Groups<T> = ReadonlyMap<string | undefined, readonly T[]>;

interface TallyRow {
  readonly kind: StoredTally["kind"];
  readonly scope: string;
  readonly subject: string;
  readonly isForeign: boolean;
  readonly seenCount: number;
  readonly totalCount: number;
}

interface Asked {
  readonly jobId: string;
  readonly ageBand: ShopRecord["ageBand"];
  readonly topology: string | null;
  /** Its board type before its model. */
  readonly unit: string | null;
  readonly series: readonly string[];
}

/**
 * What closed jobs say to each of these, by counts that are kept; a job's own result is taken out of them. Empty where the house
 * rules leave it out.
 */
export async function loadRecords(
  scope: Scope,
  jobs: readonly JobRow[],
  nets: Groups<{ readonly id: string; readonly section: Section }>,
  positions: Groups<{ readonly id: string; readonly netId: string | null }>,
  parts: Groups<MadePart & Pick<FittedPart, "positionId" | "origin">>,
): Promise<ReadonlyMap<string, ShopRecord>> {
  const rules = await loadRuleValues(scope);
  if (!rules["record.isUsed"] || jobs.length === 0) return new Map();
  const jobIds = jobs.map((job) => job.id);
  const types = await scope.sql<{ jobId: string; boardTypeId: string }>(
    `SELECT DISTINCT ON (b.job_id) b.job_id AS "jobId", r.board_type_id AS "boardTypeId"
     FROM boards b JOIN board_type_revisions r ON r.id = b.board_type_revision_id
     WHERE b.job_id = ANY($1::uuid[]) AND b.deleted_at IS NULL ORDER BY b.job_id, b.place`,
    [jobIds],
  );
  const asked = jobs.map((job): Asked => {
    const type = types.find((one) => one.jobId === job.id)?.boardTypeId;
    const key = modelKey(job.deviceMaker, job.deviceModel);
    const ageBand = ageBandOf(job.deviceAgeYears);
    const sections = new Map((nets.get(job.id) ?? []).map((net) => [net.id, net.section]));
    const sectionOf = new Map(
      (positions.get(job.id) ?? []).map((one) => [
        one.id,
        one.netId === null ? null : (sections.get(one.netId) ?? null),
      ]),
    );
    const series = (parts.get(job.id) ?? [])
      .filter((part) => part.origin === "found" && (part.series || part.maker))
      .flatMap((part) => {
        const section = sectionOf.get(part.positionId) ?? null;
        const subjects = [
          ...[seriesSubject(part, section), ageBand && seriesSubject(part, section, ageBand)],
          makerSubject(part.maker, section),
        ];
        return subjects.filter((one) => one !== null);
      });
    const usual = deviceProfiles[job.deviceKind as DeviceKind].topologies[0];
    return {
      ...{ jobId: job.id, ageBand, series: [...new Set(series)] },
      topology: job.intakeDetails.topology ?? usual ?? null,
      unit: type ? `type:${type}` : key && `model:${key}`,
    };
  });
  const scopes = [...new Set(asked.flatMap((one) => [one.topology && `topology:${one.topology}`, one.unit]))];
  const rows = await scope.sql<TallyRow>(
    `SELECT kind, scope, subject, is_foreign AS "isForeign", seen_count AS "seenCount", total_count AS "totalCount"
     FROM record_tallies WHERE realm = $1 AND total_count > 0 AND (
       (kind = ANY($2::text[]) AND scope = ANY($3::text[]))
       OR (kind IN ('series', 'series_age', 'maker') AND scope = '' AND subject = ANY($4::text[])))
     ORDER BY kind, scope, subject`,
    [
      scope.realm,
      [...faultTallyKinds, "place"],
      scopes.filter((one) => one !== null),
      [...new Set(asked.flatMap((one) => one.series))],
    ],
  );
  const own = await scope.rows.closedJobs.all({ jobId: jobIds }, [["jobId", "ASC"]]);
  const weight = rules["record.otherShopsWeight"];
  const leftOut = new Set(rules["record.leftOut"]);
  return new Map(
    asked.map((one) => {
      const before = own.find((row) => row.jobId === one.jobId);
      const counts = counted(rows, before?.tallies ?? [], before?.isForeign ?? false, weight);
      return [
        one.jobId,
        {
          fewestCount: rules["record.fewest"],
          defaultWeight: rules["record.defaultWeight"],
          ageBand: one.ageBand,
          scopes: { topology: one.topology && `topology:${one.topology}`, model: one.unit },
          parts: partTallies(one, counts, leftOut, rules["record.fewest"]),
          faults: faultTallies(one, counts, leftOut, rules["record.fewest"]),
        },
      ];
    }),
  );
}

interface Count {
  readonly kind: StoredTally["kind"];
  readonly scope: string;
  readonly subject: string;
  readonly seen: number;
  readonly total: number;
}

const keyOf = (one: { readonly kind: string; readonly scope: string; readonly subject: string }) =>
  JSON.stringify([one.kind, one.scope, one.subject]);

/** The sums without what this very job had put in, other shops' by their weight. */
function counted(
  rows: readonly TallyRow[],
  own: readonly StoredTally[],
  isForeign: boolean,
  weight: number,
): readonly Count[] {
  const counts = new Map<string, { seen: number; total: number; row: TallyRow }>();
  for (const row of rows) {
    const share = row.isForeign ? weight : 1;
    const count = counts.get(keyOf(row)) ?? { seen: 0, total: 0, row };
    counts.set(keyOf(row), {
      row,
      seen: count.seen + share * row.seenCount,
      total: count.total + share * row.totalCount,
    });
  }
  const share = isForeign ? weight : 1;
  for (const one of own) {
    const count = counts.get(keyOf(one));
    if (!count) continue;
    count.total -= share;
    if (one.isSeen) count.seen -= share;
  }
  return [...counts.values()].map(({ seen, total, row: { kind, scope, subject } }) => ({
    ...{ kind, scope, subject, total },
    seen: Math.max(seen, 0),
  }));
}

function partTallies(
  asked: Asked,
  counts: readonly Count[],
  leftOut: ReadonlySet<string>,
  fewest: number,
): readonly PartTally[] {
  return counts.flatMap(({ kind, scope, subject, seen, total }): PartTally[] => {
    const level = recordLevels.find((one) => one === kind);
    if (!level || total < fewest || leftOut.has(recordCode(kind, scope, subject))) return [];
    const isAsked = level === "place" ? scope === asked.unit : asked.series.includes(subject);
    return isAsked ? [{ level, subject, failedCount: seen, seenCount: total }] : [];
  });
}

function faultTallies(
  asked: Asked,
  counts: readonly Count[],
  leftOut: ReadonlySet<string>,
  fewest: number,
): readonly FaultTally[] {
  return counts.flatMap(({ kind, scope, subject, seen, total }): FaultTally[] => {
    const own = faultTallyKinds.find((one) => one === kind);
    const of = scope === asked.unit ? "model" : scope === `topology:${asked.topology}` ? "topology" : null;
    if (!own || !of) return [];
    const [fault = "", other = null] = subject.split(">");
    if (leftOut.has(recordCode(kind, scope, subject)))
      return own === "prior" ? [{ kind: own, fault, other, of, count: 0, total: 0 }] : [];
    // How often a fault was shown counts against all jobs whose cause was.
    if (total < fewest && (own !== "prior" || fault === anyFault)) return [];
    return [{ kind: own, fault, other, of, count: seen, total }];
  });
}

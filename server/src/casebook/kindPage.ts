import { type KindPage, type KindPhoto, type KindPlace, type KindQuery, modelKey } from "@pale-cap/contract";
import { betaInterval, type PartKind, placePatterns, type Section, type TeardownKind } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { papersOf } from "../records/boardTypePapers";
import { loadRuleValues } from "../records/rules";

const mostUsed = 12;
const mostPhotos = 24;
const comebackDays = [30, 90, 180] as const;

/** What the shop has seen of one model or of one board type; other shops' jobs are counted and otherwise left out. */
export async function kindPage(scope: Scope, query: KindQuery): Promise<KindPage> {
  const key = await knownKey(scope, query);
  if (query.boardTypeId === null && key === null) {
    throw new HttpProblem("not_found", "Which kind? Name a model or a board type.");
  }
  const [column, value] = query.boardTypeId === null ? ["model_key", key] : ["board_type_id", query.boardTypeId];
  const kind: Kind = {
    scope,
    bind: [scope.realm, value],
    own: `c.realm = $1 AND c.${column} = $2 AND NOT c.is_foreign`,
    others: `c.realm = $1 AND c.${column} IS DISTINCT FROM $2 AND NOT c.is_foreign`,
  };
  const fewest = (await loadRuleValues(scope))["record.fewest"];
  const [head] = await scope.sql<Head>(
    `SELECT count(*) FILTER (WHERE NOT is_foreign)::int AS seen, count(*) FILTER (WHERE is_foreign)::int AS "foreignCount",
       count(*) FILTER (WHERE NOT is_foreign AND outcome = 'repaired')::int AS repaired,
       count(*) FILTER (WHERE NOT is_foreign AND cardinality(causes) > 0)::int AS shown,
       percentile_cont(0.5) WITHIN GROUP (ORDER BY spent_minutes) FILTER (WHERE NOT is_foreign) AS minutes,
       count(spent_minutes) FILTER (WHERE NOT is_foreign)::int AS "minutesCount",
       percentile_cont(0.5) WITHIN GROUP (ORDER BY parts_minor) FILTER (WHERE NOT is_foreign) AS parts,
       count(parts_minor) FILTER (WHERE NOT is_foreign)::int AS "partsCount",
       (array_agg(device_kind ORDER BY closed_at DESC))[1] AS "deviceKind",
       (array_agg(job_id ORDER BY closed_at DESC) FILTER (WHERE NOT is_foreign AND EXISTS (
         SELECT 1 FROM closed_findings f WHERE f.job_id = c.job_id)))[1] AS "latestJobId",
       (array_agg(device_maker ORDER BY closed_at DESC))[1] AS "deviceMaker",
       (array_agg(device_model ORDER BY closed_at DESC))[1] AS "deviceModel",
       (array_agg(board_type_id ORDER BY closed_at DESC) FILTER (WHERE board_type_id IS NOT NULL))[1] AS "boardTypeId"
     FROM closed_jobs c WHERE c.realm = $1 AND c.${column} = $2`,
    kind.bind,
  );
  const seenCount = head?.seen ?? 0;
  const boardTypeId = query.boardTypeId ?? head?.boardTypeId ?? null;
  const type = boardTypeId === null ? null : await scope.rows.boardTypes.first({ id: boardTypeId });
  const papers = type && (await papersOf(scope, type.id));
  const share = (count: number, total: number) => (total >= fewest ? betaInterval(count, total) : null);
  const causes = await counts(
    kind,
    `SELECT cause AS word, count(*)::int AS count FROM closed_jobs c, unnest(c.causes) AS cause WHERE ${kind.own}
     GROUP BY cause ORDER BY count DESC, cause`,
  );
  const outcomes = await counts(
    kind,
    `SELECT coalesce(outcome, 'unknown') AS word, count(*)::int AS count FROM closed_jobs c WHERE ${kind.own}
     GROUP BY 1 ORDER BY count DESC, 1`,
  );
  return {
    ...{ deviceKind: head?.deviceKind ?? null, deviceMaker: head?.deviceMaker ?? query.maker },
    ...{ deviceModel: head?.deviceModel ?? query.model, boardTypeId, boardTypeName: type?.name ?? null },
    ...{ seenCount, foreignCount: head?.foreignCount ?? 0, fewestCount: fewest },
    latestJobId: head?.latestJobId ?? null,
    openCount: await openCount(scope, query, key),
    outcomes: Object.fromEntries(outcomes.map(({ word, count }) => [word, count])),
    places: await placesOf(kind, fewest),
    shownCount: head?.shown ?? 0,
    causes: causes.map(({ word, count }) => ({
      ...{ fault: word, count, total: head?.shown ?? 0 },
      share: share(count, head?.shown ?? 0),
    })),
    symptoms: await symptomsOf(kind),
    ...{ medianMinutes: head?.minutes ?? null, minutesCount: head?.minutesCount ?? 0 },
    ...{ medianPartsMinor: head?.parts ?? null, partsCount: head?.partsCount ?? 0 },
    repairedCount: head?.repaired ?? 0,
    comebacks: (await comebacksOf(kind)).map((one) => ({ ...one, share: share(one.count, one.total) })),
    used: (
      await counts(
        kind,
        `SELECT f.fitted_label AS word, count(*)::int AS count
         FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id
         WHERE ${kind.own} AND f.was_replaced AND f.fitted_label IS NOT NULL
         GROUP BY f.fitted_label ORDER BY count DESC, f.fitted_label LIMIT ${mostUsed}`,
      )
    ).map(({ word, count }) => ({ label: word, count })),
    opening: await openingOf(kind),
    damage: await damageOf(kind),
    benchNotes: papers?.benchNotes ?? null,
    leastLoads: await leastLoadsOf(kind),
    papers: papers?.attachments ?? [],
    photos: await photosOf(kind),
  };
}

/** Whoever leaves the maker out means the one of whom most came. */
async function knownKey(scope: Scope, { maker, model }: KindQuery): Promise<string | null> {
  const key = modelKey(maker, model);
  if (key === null || maker?.trim()) return key;
  const [known] = await scope.sql<{ key: string }>(
    `SELECT model_key AS key FROM closed_jobs WHERE realm = $1 AND right(model_key, length($2)) = $2
     GROUP BY model_key ORDER BY count(*) DESC, model_key LIMIT 1`,
    [scope.realm, key],
  );
  return known?.key ?? key;
}

interface Kind {
  readonly scope: Scope;
  readonly bind: readonly unknown[];
  /** Closed jobs `c` of the kind, and of all others. */
  readonly own: string;
  readonly others: string;
}

interface Head {
  readonly seen: number;
  readonly foreignCount: number;
  readonly repaired: number;
  readonly shown: number;
  readonly minutes: number | null;
  readonly minutesCount: number;
  readonly parts: number | null;
  readonly partsCount: number;
  readonly deviceKind: string | null;
  readonly latestJobId: string | null;
  readonly deviceMaker: string | null;
  readonly deviceModel: string | null;
  readonly boardTypeId: string | null;
}

const counts = ({ scope, bind }: Kind, sql: string) => scope.sql<{ word: string; count: number }>(sql, bind);

async function openCount(scope: Scope, query: KindQuery, key: string | null): Promise<number> {
  const rows = await scope.sql<{ maker: string | null; model: string | null; typeId: string | null }>(
    `SELECT j.device_maker AS maker, j.device_model AS model, r.board_type_id AS "typeId" FROM jobs j
     LEFT JOIN boards b ON b.job_id = j.id AND b.deleted_at IS NULL
     LEFT JOIN board_type_revisions r ON r.id = b.board_type_revision_id
     WHERE j.realm = $1 AND j.handed_over_at IS NULL`,
    [scope.realm],
  );
  return rows.filter((one) =>
    query.boardTypeId === null ? modelKey(one.maker, one.model) === key : one.typeId === query.boardTypeId,
  ).length;
}

/** Places with how often they had failed, each against its like (kind of part and section) in all other models. */
async function placesOf(kind: Kind, fewest: number): Promise<readonly KindPlace[]> {
  const { scope, bind } = kind;
  const rows = await scope.sql<PlaceRow>(
    `SELECT f.designator AS place, mode() WITHIN GROUP (ORDER BY f.part_kind) AS "partKind",
       mode() WITHIN GROUP (ORDER BY f.section) AS section,
       count(*) FILTER (WHERE f.shown = 'failed')::int AS "failedCount",
       count(*) FILTER (WHERE f.shown <> 'unknown')::int AS "seenCount",
       mode() WITHIN GROUP (ORDER BY f.fitted_label) FILTER (WHERE f.was_replaced) AS "fittedLabel",
       mode() WITHIN GROUP (ORDER BY f.fitted_catalogue_part_id) FILTER (WHERE f.was_replaced) AS "fittedCataloguePartId",
       count(*) FILTER (WHERE f.was_replaced)::int AS "fittedCount",
       count(*) FILTER (WHERE f.was_replaced AND EXISTS (SELECT 1 FROM jobs r JOIN closed_findings g ON g.job_id = r.id
         WHERE r.comeback_of = f.job_id AND g.designator = f.designator AND g.shown = 'failed'))::int AS "fittedReturnedCount"
     FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id WHERE ${kind.own}
     GROUP BY f.designator HAVING count(*) FILTER (WHERE f.shown <> 'unknown' OR f.was_replaced) > 0`,
    bind,
  );
  const elsewhere = await scope.sql<{ partKind: string; section: string | null; failed: number; seen: number }>(
    `SELECT f.part_kind AS "partKind", f.section, count(*) FILTER (WHERE f.shown = 'failed')::int AS failed, count(*)::int AS seen
     FROM closed_findings f JOIN closed_jobs c ON c.job_id = f.job_id
     WHERE ${kind.others} AND f.shown <> 'unknown' GROUP BY f.part_kind, f.section`,
    bind,
  );
  const drawers = await scope.sql<{ id: string; count: number }>(
    `SELECT s.catalogue_part_id AS id, sum(m.count_delta)::int AS count
     FROM stock_items s JOIN stock_movements m ON m.item_id = s.id
     WHERE s.catalogue_part_id = ANY($1::uuid[]) AND s.set_aside_reason IS NULL GROUP BY s.catalogue_part_id`,
    [rows.flatMap((one) => one.fittedCataloguePartId ?? [])],
  );
  const patterns = placePatterns(
    rows.map(({ place, failedCount, seenCount, partKind, section }) => {
      const like = elsewhere.find((one) => one.partKind === partKind && one.section === section);
      return { place, failedCount, seenCount, otherFailedCount: like?.failed ?? 0, otherSeenCount: like?.seen ?? 0 };
    }),
    fewest,
  );
  return patterns
    .map((pattern, n): KindPlace => {
      const { partKind, section, fittedLabel, fittedCount, fittedReturnedCount, fittedCataloguePartId } = rows[
        n
      ] as PlaceRow;
      const inDrawers =
        fittedCataloguePartId === null ? null : (drawers.find((one) => one.id === fittedCataloguePartId)?.count ?? 0);
      const fitted = { fittedLabel, fittedCount, fittedReturnedCount, fittedCataloguePartId };
      return { ...pattern, partKind, section, ...fitted, inDrawers };
    })
    .sort(
      (a, b) =>
        (b.share?.meanRatio ?? -1) - (a.share?.meanRatio ?? -1) ||
        b.failedCount - a.failedCount ||
        a.place.localeCompare(b.place, "en", { numeric: true }),
    );
}

interface PlaceRow {
  readonly place: string;
  readonly partKind: PartKind;
  readonly section: Section | null;
  readonly failedCount: number;
  readonly seenCount: number;
  readonly fittedLabel: string | null;
  readonly fittedCataloguePartId: string | null;
  readonly fittedCount: number;
  readonly fittedReturnedCount: number;
}

async function symptomsOf({ scope, bind, own }: Kind): Promise<KindPage["symptoms"]> {
  return scope.sql<KindPage["symptoms"][number]>(
    `WITH told AS (SELECT c.job_id, symptom, c.causes FROM closed_jobs c, unnest(c.symptoms) AS symptom WHERE ${own}),
       withCause AS (
         SELECT symptom, cause, count(*)::int AS n,
           row_number() OVER (PARTITION BY symptom ORDER BY count(*) DESC, cause) AS place
         FROM told, unnest(causes) AS cause GROUP BY symptom, cause)
     SELECT t.symptom, count(*)::int AS count, max(w.cause) AS cause, coalesce(max(w.n), 0) AS "causeCount"
     FROM told t LEFT JOIN withCause w ON w.symptom = t.symptom AND w.place = 1
     GROUP BY t.symptom ORDER BY count DESC, t.symptom`,
    bind,
  );
}

/** Of those that were repaired and out so long: back with the same fault by then. */
async function comebacksOf({ scope, bind, own }: Kind) {
  const rows = await scope.sql<{ outDays: number; backDays: number | null }>(
    `SELECT extract(epoch FROM $3::timestamptz - c.closed_at)::float8 / 86400 AS "outDays",
       (SELECT min(extract(epoch FROM r.created_at - c.closed_at))::float8 / 86400 FROM jobs r
        WHERE r.comeback_of = c.job_id AND coalesce(r.comeback_kind, 'same_fault') = 'same_fault') AS "backDays"
     FROM closed_jobs c WHERE ${own} AND c.outcome = 'repaired'`,
    [...bind, scope.now],
  );
  return comebackDays.map((days) => {
    const out = rows.filter((one) => one.outDays >= days || (one.backDays !== null && one.backDays <= days));
    const count = out.filter((one) => one.backDays !== null && one.backDays <= days).length;
    return { days, count, total: out.length };
  });
}

async function openingOf({ scope, bind, own }: Kind): Promise<KindPage["opening"]> {
  const rows = await scope.sql<{
    jobNumber: number;
    number: number;
    kind: TeardownKind;
    count: number;
    size: string | null;
    place: string | null;
  }>(
    `SELECT c.number AS "jobNumber", t.number, t.kind, t.count, t.size, t.place FROM teardown_steps t
     JOIN closed_jobs c ON c.job_id = t.job_id
     WHERE NOT t.is_removed AND c.job_id = (SELECT c.job_id FROM closed_jobs c WHERE ${own}
       AND EXISTS (SELECT 1 FROM teardown_steps s WHERE s.job_id = c.job_id AND NOT s.is_removed)
       ORDER BY c.closed_at DESC LIMIT 1)
     ORDER BY t.number`,
    bind,
  );
  const [first] = rows;
  return first ? { jobNumber: first.jobNumber, steps: rows.map(({ jobNumber: _, ...step }) => step) } : null;
}

/** What broke in the work: pads and tracks by their place, screws that did not come back. */
async function damageOf({ scope, bind, own }: Kind): Promise<KindPage["damage"]> {
  return scope.sql<KindPage["damage"][number]>(
    `SELECT a.word AS what, p.designator AS place, count(DISTINCT a.job_id)::int AS count
     FROM job_acts a JOIN closed_jobs c ON c.job_id = a.job_id LEFT JOIN positions p ON p.id = a.subject_id
     WHERE ${own} AND a.kind = 'damage' AND a.word IS NOT NULL
     GROUP BY a.word, p.designator ORDER BY count DESC, a.word, p.designator`,
    bind,
  );
}

async function leastLoadsOf({ scope, bind, own }: Kind): Promise<KindPage["leastLoads"]> {
  return scope.sql<KindPage["leastLoads"][number]>(
    `SELECT n.name AS rail, max(n.least_load_amps) AS amps FROM nets n JOIN boards b ON b.id = n.board_id
     JOIN closed_jobs c ON c.job_id = b.job_id
     WHERE ${own} AND n.deleted_at IS NULL AND n.least_load_amps IS NOT NULL GROUP BY n.name ORDER BY n.name`,
    bind,
  );
}

/** Photos of its boards, by what their pen marks point at: places that were shown to be bad there, or good. */
async function photosOf({ scope, bind, own }: Kind): Promise<readonly KindPhoto[]> {
  return scope.sql<KindPhoto>(
    `SELECT h.id AS "photoId", c.job_id AS "jobId", c.number AS "jobNumber", h.caption,
       coalesce(array_agg(DISTINCT f.designator) FILTER (WHERE f.shown = 'failed'), '{}') AS bad,
       coalesce(array_agg(DISTINCT f.designator) FILTER (WHERE f.shown = 'sound'), '{}') AS good
     FROM photos h JOIN closed_jobs c ON c.job_id = h.job_id
     LEFT JOIN LATERAL jsonb_array_elements(h.marks) AS mark ON true
     LEFT JOIN closed_findings f ON f.job_id = c.job_id AND upper(f.designator) = upper(split_part(trim(mark->>'text'), ' ', 1))
     WHERE ${own} AND NOT h.is_removed AND h.kind <> 'label'
     GROUP BY h.id, c.job_id, c.number, h.caption, c.closed_at
     ORDER BY count(f.designator) DESC, c.closed_at DESC LIMIT ${mostPhotos}`,
    bind,
  );
}

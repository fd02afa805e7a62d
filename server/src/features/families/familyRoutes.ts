import { type ClosedJobs, type Family, followStudySchema, newUnitsSchema, routes } from "@pale-cap/contract";
import type { AppContext } from "../../appContext";
import type { JobRow } from "../../database/models/jobs";
import type { Scope } from "../../database/scope";
import { live, type Route, read, write } from "../../http/route";
import { loadFamilyUnits } from "../../records/loadFamily";
import { copyUnit } from "./copyUnit";
import { followStudy } from "./followStudy";

/** Identical units: made from one, told of each other; and what the shop's closed jobs of a kind took. */
export const familyRoutes = ({ heavy }: AppContext): readonly Route[] => [
  live({
    method: "get",
    path: routes.family,
    right: "read",
    live: async (_request, response, { params }) => {
      response.json(await heavy.family(params.jobId as string));
    },
  }),
  write({
    method: "post",
    path: routes.familyUnits,
    kind: "units",
    isTakenWhenClosed: true,
    right: "take_in",
    creates: true,
    schema: newUnitsSchema,
    write: async (scope, { body }) => {
      const source = scope.job as JobRow;
      const familyId = source.jobFamilyId ?? body.id;
      if (!source.jobFamilyId) {
        await scope.rows.jobFamilies.insert({ id: familyId, name: body.familyName, createdAt: scope.now });
        await scope.rows.jobs.update({ jobFamilyId: familyId }, { id: source.id });
      }
      for (const unit of body.units) await copyUnit(scope, source, { ...unit, familyId });
    },
    // What they mean for each other is asked for by itself: new units have nothing to tell yet.
    answer: async (scope, { params }): Promise<Family> => ({
      ...(await loadFamilyUnits(scope, params.jobId as string)),
      findings: [],
    }),
  }),
  live({
    method: "get",
    path: routes.familyGrid,
    right: "read",
    live: async (_request, response, { params }) => {
      response.json(await heavy.familyGrid(params.jobId as string));
    },
  }),
  write({
    method: "post",
    path: routes.familyFollow,
    kind: "follow the study",
    right: "edit_board",
    isTakenWhenClosed: true,
    schema: followStudySchema,
    write: (scope, { body }) => followStudy(scope, scope.job as JobRow, body.unitIds),
    answer: async (scope, { params }) => loadFamilyUnits(scope, params.jobId as string),
  }),
  read({
    path: routes.closedJobs,
    right: "read",
    read: (scope, { params }) => loadClosedJobs(scope, params.jobId as string),
  }),
];

/** Minutes as told at hand-over, parts as they were fitted. */
function loadClosedJobs(scope: Scope, jobId: string): Promise<ClosedJobs> {
  return scope.sql<ClosedJobs[number]>(
    `SELECT j.spent_minutes AS "spentMinutes", sum(f.price_minor)::float8 AS "partsMinor",
       (SELECT sum((line->>'quantity')::float8)::float8 FROM jsonb_array_elements(
          (SELECT w.words::jsonb FROM quotes q JOIN typed_words w ON w.row_id = q.id AND w.field = 'lines'
           WHERE q.job_id = j.id ORDER BY q.sequence DESC LIMIT 1)) AS line
        WHERE line->>'kind' = 'labour') AS "quotedMinutes"
     FROM jobs own JOIN jobs j ON j.device_kind = own.device_kind AND j.realm = own.realm AND j.id <> own.id
     LEFT JOIN boards b ON b.job_id = j.id
     LEFT JOIN positions p ON p.board_id = b.id
     LEFT JOIN fitted_parts f ON f.position_id = p.id AND f.origin = 'replacement' AND f.removed_at IS NULL
     WHERE own.id = $1 AND j.handed_over_at IS NOT NULL
     GROUP BY j.id ORDER BY j.handed_over_at DESC LIMIT 200`,
    [jobId],
  );
}

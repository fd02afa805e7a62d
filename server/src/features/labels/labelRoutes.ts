import {
  type CodeTarget,
  codeQuerySchema,
  drawerLabelQuerySchema,
  jobLabelQuerySchema,
  routes,
} from "@pale-cap/contract";
import { bagLabel, drawerLabel, type Label, reportModel, unitLabel, warningTags } from "@pale-cap/wording";
import type { AppContext } from "../../appContext";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { live, type Route, read } from "../../http/route";
import { sendPdf } from "../../http/sendPdf";
import { parseBody } from "../../http/validate";
import type { labelsPdf } from "../../papers/labels";
import { loadReportInput } from "../../records/loadReportInput";
import { loadStockItem } from "../../records/loadStock";
import { loadRuleValues } from "../../records/rules";

/** Loaded when it is wanted: what puts type on paper would be a fifth of each start. */
async function drawLabels(...asked: Parameters<typeof labelsPdf>): Promise<Buffer> {
  return (await import("../../papers/labels")).labelsPdf(...asked);
}

/** Labels of units, bags and drawers, tags of what can hurt; and where a label's code leads. */
export function labelRoutes({ database, now }: AppContext): readonly Route[] {
  return [
    live({
      method: "get",
      path: routes.jobLabels,
      right: "export",
      live: async (request, response, { params }) => {
        const { kind, words = null, place } = parseBody(jobLabelQuerySchema, queryOf(request.query));
        const input = await database.read(now(), (scope) => loadReportInput(scope, params.jobId as string, null));
        const model = reportModel(input);
        const labels: readonly Label[] =
          kind === "unit" ? [unitLabel(model)] : kind === "bag" ? [bagLabel(model, words)] : warningTags(model);
        if (labels.length === 0) {
          throw new HttpProblem(
            "conflict",
            "Nothing that was logged asks for a tag: the charge is verified, and no earth is open.",
          );
        }
        const stock = input.houseRules["shop.labels"];
        sendPdf(response, `label-${kind}`, await drawLabels(labels, { stock, firstPlace: place, madeAt: now() }));
      },
    }),
    live({
      method: "get",
      path: routes.drawerLabel,
      right: "export",
      live: async (request, response, { params }) => {
        const { place } = parseBody(drawerLabelQuerySchema, queryOf(request.query));
        const { item, houseRules } = await database.read(now(), async (scope) => ({
          item: await loadStockItem(scope, params.itemId as string),
          houseRules: await loadRuleValues(scope),
        }));
        const stock = houseRules["shop.labels"];
        const labels = [drawerLabel(item, houseRules)];
        sendPdf(response, "label-drawer", await drawLabels(labels, { stock, firstPlace: place, madeAt: now() }));
      },
    }),
    read({
      path: routes.code,
      right: "read",
      schema: codeQuerySchema,
      query: (query) => query,
      read: (scope, { body }) => targetOf(scope, body.code ?? ""),
    }),
  ];
}

/** Numbers travel as words in an address. */
const queryOf = ({ place, ...query }: Readonly<Record<string, unknown>>) =>
  place === undefined ? query : { ...query, place: Number(place) };

/** A code is the number of a job, else the name of a drawer; neither is no fault of the person who scans. */
async function targetOf(scope: Scope, code: string): Promise<CodeTarget> {
  const number = /^\d{1,9}$/.test(code) ? Number(code) : null;
  const job = number === null ? null : await scope.rows.jobs.first({ number, realm: scope.realm });
  if (job) return { jobId: job.id, isClosed: job.handedOverAt !== null, drawer: null };
  const [heap] = await scope.sql<{ drawer: string }>(
    "SELECT drawer FROM stock_items WHERE lower(drawer) = lower($1) LIMIT 1",
    [code],
  );
  return { jobId: null, isClosed: false, drawer: heap?.drawer ?? null };
}

import {
  type CasebookPage,
  casebookQuerySchema,
  kindQuerySchema,
  qualityQuerySchema,
  routes,
  seriesQuerySchema,
  signPhotosQuerySchema,
} from "@pale-cap/contract";
import { deviceName, faultName, minorPerMajor } from "@pale-cap/wording";
import Papa from "papaparse";
import type { AppContext } from "../../appContext";
import { changeLines } from "../../casebook/changeLines";
import { kindPage } from "../../casebook/kindPage";
import { searchCasebook } from "../../casebook/searchCasebook";
import { searched, word } from "../../casebook/searched";
import { seriesLines } from "../../casebook/seriesPages";
import { signPhotos } from "../../casebook/signPhotos";
import { live, type Route, read, requireRight } from "../../http/route";
import { parseBody } from "../../http/validate";
import { loadRuleValues } from "../../records/rules";

const mostRows = 100_000;

/** What the shop's own repairs teach: search, kinds, series, what they move, and how well it judges. */
export const casebookRoutes = ({ heavy }: AppContext): readonly Route[] => [
  read({
    path: routes.casebook,
    right: "read",
    schema: casebookQuerySchema,
    query: searched,
    read: (scope, { body }) => searchCasebook(scope, body),
  }),
  read({
    path: routes.casebookCsv,
    right: "export",
    schema: casebookQuerySchema,
    query: searched,
    read: async (scope, { body }) => {
      const { "shop.currency": currency } = await loadRuleValues(scope);
      return csvOf(await searchCasebook(scope, { ...body, offset: 0 }, mostRows), currency);
    },
    send: async (response, csv) => {
      response.attachment("casebook.csv").type("text/csv; charset=utf-8").send(csv);
    },
  }),
  read({
    path: routes.casebookKind,
    right: "read",
    schema: kindQuerySchema,
    query: ({ maker, model, type }) => ({ maker: word(maker), model: word(model), boardTypeId: word(type) }),
    read: (scope, { body }) => kindPage(scope, body),
  }),
  read({ path: routes.casebookSeries, right: "read", read: (scope) => seriesLines(scope) }),
  // Resampling and fitting take a while: in the thread.
  live({
    method: "get",
    path: routes.casebookOneSeries,
    right: "read",
    live: async ({ query: { series, section, warmth, against } }, response) => {
      const asked = { series: word(series), section: word(section), warmth: word(warmth), against: word(against) };
      response.json(await heavy.series(parseBody(seriesQuerySchema, asked)));
    },
  }),
  read({ path: routes.casebookChanges, right: "read", read: (scope) => changeLines(scope) }),
  live({
    method: "get",
    path: routes.casebookQuality,
    right: "read",
    live: async (request, response) => {
      const { personId } = parseBody(qualityQuerySchema, { personId: word(request.query.person) });
      const own = requireRight(request, "read").personId;
      if (personId !== null && personId !== own) requireRight(request, "see_others_quality");
      response.json(await heavy.quality(personId));
    },
  }),
  read({
    path: routes.casebookPhotos,
    right: "read",
    schema: signPhotosQuerySchema,
    query: ({ kind }) => ({ partKind: word(kind) }),
    read: (scope, { body }) => signPhotos(scope, body.partKind),
  }),
];

function csvOf({ lines }: CasebookPage, currency: string): string {
  const fields = ["job", "closed", "device", "complaint", "outcome", "causes", "failed", "replaced", "minutes"];
  const data = lines.map((line) => [
    ...[
      line.number,
      line.closedAt,
      deviceName(line),
      line.complaint,
      line.outcome,
      line.causes.map(faultName).join("; "),
    ],
    ...[line.failed.join(" "), line.replaced.join(" "), line.spentMinutes],
    ...[line.partsMinor === null ? null : line.partsMinor / minorPerMajor(currency), currency, line.returnedNumber],
    ...[line.returnedAs, line.isForeign ? "yes" : "no"],
  ]);
  return Papa.unparse({
    fields: [...fields, "parts", "currency", "came_back_as_job", "came_back", "other_shop"],
    data,
  });
}

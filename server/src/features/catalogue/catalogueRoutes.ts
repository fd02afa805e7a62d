import {
  type CatalogueImport,
  type CataloguePage,
  type CatalogueSearch,
  catalogueImportSchema,
  cataloguePageSize,
  cataloguePartsSchema,
  catalogueReachSchema,
  catalogueSearchSchema,
  componentQuerySchema,
  importLimits,
  routes,
} from "@pale-cap/contract";
import { parseQuantity } from "@pale-cap/core";
import { Op } from "sequelize";
import { audit } from "../../audit/audit";
import type { Scope } from "../../database/scope";
import { receiveUpload } from "../../http/receiveUpload";
import { type Route, read, write } from "../../http/route";
import { cataloguePage, cataloguePartsOf, reachedParts } from "../../records/loadCatalogue";
import { exportCatalogue, exportComponents } from "./exportCatalogue";
import { importEntries, importOutcome, readEntries } from "./importCatalogue";
import { importComponents, readComponents } from "./importComponents";

const numberOf = (value: unknown) => (typeof value === "string" && value !== "" ? Number(value) : null);

const receiveCatalogue = receiveUpload({
  noun: "catalogue",
  aboutField: "about",
  about: catalogueImportSchema,
  mostBytes: importLimits.uploadBytes,
});

/** What can be bought, with how many of it lie free in the drawers: looked through, taken in, given out. */
export const catalogueRoutes = (): readonly Route[] => [
  read({
    path: routes.catalogue,
    right: "read",
    schema: catalogueSearchSchema,
    query: ({ text, capacitorClass, isInDrawer, offset }) => ({
      text: typeof text === "string" && text.trim() !== "" ? text : null,
      capacitorClass: capacitorClass || null,
      isInDrawer: isInDrawer === "true",
      offset: numberOf(offset) ?? 0,
    }),
    read: search,
  }),
  read({
    path: routes.catalogueReach,
    right: "read",
    schema: catalogueReachSchema,
    query: (query) => ({
      ...Object.fromEntries(
        Object.keys(catalogueReachSchema.fields)
          .filter((name) => name !== "isLowEsrOnly")
          .map((name) => [name, numberOf(query[name])]),
      ),
      isLowEsrOnly: query.isLowEsrOnly === "true",
    }),
    read: (scope, { body }) => reachedParts(scope, body),
  }),
  read({
    path: routes.catalogueParts,
    right: "read",
    schema: cataloguePartsSchema,
    query: ({ ids }) => ({ ids: typeof ids === "string" && ids !== "" ? ids.split(",") : [] }),
    read: (scope, { body }) => cataloguePartsOf(scope, body.ids),
  }),
  read({
    path: routes.catalogueComponents,
    right: "read",
    schema: componentQuerySchema,
    query: ({ kind, ids }) => ({
      kind: kind || null,
      ids: typeof ids === "string" && ids !== "" ? ids.split(",") : [],
    }),
    read: ({ rows }, { body: { kind, ids } }) =>
      rows.catalogueComponents.all(kind ? { kind } : { id: { [Op.in]: ids } }, [
        ["typeNumber", "ASC"],
        ["id", "ASC"],
      ]),
  }),
  write({
    method: "post",
    path: routes.catalogueImports,
    kind: "catalogue import",
    right: "change_catalogue",
    creates: true,
    schema: catalogueImportSchema,
    receive: receiveCatalogue,
    prepare: ({ body, bytes }) => readEntries(bytes as Buffer, body.rowCount),
    write: async (scope, { body }, entries) => {
      await importEntries(scope, body as CatalogueImport, entries);
      await audit(scope, "catalogue_imported", { subject: body.id, details: { source: body.source } });
    },
    answer: (scope, { body }) => importOutcome(scope, body.id),
  }),
  write({
    method: "post",
    path: routes.componentImports,
    kind: "import of other parts",
    right: "change_catalogue",
    creates: true,
    schema: catalogueImportSchema,
    receive: receiveCatalogue,
    prepare: ({ body, bytes }) => readComponents(bytes as Buffer, body.rowCount),
    write: async (scope, { body }, entries) => {
      await importComponents(scope, body as CatalogueImport, entries);
      await audit(scope, "catalogue_imported", { subject: body.id, details: { source: body.source } });
    },
    answer: (scope, { body }) => importOutcome(scope, body.id),
  }),
  exportCatalogue(),
  exportComponents(),
];

async function search(scope: Scope, { body }: { readonly body: CatalogueSearch }): Promise<CataloguePage> {
  const bind: unknown[] = [];
  const conditions: string[] = [];
  for (const word of body.text?.split(/\s+/).filter(Boolean).slice(0, 8) ?? []) {
    conditions.push(wordCondition(word, bind));
  }
  if (body.capacitorClass) conditions.push(`c.capacitor_class = $${bind.push(body.capacitorClass)}`);
  const { isInDrawer } = body;
  return cataloguePage(scope, { conditions, bind, isInDrawer }, body.offset, cataloguePageSize);
}

/** A value where the word is one with its unit (`470u`, `25V`), else letters of maker, series or code. */
function wordCondition(word: string, bind: unknown[]): string {
  const volts = /^[\d.,]+v$/i.test(word) ? parseQuantity(word, "V") : null;
  if (volts?.ok) return `abs(c.rated_volts - $${bind.push(volts.value)}) < 1e-6 * c.rated_volts`;
  const farads = /^\d[\d.,]*(p|n|u|µ|m)\d*f?$/i.test(word) ? parseQuantity(word, "F") : null;
  if (farads?.ok) return `abs(c.capacitance_farads - $${bind.push(farads.value)}) < 1e-6 * c.capacitance_farads`;
  const like = `$${bind.push(`%${word.toLowerCase().replace(/[\\%_]/g, "\\$&")}%`)}`;
  return `(lower(c.maker) LIKE ${like} OR lower(c.series) LIKE ${like} OR lower(c.order_code) LIKE ${like})`;
}

import { routes } from "@pale-cap/contract";
import { catalogueCells, componentCells, componentHeaders, exportHeaders } from "@pale-cap/core";
import { minorPerMajor } from "@pale-cap/wording";
import Papa from "papaparse";
import { type Route, read } from "../../http/route";
import { cataloguePage } from "../../records/loadCatalogue";
import { loadRuleValues } from "../../records/rules";

const everything = 1_000_000;

/** The whole catalogue as a file that the import reads back. */
export const exportCatalogue = (): Route =>
  read({
    path: routes.catalogueExport,
    right: "export",
    read: async (scope) => {
      const { "shop.currency": currency } = await loadRuleValues(scope);
      const { rows } = await cataloguePage(scope, { conditions: [], bind: [], isInDrawer: false }, 0, everything);
      const cells = rows.map((one) => [...catalogueCells(one, minorPerMajor(currency))]);
      return Papa.unparse({ fields: [...exportHeaders], data: cells });
    },
    send: async (response, csv) => {
      response.attachment("catalogue.csv").type("text/csv; charset=utf-8").send(csv);
    },
  });

/** Other parts as a file that the import reads back. */
export const exportComponents = (): Route =>
  read({
    path: routes.componentExport,
    right: "export",
    read: async (scope) => {
      const { "shop.currency": currency } = await loadRuleValues(scope);
      const rows = await scope.rows.catalogueComponents.all({}, [
        ["kind", "ASC"],
        ["maker", "ASC"],
        ["typeNumber", "ASC"],
      ]);
      const cells = rows.map((one) => [...componentCells(one, minorPerMajor(currency))]);
      return Papa.unparse({ fields: [...componentHeaders], data: cells });
    },
    send: async (response, csv) => {
      response.attachment("other-parts.csv").type("text/csv; charset=utf-8").send(csv);
    },
  });

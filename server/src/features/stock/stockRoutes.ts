import {
  newStockItemSchema,
  routes,
  stockActSchema,
  stockItemEditSchema,
  stockMovementSchema,
} from "@pale-cap/contract";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { updateFromVersion } from "../../http/versions";
import { requireCataloguePart } from "../../records/loadCatalogue";
import { loadStock, loadStockItem } from "../../records/loadStock";
import { moveStock } from "../../records/stock";

const itemOf = (params: Readonly<Record<string, string>>) => params.itemId as string;
const lock = ({ params }: { readonly params: Readonly<Record<string, string>> }) => `stock ${params.itemId}`;

/** What lies in the drawers, and what is done with it by hand. Choosing and rework move it by themselves. */
export const stockRoutes = (): readonly Route[] => [
  read({ path: routes.stock, right: "read", read: (scope) => loadStock(scope) }),
  read({
    path: routes.stockItem,
    right: "read",
    read: (scope, { params }) => loadStockItem(scope, itemOf(params)),
  }),
  write({
    method: "post",
    path: routes.stock,
    kind: "stock item",
    right: "keep_stock",
    creates: true,
    schema: newStockItemSchema,
    lock: ({ body }) => `stock ${body.id}`,
    write: async (scope, { body }) => {
      const { id, cataloguePartId, marking, values, count } = body;
      if ((cataloguePartId === null) === (marking === null)) {
        throw new HttpProblem(
          "invalid_body",
          "Either a part of the catalogue or a marking of its own. Nothing was stored.",
          {
            errors: [{ path: "cataloguePartId", code: "own_or_catalogue" }],
          },
        );
      }
      if (cataloguePartId !== null) await requireCataloguePart(scope, cataloguePartId);
      await scope.rows.stockItems.insert({ ...values, id, cataloguePartId, marking });
      if (count > 0) await moveStock(scope, { itemId: id, kind: "received", pieces: count });
    },
    answer: (scope, { body }) => loadStockItem(scope, body.id),
  }),
  write({
    method: "patch",
    path: routes.stockItem,
    kind: "stock item edit",
    right: "keep_stock",
    schema: stockItemEditSchema,
    lock,
    write: ({ rows }, { body, params }) =>
      updateFromVersion(
        rows.stockItems,
        { id: itemOf(params), version: body.version },
        { ...body.values, setAsideReason: body.setAsideReason },
      ),
    answer: (scope, { params }) => loadStockItem(scope, itemOf(params)),
  }),
  write({
    method: "post",
    path: routes.stockMovements,
    kind: "stock movement",
    right: "keep_stock",
    creates: true,
    schema: stockMovementSchema,
    lock,
    write: (scope, { body: { id, kind, pieces, note }, params }) =>
      moveStock(scope, { id, kind, pieces, note, itemId: itemOf(params) }),
    answer: (scope, { params }) => loadStockItem(scope, itemOf(params)),
  }),
  write({
    method: "post",
    path: routes.stockActs,
    kind: "stock act",
    right: "keep_stock",
    creates: true,
    schema: stockActSchema,
    lock,
    write: async (scope, { body, params }) => {
      const itemId = itemOf(params);
      if (!(await scope.rows.stockItems.locked({ id: itemId }))) {
        throw new HttpProblem("not_found", "These parts are in no drawer any more.");
      }
      await scope.rows.stockActs.insert({ ...body, itemId, at: scope.now });
    },
    answer: (scope, { params }) => loadStockItem(scope, itemOf(params)),
  }),
];

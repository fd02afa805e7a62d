import { randomUUID } from "node:crypto";
import {
  newOrderSchema,
  newSupplierSchema,
  offerSchema,
  orderEditSchema,
  type Receipt,
  receiptSchema,
  routes,
  supplierEditSchema,
} from "@pale-cap/contract";
import { isMeasured, pieceDoubts, receiveLot, shopDayOf } from "@pale-cap/core";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { type Route, read, write } from "../../http/route";
import { sendPdf } from "../../http/sendPdf";
import { updateFromVersion } from "../../http/versions";
import { requireCataloguePart } from "../../records/loadCatalogue";
import { loadRuleValues } from "../../records/rules";
import { moveStock } from "../../records/stock";
import { loadOrderBasis, loadOrders, loadSuppliers } from "./loadOrders";

/** All writes to suppliers and orders go one after the other: they are few. */
const lock = () => "orders";

/** Who delivers what at which price, what was ordered, and what came. */
export const orderRoutes = (): readonly Route[] => [
  read({ path: routes.suppliers, right: "read", read: loadSuppliers }),
  read({ path: routes.orderNeeds, right: "read", read: loadOrderBasis }),
  read({ path: routes.orders, right: "read", read: loadOrders }),
  read({
    path: routes.orderFile,
    right: "export",
    read: async (scope, { params }) => {
      const order = (await loadOrders(scope)).find((one) => one.id === params.orderId);
      if (!order) throw new HttpProblem("not_found", "There is no order with this id among the last two hundred.");
      return { order, houseRules: await loadRuleValues(scope) };
    },
    send: async (response, { order, houseRules }) => {
      const day = shopDayOf(order.at, houseRules["shop.timeZone"]);
      // Loaded when it is wanted: what puts type on paper would be a fifth of each start.
      const { orderPdf } = await import("../../papers/orderPdf");
      sendPdf(response, "order", await orderPdf(order, houseRules, day));
    },
  }),
  write({
    method: "post",
    path: routes.suppliers,
    kind: "supplier",
    right: "keep_stock",
    creates: true,
    lock,
    schema: newSupplierSchema,
    write: async ({ rows }, { body }) => {
      await rows.suppliers.insert({ ...body.values, id: body.id });
    },
    answer: loadSuppliers,
  }),
  write({
    method: "patch",
    path: routes.supplier,
    kind: "supplier edit",
    right: "keep_stock",
    lock,
    schema: supplierEditSchema,
    write: ({ rows }, { body, params }) =>
      updateFromVersion(rows.suppliers, { id: params.supplierId as string, version: body.version }, body.values),
    answer: loadSuppliers,
  }),
  write({
    method: "put",
    path: routes.offers,
    kind: "offer",
    right: "keep_stock",
    lock,
    schema: offerSchema,
    write: async (scope, { body, params }) => {
      const { writeId: _, ...offer } = body;
      const supplierId = params.supplierId as string;
      if (!(await scope.rows.suppliers.has({ id: supplierId }))) {
        throw new HttpProblem("not_found", "There is no such supplier.");
      }
      await requireCataloguePart(scope, offer.cataloguePartId);
      await scope.rows.offers.upsert({ ...offer, supplierId });
    },
    answer: loadSuppliers,
  }),
  write({
    method: "post",
    path: routes.orders,
    kind: "order",
    right: "keep_stock",
    creates: true,
    lock,
    schema: newOrderSchema,
    write: async (scope, { body }) => {
      const { id, supplierId, note, personId } = body;
      if (!(await scope.rows.suppliers.has({ id: supplierId }))) {
        throw new HttpProblem("not_found", "There is no such supplier.");
      }
      for (const line of body.lines) await requireCataloguePart(scope, line.cataloguePartId);
      await scope.rows.orders.insert({ id, supplierId, note, personId, at: scope.now });
      await scope.rows.orderLines.insertAll(body.lines.map((line, n) => ({ ...line, orderId: id, place: n + 1 })));
    },
    answer: loadOrders,
  }),
  write({
    method: "patch",
    path: routes.order,
    kind: "order edit",
    right: "keep_stock",
    lock,
    schema: orderEditSchema,
    write: ({ rows }, { body, params }) =>
      updateFromVersion(
        rows.orders,
        { id: params.orderId as string, version: body.version },
        { isClosed: body.isClosed },
      ),
    answer: loadOrders,
  }),
  write({
    method: "post",
    path: routes.orderReceipts,
    kind: "receipt",
    right: "keep_stock",
    creates: true,
    lock,
    schema: receiptSchema,
    write: (scope, { body, params }) => receive(scope, params.orderId as string, body as Receipt),
    answer: loadOrders,
  }),
];

/** A delivery becomes a heap of its own: with its lot, so that it can be kept apart from all others. */
async function receive(scope: Scope, orderId: string, body: Receipt): Promise<void> {
  const line = await scope.rows.orderLines.locked({ id: body.orderLineId, orderId });
  if (!line) throw new HttpProblem("not_found", "This line is not on the order.");
  const part = await scope.rows.catalogueParts.first({ id: line.cataloguePartId });
  if (!part) throw new HttpProblem("conflict", "The ordered part is not in the catalogue any more.");
  const measured = body.pieces.filter(isMeasured);
  if (measured.length > body.count) {
    throw new HttpProblem("invalid_body", "More pieces were measured than came. Nothing was stored.", {
      errors: [{ path: "pieces", code: "too_many_entries", values: { most: body.count } }],
    });
  }
  const badCount = measured.filter((piece) => pieceDoubts(piece, part).length > 0).length;
  const lot = receiveLot({
    ...{ count: body.count, measuredCount: measured.length, badCount, allowedBadRatio: body.allowedBadRatio },
  });
  const itemId = randomUUID();
  const { "shop.timeZone": timeZone } = await loadRuleValues(scope);
  const isFailed = lot.decision === "reject";
  await scope.rows.stockItems.insert({
    ...{ id: itemId, cataloguePartId: part.id, marking: null, drawer: body.drawer, origin: "distributor" },
    ...{ lot: body.lot, dateCode: body.dateCode, receivedOn: shopDayOf(scope.now, timeZone) },
    ...{ usedHours: null, note: null, setAsideReason: isFailed ? "the lot failed its sample" : null },
  });
  await moveStock(scope, { itemId, kind: "received", pieces: body.count, orderLineId: line.id });
  const { tooManyProbability, decision } = lot;
  const { id, count, allowedBadRatio, pieces, personId } = body;
  await scope.rows.lotChecks.insert({
    ...{ id, itemId, orderLineId: line.id, count, measuredCount: measured.length, badCount, allowedBadRatio },
    ...{ tooManyProbability, decision, pieces, at: scope.now, personId },
  });
}

import type { CatalogueRow, LotCheckRow, OrderBasis, OrderRow, SupplierRow } from "@pale-cap/contract";
import { Op } from "sequelize";
import type { Scope } from "../../database/scope";
import { cataloguePartsOf } from "../../records/loadCatalogue";
import { onWire } from "../../records/loadJobs";

export async function loadSuppliers(scope: Scope): Promise<readonly SupplierRow[]> {
  const suppliers = await scope.rows.suppliers.all({}, [
    ["name", "ASC"],
    ["id", "ASC"],
  ]);
  const offers = await scope.rows.offers.all({}, [["cataloguePartId", "ASC"]]);
  return suppliers.map((one) => ({
    ...one,
    offers: offers
      .filter((offer) => offer.supplierId === one.id && offer.breaks.length > 0)
      .map(({ supplierId: _, ...offer }) => offer),
  }));
}

interface LineRow {
  readonly id: string;
  readonly orderId: string;
  readonly cataloguePartId: string;
  readonly count: number;
  readonly unitMinor: number;
  readonly receivedCount: number;
}

/** Open orders first, then the latest closed ones. */
export async function loadOrders(scope: Scope): Promise<readonly OrderRow[]> {
  const orders = await scope.sql<Omit<OrderRow, "lines">>(
    `SELECT o.id, o.version, o.supplier_id AS "supplierId", s.name AS "supplierName", o.at, o.note,
       o.is_closed AS "isClosed" FROM orders o JOIN suppliers s ON s.id = o.supplier_id
     ORDER BY o.is_closed, o.at DESC, o.id LIMIT 200`,
  );
  const lines = await scope.sql<LineRow>(
    `SELECT l.id, l.order_id AS "orderId", l.catalogue_part_id AS "cataloguePartId", l.count,
       l.unit_minor AS "unitMinor", coalesce(sum(m.count_delta), 0)::int AS "receivedCount"
     FROM order_lines l LEFT JOIN stock_movements m ON m.order_line_id = l.id
     WHERE l.order_id = ANY($1::uuid[]) GROUP BY l.id ORDER BY l.place`,
    [orders.map((one) => one.id)],
  );
  const checks = await scope.rows.lotChecks.all({ orderLineId: { [Op.in]: lines.map((one) => one.id) } }, [
    ["sequence", "ASC"],
  ]);
  const parts = new Map(
    (await cataloguePartsOf(scope, [...new Set(lines.map((one) => one.cataloguePartId))])).map((one) => [one.id, one]),
  );
  return onWire(
    orders.map((order) => ({
      ...order,
      lines: lines
        .filter((one) => one.orderId === order.id)
        .map(({ orderId: _, cataloguePartId, ...line }) => ({
          ...line,
          part: parts.get(cataloguePartId),
          checks: checks.filter((one) => one.orderLineId === line.id).map(toCheck),
        })),
    })),
  ) as OrderRow[];
}

function toCheck(row: Omit<LotCheckRow, "at"> & { readonly at: Date }) {
  const { id, count, measuredCount, badCount, tooManyProbability, decision, at } = row;
  return { id, count, measuredCount, badCount, tooManyProbability, decision, at };
}

/** Days over which the shop's use of a part is counted. */
const usedDays = 365;

/** What open jobs want and have no piece for, and every part that lies in a drawer, is on its way or went out lately. */
export async function loadOrderBasis(scope: Scope): Promise<OrderBasis> {
  const places = await scope.sql<OrderBasis["places"][number]>(
    `SELECT p.catalogue_part_id AS "cataloguePartId", j.id AS "jobId", p.position_id AS "positionId",
       j.number AS "jobNumber", o.designator
     FROM replacement_plans p JOIN positions o ON o.id = p.position_id AND o.deleted_at IS NULL
     JOIN boards b ON b.id = o.board_id AND b.deleted_at IS NULL
     JOIN jobs j ON j.id = b.job_id AND j.realm = $1 AND j.handed_over_at IS NULL
     WHERE p.catalogue_part_id IS NOT NULL AND p.stock_item_id IS NULL AND p.part_in_hand_id IS NULL
       AND NOT EXISTS (SELECT 1 FROM fitted_parts f WHERE f.position_id = o.id AND f.origin = 'replacement'
         AND f.fitted_at IS NOT NULL AND f.removed_at IS NULL)
     ORDER BY j.number, o.designator`,
    [scope.realm],
  );
  const moved = await scope.sql<Moved>(
    `WITH free AS (
       SELECT i.catalogue_part_id AS id, sum(m.count_delta - m.reserved_delta)::int AS free
       FROM stock_items i JOIN stock_movements m ON m.item_id = i.id
       WHERE i.catalogue_part_id IS NOT NULL AND i.set_aside_reason IS NULL GROUP BY 1),
     used AS (
       SELECT i.catalogue_part_id AS id, -sum(m.count_delta)::int AS used
       FROM stock_items i JOIN stock_movements m ON m.item_id = i.id
       WHERE i.catalogue_part_id IS NOT NULL AND m.kind IN ('fitted', 'put_back')
         AND m.at > $1::timestamptz - make_interval(days => ${usedDays}) GROUP BY 1),
     coming AS (
       SELECT id, sum(greatest(count - came, 0))::int AS coming FROM (
         SELECT l.catalogue_part_id AS id, l.count, coalesce(sum(m.count_delta), 0) AS came
         FROM order_lines l JOIN orders o ON o.id = l.order_id AND NOT o.is_closed
         LEFT JOIN stock_movements m ON m.order_line_id = l.id GROUP BY l.id) lines GROUP BY id)
     SELECT coalesce(free.id, used.id, coming.id) AS id, coalesce(free, 0) AS free, coalesce(used, 0) AS used,
       coalesce(coming, 0) AS coming
     FROM free FULL JOIN used ON used.id = free.id FULL JOIN coming ON coming.id = coalesce(free.id, used.id)`,
    [scope.now],
  );
  const movedOf = new Map(moved.map((one) => [one.id, one]));
  // What lies there untouched and is wanted by nobody asks for nothing.
  const ids = new Set([
    ...places.map((one) => one.cataloguePartId),
    ...moved.filter((one) => one.used > 0 || one.coming > 0).map((one) => one.id),
  ]);
  const parts = await cataloguePartsOf(scope, [...ids]);
  return { places, parts: parts.map((part) => toBasis(part, movedOf.get(part.id))) };
}

interface Moved {
  readonly id: string;
  readonly free: number;
  readonly used: number;
  readonly coming: number;
}

function toBasis(part: CatalogueRow, moved: Moved | undefined): OrderBasis["parts"][number] {
  return {
    ...{ part, cataloguePartId: part.id, priceMinor: part.priceMinor, usedDays },
    ...{ free: moved?.free ?? 0, onOrder: moved?.coming ?? 0, usedCount: Math.max(0, moved?.used ?? 0) },
  };
}

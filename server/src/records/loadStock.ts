import type { StockItem, StockItemDetail, StockMovementRow } from "@pale-cap/contract";
import { Op } from "sequelize";
import type { CataloguePartRow } from "../database/models/catalogueParts";
import type { StockItemRow } from "../database/models/stockItems";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { grouped, onWire } from "./loadJobs";

interface Sums {
  readonly id: string;
  readonly count: number;
  readonly reserved: number;
}

/** Every heap of the shop with its sums and what was read of it. */
export async function loadStock(scope: Scope): Promise<readonly StockItem[]> {
  const items = await scope.rows.stockItems.all({}, [
    ["drawer", "ASC"],
    ["id", "ASC"],
  ]);
  return toItems(scope, items);
}

async function toItems(scope: Scope, items: readonly StockItemRow[]): Promise<StockItem[]> {
  const ids = items.map((one) => one.id);
  const sums = await scope.sql<Sums>(
    `SELECT item_id AS id, sum(count_delta)::int AS count, sum(reserved_delta)::int AS reserved
     FROM stock_movements WHERE item_id = ANY($1::uuid[]) GROUP BY item_id`,
    [ids],
  );
  const partIds = items.flatMap((one) => one.cataloguePartId ?? []);
  const parts = await scope.rows.catalogueParts.all({ id: { [Op.in]: partIds } }, [["id", "ASC"]]);
  const acts = await scope.rows.stockActs.all({ itemId: { [Op.in]: ids } }, [["sequence", "ASC"]]);
  const [sumOf, partOf] = [new Map(sums.map((one) => [one.id, one])), new Map(parts.map((one) => [one.id, one]))];
  const actsOf = grouped(acts, (one) => one.itemId);
  return items.map((item) => {
    const { count, reserved } = sumOf.get(item.id) ?? { count: 0, reserved: 0 };
    const part = item.cataloguePartId === null ? undefined : partOf.get(item.cataloguePartId);
    const own = (actsOf.get(item.id) ?? []).map(({ sequence: _, personId: __, ...act }) => act);
    return onWire({
      ...item,
      count,
      reserved,
      free: count - reserved,
      marking: markingOf(item, part),
      acts: own,
    }) as StockItem;
  });
}

function markingOf({ marking }: StockItemRow, part: CataloguePartRow | undefined): StockItem["marking"] {
  const unknown = {
    maker: null,
    orderCode: null,
    esrOhms: null,
    rippleAmpsRms: null,
    ratedLifeHours: null,
    priceMinor: null,
  };
  if (marking) return { ...marking, ...unknown };
  if (!part) throw new Error("A heap belongs to a part of the catalogue or has a marking.");
  const { id: _, printed: __, source: ___, ...rest } = part;
  return rest;
}

/** One heap with all that ever moved in it, or 404. */
export async function loadStockItem(scope: Scope, id: string): Promise<StockItemDetail> {
  const row = await scope.rows.stockItems.first({ id });
  if (!row) throw new HttpProblem("not_found", "These parts are in no drawer.");
  const [item] = await toItems(scope, [row]);
  const movements = await scope.sql<StockMovementRow>(
    `SELECT m.id, m.kind, m.count_delta AS "countDelta", m.reserved_delta AS "reservedDelta", m.note, m.at,
       j.number AS "jobNumber", p.designator
     FROM stock_movements m LEFT JOIN positions p ON p.id = m.position_id LEFT JOIN boards b ON b.id = p.board_id
     LEFT JOIN jobs j ON j.id = b.job_id WHERE m.item_id = $1 ORDER BY m.sequence DESC LIMIT 500`,
    [id],
  );
  return { ...(item as StockItem), movements: onWire(movements) as StockMovementRow[] };
}

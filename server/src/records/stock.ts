import { randomUUID } from "node:crypto";
import {
  looseCharge,
  looseChargeActs,
  type MovementKind,
  type MovementRefusal,
  mayGoInDrawer,
  movementOf,
  type StockSums,
} from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { loadRuleValues } from "./rules";

/** What moves, and what it belongs to. */
export interface StockMove {
  readonly itemId: string;
  readonly kind: MovementKind;
  readonly pieces: number;
  readonly id?: string;
  readonly positionId?: string | null;
  readonly orderLineId?: string | null;
  readonly note?: string | null;
}

/**
 * Moves pieces of one heap. Its row is held while its sums are read and added to, so two benches cannot take the last one
 * twice.
 *
 * @throws {HttpProblem} where a sum would fall below zero: nothing was moved
 */
export async function moveStock(scope: Scope, move: StockMove): Promise<void> {
  const { itemId, positionId = null } = move;
  const item = await scope.rows.stockItems.locked({ id: itemId });
  if (!item) throw new HttpProblem("not_found", "These parts are in no drawer any more.");
  const sums = await sumsOf(scope, itemId);
  const isReserved = positionId !== null && (await isReservedFor(scope, itemId, positionId, move.kind));
  const moved = movementOf(move.kind, move.pieces, sums, isReserved);
  if (typeof moved === "string") throw new HttpProblem("conflict", await refusalWords(scope, moved, itemId, sums));
  await scope.rows.stockMovements.insert({
    ...moved,
    ...{ id: move.id ?? randomUUID(), itemId, kind: move.kind, positionId },
    ...{ orderLineId: move.orderLineId ?? null, note: move.note ?? null, at: scope.now, personId: scope.personId },
  });
}

/** A fitted piece takes its promise with it; one that is put back brings it where its place still wants it. */
async function isReservedFor(scope: Scope, itemId: string, positionId: string, kind: MovementKind): Promise<boolean> {
  if (kind === "put_back") return scope.rows.replacementPlans.has({ positionId, stockItemId: itemId });
  return (await promisedTo(scope, itemId, positionId)) > 0;
}

async function promisedTo(scope: Scope, itemId: string, positionId: string): Promise<number> {
  const [row] = await scope.sql<{ sum: number }>(
    "SELECT coalesce(sum(reserved_delta), 0)::int AS sum FROM stock_movements WHERE item_id = $1 AND position_id = $2",
    [itemId, positionId],
  );
  return row?.sum ?? 0;
}

async function sumsOf(scope: Scope, itemId: string): Promise<StockSums> {
  const [row] = await scope.sql<{ count: number; reserved: number }>(
    `SELECT coalesce(sum(count_delta), 0)::int AS count, coalesce(sum(reserved_delta), 0)::int AS reserved
     FROM stock_movements WHERE item_id = $1`,
    [itemId],
  );
  const { count, reserved } = row ?? { count: 0, reserved: 0 };
  return { count, reserved, free: count - reserved };
}

async function refusalWords(
  scope: Scope,
  refusal: MovementRefusal,
  itemId: string,
  { count, free }: StockSums,
): Promise<string> {
  if (refusal === "not_whole") return "So many pieces cannot be moved. Nothing was changed.";
  if (refusal === "none_left") return `Only ${count} lie there. Nothing was changed.`;
  if (refusal === "not_reserved") return "None of it is promised to this place. Nothing was changed.";
  const jobs = await promisedJobs(scope, itemId);
  if (free === 0) return `None of it is free: it is promised to ${jobs}. Nothing was changed.`;
  return `Only ${free} of it ${free === 1 ? "is" : "are"} free: the rest is promised to ${jobs}. Nothing was changed.`;
}

async function promisedJobs(scope: Scope, itemId: string): Promise<string> {
  const rows = await scope.sql<{ number: number; designator: string }>(
    `SELECT j.number, p.designator FROM stock_movements m JOIN positions p ON p.id = m.position_id
     JOIN boards b ON b.id = p.board_id JOIN jobs j ON j.id = b.job_id
     WHERE m.item_id = $1 GROUP BY j.number, p.id, p.designator HAVING sum(m.reserved_delta) > 0
     ORDER BY j.number, p.designator LIMIT 6`,
    [itemId],
  );
  if (rows.length === 0) return "other work";
  return rows.map((one) => `job ${String(one.number).padStart(4, "0")} ${one.designator}`).join(", ");
}

/** Whether a place can take a piece: one that is promised to it, or one that is free. */
export async function canTake(scope: Scope, itemId: string, positionId: string): Promise<boolean> {
  await scope.rows.stockItems.locked({ id: itemId });
  return (await promisedTo(scope, itemId, positionId)) > 0 || (await sumsOf(scope, itemId)).free > 0;
}

/** The oldest heap of a catalogue part that has a piece free; one that may hold charge only where no other has. */
export async function freeItemOf(scope: Scope, cataloguePartId: string): Promise<string | null> {
  const rows = await scope.sql<{ id: string }>(
    `SELECT i.id FROM stock_items i JOIN stock_movements m ON m.item_id = i.id
     WHERE i.catalogue_part_id = $1 AND i.set_aside_reason IS NULL
     GROUP BY i.id HAVING sum(m.count_delta) - sum(m.reserved_delta) > 0 ORDER BY min(m.sequence)`,
    [cataloguePartId],
  );
  for (const { id } of rows) {
    if (!(await mayHoldCharge(scope, id))) return id;
  }
  return rows[0]?.id ?? null;
}

/** Volts stood on one of a heap, and nothing logged shows that they are gone. */
async function mayHoldCharge(scope: Scope, itemId: string): Promise<boolean> {
  const { "charge.workingVolts": lowVolts } = await loadRuleValues(scope);
  const acts = await scope.rows.stockActs.all({ itemId }, [["sequence", "ASC"]]);
  return !mayGoInDrawer(looseCharge(looseChargeActs(acts), lowVolts));
}

/** Promises one piece of a heap to a place. */
export async function reserveFor(scope: Scope, itemId: string, positionId: string): Promise<void> {
  const item = await scope.rows.stockItems.first({ id: itemId });
  if (item?.setAsideReason) {
    throw new HttpProblem("conflict", `These are kept apart: ${item.setAsideReason}. Nothing was changed.`);
  }
  if (await mayHoldCharge(scope, itemId)) {
    throw new HttpProblem(
      "conflict",
      "One of these may hold charge: volts stood on it, and two low readings after draining are not logged yet. Nothing was changed.",
    );
  }
  await moveStock(scope, { itemId, kind: "reserved", pieces: 1, positionId });
}

/** Gives back what is promised to a place; nothing where nothing is. */
export async function releaseOf(scope: Scope, positionId: string): Promise<void> {
  const rows = await scope.sql<{ itemId: string; sum: number }>(
    `SELECT item_id AS "itemId", sum(reserved_delta)::int AS sum FROM stock_movements WHERE position_id = $1
     GROUP BY item_id HAVING sum(reserved_delta) > 0`,
    [positionId],
  );
  for (const { itemId, sum } of rows) await moveStock(scope, { itemId, kind: "released", pieces: sum, positionId });
}

/** A closed job keeps no promise: what was not fitted is free again. */
export async function releaseJob(scope: Scope, jobId: string): Promise<void> {
  const rows = await scope.sql<{ positionId: string }>(
    `SELECT m.position_id AS "positionId" FROM stock_movements m JOIN positions p ON p.id = m.position_id
     JOIN boards b ON b.id = p.board_id WHERE b.job_id = $1
     GROUP BY m.position_id HAVING sum(m.reserved_delta) > 0 ORDER BY m.position_id`,
    [jobId],
  );
  for (const { positionId } of rows) await releaseOf(scope, positionId);
}

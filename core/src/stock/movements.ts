/** What happens to the pieces of one item of a drawer. */
export const movementKinds = ["received", "fitted", "put_back", "scrapped", "counted", "reserved", "released"] as const;
export type MovementKind = (typeof movementKinds)[number];

/** How a movement changes the two sums of an item. */
export interface StockMovement {
  readonly countDelta: number;
  readonly reservedDelta: number;
}

export interface StockSums {
  readonly count: number;
  readonly reserved: number;
  /** Count less what is promised. */
  readonly free: number;
}

/** Both sums over all movements of an item; their order does not matter. */
export function stockSums(movements: readonly StockMovement[]): StockSums {
  const count = movements.reduce((sum, one) => sum + one.countDelta, 0);
  const reserved = movements.reduce((sum, one) => sum + one.reservedDelta, 0);
  return { count, reserved, free: count - reserved };
}

export type MovementRefusal = "not_whole" | "none_left" | "promised_elsewhere" | "not_reserved";

/**
 * A movement as its deltas, or why it cannot be: no sum ever falls below zero, and what is promised to a job is not taken by
 * another.
 *
 * @param pieces how many; for `counted` how many were found; whole
 * @param isReserved for `fitted` and `put_back`: whether the piece is promised to the place that it goes in or comes from
 */
export function movementOf(
  kind: MovementKind,
  pieces: number,
  sums: StockSums,
  isReserved = false,
): StockMovement | MovementRefusal {
  if (!Number.isInteger(pieces) || pieces < (kind === "counted" ? 0 : 1)) return "not_whole";
  const deltas = deltasOf(kind, pieces, sums, isReserved);
  const after = { count: sums.count + deltas.countDelta, reserved: sums.reserved + deltas.reservedDelta };
  if (after.count < 0) return "none_left";
  if (after.reserved < 0) return "not_reserved";
  if (after.count >= after.reserved) return deltas;
  return sums.count < pieces && kind !== "counted" ? "none_left" : "promised_elsewhere";
}

function deltasOf(kind: MovementKind, pieces: number, sums: StockSums, isReserved: boolean): StockMovement {
  const ofReserved = isReserved ? pieces : 0;
  switch (kind) {
    case "received":
      return { countDelta: pieces, reservedDelta: 0 };
    case "fitted":
      return { countDelta: -pieces, reservedDelta: -ofReserved };
    case "put_back":
      return { countDelta: pieces, reservedDelta: ofReserved };
    case "scrapped":
      return { countDelta: -pieces, reservedDelta: 0 };
    case "counted":
      return { countDelta: pieces - sums.count, reservedDelta: 0 };
    case "reserved":
      return { countDelta: 0, reservedDelta: pieces };
    case "released":
      return { countDelta: 0, reservedDelta: -pieces };
  }
}

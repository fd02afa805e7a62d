import type { BoardPosition } from "../board/board";
import { tradeConstants } from "../constants/tradeConstants";
import type { BankQuestion } from "./bankChoice";
import { placeRoom } from "./placeRoom";
import type { Surroundings } from "./surroundings";

const { bodyClearanceMetres } = tradeConstants.replacement;
const directions = [0, 45, 90, 135, 180, 225, 270, 315] as const;
/** From the smallest can of the trade in steps to the largest that is worth sharing a place. */
const [leastMetres, mostMetres, stepMetres] = [4e-3, 18e-3, 0.5e-3];

/** Where a second can stands beside the one of a place, on wires to the same two holes. */
export interface SharedPlace {
  /** Of each of the two. */
  readonly diameterMaxMetres: number;
  readonly xMetres: number;
  readonly yMetres: number;
  /** Over the second; null: the drawing does not say. */
  readonly heightMaxMetres: number | null;
}

/**
 * Room for two equal cans at one place: the first over its holes, the second beside it in the best of eight directions, both
 * clear of what stays and of the other places of the rail, which are filled too. Geometry, to half a millimetre below.
 *
 * @param others places of the rail that are filled with it
 * @returns null where the place or what stands around it is not drawn, or no two cans of 4 mm have room
 */
export function sharedPlace(
  position: BoardPosition,
  others: readonly BoardPosition[],
  around: Surroundings,
): SharedPlace | null {
  const { xMetres: x, yMetres: y } = position;
  if (x === null || y === null) return null;
  const [boardX, boardY] = [around.lid?.widthMetres ?? null, around.lid?.depthMetres ?? null];
  const roomAt = (px: number, py: number) => {
    const here = placeRoom({ ...position, xMetres: px, yMetres: py }, around);
    const shared = others.flatMap((one) =>
      one.id === position.id || one.xMetres === null || one.yMetres === null
        ? []
        : [Math.hypot(one.xMetres - px, one.yMetres - py) - bodyClearanceMetres],
    );
    return { ...here, diameterMetres: Math.min(here.diameterMaxMetres ?? mostMetres, ...shared) };
  };
  const isOnBoard = (px: number, py: number, radius: number) =>
    px >= radius &&
    py >= radius &&
    (boardX === null || px + radius <= boardX) &&
    (boardY === null || py + radius <= boardY);
  const own = roomAt(x, y);
  if (own.diameterMaxMetres === null) return null;
  let best: SharedPlace | null = null;
  for (const degrees of directions) {
    const [ux, uy] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    for (let d = leastMetres; d <= Math.min(mostMetres, own.diameterMetres); d += stepMetres) {
      const [px, py] = [x + ux * (d + bodyClearanceMetres), y + uy * (d + bodyClearanceMetres)];
      const there = roomAt(px, py);
      if (there.diameterMetres < d || !isOnBoard(px, py, d / 2) || d <= (best?.diameterMaxMetres ?? 0)) continue;
      best = { diameterMaxMetres: d, xMetres: px, yMetres: py, heightMaxMetres: there.heightMaxMetres };
    }
  }
  return best;
}

/** A bank's question in which one place holds two cans; the second stands last among its places. */
export interface SharedQuestion {
  readonly at: number;
  readonly second: SharedPlace;
  readonly places: BankQuestion["places"];
}

/** One question more for each place of a bank that has room for two cans. */
export function sharedQuestions(
  positions: readonly BoardPosition[],
  places: BankQuestion["places"],
  around: Surroundings,
): readonly SharedQuestion[] {
  const emptyIds = new Set([...around.emptyIds, ...positions.map((one) => one.id)]);
  return positions.flatMap((position, at) => {
    const place = places[at];
    const second = sharedPlace(position, positions, { ...around, emptyIds });
    if (!place || !second) return [];
    const diameterMaxMetres = Math.min(place.diameterMaxMetres, second.diameterMaxMetres);
    const halved = { ...place, diameterMaxMetres };
    const heightMaxMetres = Math.min(place.heightMaxMetres, second.heightMaxMetres ?? place.heightMaxMetres);
    // The second hangs on wires: its own pitch is whatever it is.
    const beside = { diameterMaxMetres, heightMaxMetres, pitchMetres: null, mayStayEmpty: true };
    return [{ at, second, places: [...places.map((one, n) => (n === at ? halved : one)), beside] }];
  });
}

import { requirePositive } from "../numerics/requireRange";

/** Where a board editor's list has a part: from an origin of its own, on the side that it says, if it says one. */
export interface RawPlacement {
  readonly xMetres: number;
  readonly yMetres: number;
  readonly side: "top" | "bottom" | null;
}

/** What the list does not say of itself, and a person sees in the preview. */
export interface PlacementView {
  /** Its y counts upward, as in a drawing; a board here counts downward. */
  readonly isYUp: boolean;
  /** Parts of the lower side stand as seen from below: their x is mirrored. */
  readonly isBottomMirrored: boolean;
}

/** `corner`: the list counts from a corner of the board; `centred`: from elsewhere, so that its middle is laid on the board's. */
export type PlacementOrigin = "corner" | "centred";

export interface FittedPlacements<T> {
  readonly rows: readonly T[];
  readonly origin: PlacementOrigin;
  /** How many lie beside the board even so. */
  readonly outsideCount: number;
}

/** A part's middle may stand a little over the edge: connectors do. */
const edgeMetres = 1e-3;

/**
 * Places of a board editor's list on a board that counts from its upper left corner, x to the right and y down, seen from above.
 *
 *     y = depth - y'  or  y',   x = width - x'  for a mirrored lower side, -x' where that is written negative
 *
 * Where that puts a part beside the board the origin lies elsewhere: the middle of all is laid on the middle of the board, and the
 * person sees it before anything is placed. Geometry, exact.
 *
 * @throws {OutOfRangeError} for a board without size
 */
export function fitPlacements<T extends RawPlacement>(
  rows: readonly T[],
  board: { readonly widthMetres: number; readonly depthMetres: number },
  view: PlacementView,
): FittedPlacements<T> {
  const { widthMetres, depthMetres } = board;
  requirePositive("widthMetres", widthMetres);
  requirePositive("depthMetres", depthMetres);
  const below = rows.filter((one) => one.side === "bottom");
  const mirrorAt = below.some((one) => one.xMetres < 0) ? 0 : widthMetres;
  const turned = rows.map((one) => ({
    ...one,
    xMetres: view.isBottomMirrored && one.side === "bottom" ? mirrorAt - one.xMetres : one.xMetres,
    yMetres: view.isYUp ? depthMetres - one.yMetres : one.yMetres,
  }));
  const isOn = ({ xMetres: x, yMetres: y }: RawPlacement) =>
    x >= -edgeMetres && x <= widthMetres + edgeMetres && y >= -edgeMetres && y <= depthMetres + edgeMetres;
  if (turned.every(isOn)) return { rows: turned.map((one) => onBoard(one, board)), origin: "corner", outsideCount: 0 };
  const middle = (values: readonly number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  const byX = widthMetres / 2 - middle(turned.map((one) => one.xMetres));
  const byY = depthMetres / 2 - middle(turned.map((one) => one.yMetres));
  const moved = turned.map((one) => ({ ...one, xMetres: one.xMetres + byX, yMetres: one.yMetres + byY }));
  return {
    rows: moved.map((one) => (isOn(one) ? onBoard(one, board) : one)),
    origin: "centred",
    outsideCount: moved.filter((one) => !isOn(one)).length,
  };
}

/** What stands a hair over the edge stands on it. */
function onBoard<T extends RawPlacement>(
  one: T,
  board: { readonly widthMetres: number; readonly depthMetres: number },
): T {
  const within = (value: number, most: number) => Math.min(Math.max(value, 0), most);
  return { ...one, xMetres: within(one.xMetres, board.widthMetres), yMetres: within(one.yMetres, board.depthMetres) };
}

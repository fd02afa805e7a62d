import { OutOfRangeError } from "../errors";
import type { Point } from "./board";

/** Two points of a photo and where they lie on the board. */
export interface PhotoAlignment {
  readonly fromPixels: Point;
  readonly toPixels: Point;
  readonly fromMetres: Point;
  readonly toMetres: Point;
}

/** x = a u - b v + e, y = b u + a v + f: turned, scaled and moved, never sheared. Pixels to metres. */
export interface Similarity {
  readonly a: number;
  readonly b: number;
  readonly e: number;
  readonly f: number;
}

/**
 * The one similarity that takes two points of a photo to two points of the board.
 *
 *     a + jb = (P2 - P1) / (p2 - p1),  e + jf = P1 - (a + jb) p1   (complex)
 *
 * Valid for a photo taken square to the board: perspective is not undone.
 *
 * @throws {OutOfRangeError} two points that are the same, on the photo or on the board
 */
export function photoPlacement({ fromPixels, toPixels, fromMetres, toMetres }: PhotoAlignment): Similarity {
  const [u, v] = [toPixels[0] - fromPixels[0], toPixels[1] - fromPixels[1]];
  const [x, y] = [toMetres[0] - fromMetres[0], toMetres[1] - fromMetres[1]];
  const squared = u * u + v * v;
  if (!(squared > 0) || !(Math.hypot(x, y) > 0)) throw new OutOfRangeError("points", 0, "two different points");
  const a = (x * u + y * v) / squared;
  const b = (y * u - x * v) / squared;
  const [p, q] = fromPixels;
  return { a, b, e: fromMetres[0] - (a * p - b * q), f: fromMetres[1] - (b * p + a * q) };
}

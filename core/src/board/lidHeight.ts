import { requireFinite } from "../numerics/requireRange";
import type { LidZone } from "./board";

/**
 * Room under the lid at a place: the lowest of the zones that cover it, else the lid's own height; null while unknown.
 *
 * @throws {OutOfRangeError} a place that is not finite
 */
export function lidHeightAtMetres(
  board: { readonly lidHeightMetres: number | null; readonly lidZones: readonly LidZone[] },
  xMetres: number,
  yMetres: number,
): number | null {
  requireFinite("xMetres", xMetres);
  requireFinite("yMetres", yMetres);
  const over = board.lidZones.filter(
    (zone) =>
      xMetres >= zone.xMetres &&
      xMetres <= zone.xMetres + zone.widthMetres &&
      yMetres >= zone.yMetres &&
      yMetres <= zone.yMetres + zone.depthMetres,
  );
  return over.length > 0 ? Math.min(...over.map((zone) => zone.heightMetres)) : board.lidHeightMetres;
}

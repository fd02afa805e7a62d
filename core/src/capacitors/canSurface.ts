/**
 * Cooling surface of a radial can: side wall plus one end (the other end sits on the board).
 *
 *     S = pi D L + pi D^2 / 4
 *
 * @param diameterMetres above 0
 * @param heightMetres above 0
 * @returns square metres
 */
export function canSurfaceSquareMetres(diameterMetres: number, heightMetres: number): number {
  return Math.PI * diameterMetres * heightMetres + (Math.PI * diameterMetres ** 2) / 4;
}

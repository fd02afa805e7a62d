/** One point of a table, argument first. */
export type TableRow = readonly [number, number];

/**
 * Piecewise linear interpolation over rows with ascending argument; constant outside the ends.
 *
 * @param rows at least one row
 */
export function interpolate(x: number, rows: readonly TableRow[]): number {
  const first = rows[0] as TableRow;
  if (x <= first[0]) return first[1];
  for (let i = 1; i < rows.length; i++) {
    const [x1, y1] = rows[i] as TableRow;
    if (x <= x1) {
      const [x0, y0] = rows[i - 1] as TableRow;
      return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
    }
  }
  return (rows[rows.length - 1] as TableRow)[1];
}

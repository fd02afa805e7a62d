import type { BoardPosition } from "./board";

interface Spot {
  readonly id: string;
  readonly x: number;
  readonly y: number;
}

/**
 * An order in which to walk over a board's parts: from the one nearest to the mains corner (upper left), always on to
 * the nearest that is left, then untangled by reversing stretches as long as that shortens the way (2-opt). Parts without
 * a place come last, as they were entered. For some sixty parts; effort grows with the cube.
 *
 * @returns ids, each once
 */
export function walkOrder(positions: readonly BoardPosition[]): readonly string[] {
  const spots = positions.flatMap((one): Spot[] =>
    one.xMetres === null || one.yMetres === null ? [] : [{ id: one.id, x: one.xMetres, y: one.yMetres }],
  );
  const placed = new Set(spots.map((one) => one.id));
  const loose = positions.filter((one) => !placed.has(one.id)).map((one) => one.id);
  return [...untangled(nearestFirst(spots)).map((one) => one.id), ...loose];
}

const distance = (a: Spot, b: Spot) => Math.hypot(a.x - b.x, a.y - b.y);

function nearestFirst(spots: readonly Spot[]): readonly Spot[] {
  const left = [...spots];
  const walk: Spot[] = [];
  let here: Spot = { id: "", x: 0, y: 0 };
  while (left.length > 0) {
    let best = 0;
    for (const [index, spot] of left.entries()) {
      if (distance(here, spot) < distance(here, left[best] as Spot)) best = index;
    }
    [here] = left.splice(best, 1) as [Spot];
    walk.push(here);
  }
  return walk;
}

/** Turns stretches round while the two new steps are shorter than the two old ones; the start stays. */
function untangled(walk: readonly Spot[]): readonly Spot[] {
  const way = [...walk];
  const gain = (from: number, to: number) => {
    const [a, b, c, d] = [way[from - 1], way[from], way[to], way[to + 1]] as [Spot, Spot, Spot, Spot | undefined];
    const old = distance(a, b) + (d ? distance(c, d) : 0);
    return old - distance(a, c) - (d ? distance(b, d) : 0);
  };
  // Each turn shortens the way, so this ends; the bound only keeps a rounding error from going round for ever.
  for (let round = 0; round < 20; round++) {
    let hasTurned = false;
    for (let from = 1; from < way.length - 1; from++) {
      for (let to = from + 1; to < way.length; to++) {
        if (gain(from, to) <= 1e-9) continue;
        way.splice(from, to - from + 1, ...way.slice(from, to + 1).reverse());
        hasTurned = true;
      }
    }
    if (!hasTurned) break;
  }
  return way;
}

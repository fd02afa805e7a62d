/** A box on the drawing, in pixels. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** A can with what is written beside it, in pixels. */
export interface Labelled {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly name: string;
  /** The second line: what it holds, or what is noted of it. */
  readonly value: string;
}

/** Where the middle of a name stands, from the middle of its can; its baseline. */
export interface LabelSpot {
  readonly x: number;
  readonly y: number;
  /** Whether there is room for the second line. */
  readonly hasValue: boolean;
}

/** Widths of the two lines' letters, and what a line takes. Rough: of the fonts that are drawn with. */
const type = { nameWidth: 8, valueWidth: 7, ascent: 11, line: 13, gap: 7 } as const;

/**
 * A place for every name where it covers least: below its can, above, right or left of it, in this order where two are as
 * good. A second line stands only where it covers nothing.
 *
 * @param obstacles what else is drawn on the board
 */
export function labelSpots(cans: readonly Labelled[], obstacles: readonly Box[]): ReadonlyMap<string, LabelSpot> {
  const spots = new Map<string, LabelSpot>();
  const circles = cans.map(({ id, x, y, radius }) => ({
    id,
    box: { left: x - radius, top: y - radius, width: 2 * radius, height: 2 * radius },
  }));
  const taken: Box[] = [...obstacles];
  const inOrder = [...cans].sort((a, b) => a.y - b.y || a.x - b.x);
  for (const can of inOrder) {
    const others = [...taken, ...circles.filter((one) => one.id !== can.id).map((one) => one.box)];
    const cover = (box: Box) => others.reduce((sum, one) => sum + overlap(box, one), 0);
    const half = (can.name.length * type.nameWidth) / 2;
    const aside = can.radius + type.gap + half;
    const places = [
      { x: 0, y: can.radius + type.gap + type.ascent },
      { x: 0, y: -can.radius - type.gap },
      { x: aside, y: 4 },
      { x: -aside, y: 4 },
    ];
    let best = places[0] as (typeof places)[number];
    for (const place of places) {
      if (cover(nameBox(can, place)) < cover(nameBox(can, best)) - 1e-6) best = place;
    }
    const [name, value] = [nameBox(can, best), valueBox(can, best)];
    // Only below its can is there a place for two lines.
    const hasValue = best === places[0] && cover(value) === 0;
    spots.set(can.id, { ...best, hasValue });
    taken.push(name, ...(hasValue ? [value] : []));
  }
  return spots;
}

const nameBox = (can: Labelled, { x, y }: { readonly x: number; readonly y: number }): Box => ({
  left: can.x + x - (can.name.length * type.nameWidth) / 2,
  top: can.y + y - type.ascent,
  width: can.name.length * type.nameWidth,
  height: type.line,
});

const valueBox = (can: Labelled, { x, y }: { readonly x: number; readonly y: number }): Box => ({
  left: can.x + x - (can.value.length * type.valueWidth) / 2,
  top: can.y + y - type.ascent + type.line,
  width: can.value.length * type.valueWidth,
  height: type.line,
});

/** Square pixels that two boxes share. */
function overlap(a: Box, b: Box): number {
  const wide = Math.min(a.left + a.width, b.left + b.width) - Math.max(a.left, b.left);
  const high = Math.min(a.top + a.height, b.top + b.height) - Math.max(a.top, b.top);
  return wide > 0 && high > 0 ? wide * high : 0;
}

/** How far letters have to shrink so that a name fits its outline; never below what can be read at all. */
export function outlineNameScale(name: string, widthPixels: number): number {
  return Math.min(1, Math.max(widthPixels / (name.length * type.valueWidth + 4), 0.7));
}

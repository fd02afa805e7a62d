/** A number that was hardly meant in the unit that it was understood in. */
export interface UnitSlip {
  /** As it was understood. */
  readonly value: number;
  /** A thousand times larger or smaller: what may have been meant. */
  readonly other: number;
}

/**
 * Whether a bare number for an ESR slipped by a thousand: it lies below half the lowest that a new part can have, or a
 * thousandth of it lies in the new part's band. A number with its unit, or from an instrument, is believed. Bench habit.
 *
 * @param band of a new part where the reading is taken, in ohms
 * @returns null where nothing speaks for a slip
 */
export function unitSlip(value: number, band: { readonly low: number; readonly high: number } | null): UnitSlip | null {
  if (!band || !(value > 0)) return null;
  if (value < band.low / 2) return { value, other: value * 1000 };
  const smaller = value / 1000;
  return smaller >= band.low && smaller <= band.high ? { value, other: smaller } : null;
}

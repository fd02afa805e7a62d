import { requirePositive } from "../numerics/requireRange";

/**
 * The range to set a meter to: the smallest of 2, 20, 200 ... times a power of ten that holds twice the expected value, so
 * that a worn part still reads.
 *
 * @param expectedHigh upper end of the expected band, above 0
 * @throws {OutOfRangeError} if it is not finite and above 0
 * @example meterRange(0.046) // 0.2
 */
export function meterRange(expectedHigh: number): number {
  const wanted = 2 * requirePositive("expectedHigh", expectedHigh);
  const exponent = Math.ceil(Math.log10(wanted / 2) - 1e-12);
  return Number(`2e${exponent}`);
}

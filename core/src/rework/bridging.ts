import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";

/** Copper wire in the open, by cross-section, with what it carries here. Usual. */
const wires: readonly (readonly [squareMetres: number, amps: number])[] = [
  [0.25e-6, 2.5],
  [0.5e-6, 5],
  [1e-6, 8],
];
const squareMilMetres = 2.54e-5 ** 2;
const usualCopperMetres = 35e-6;

/**
 * The thinnest wire that bridges a trace for a current.
 *
 * @returns its cross-section; null where two are wanted
 * @example bridgingWire(3.2) // 0.5e-6
 */
export function bridgingWire(amps: number): number | null {
  requirePositive("amps", amps);
  return wires.find(([, most]) => amps <= most + 1e-12)?.[0] ?? null;
}

/** What a wire of a cross-section carries; null below the thinnest that is known. */
export function wireAmps(squareMetres: number): number | null {
  requirePositive("squareMetres", squareMetres);
  return wires.filter(([least]) => squareMetres >= least * (1 - 1e-9)).at(-1)?.[1] ?? null;
}

/**
 * What an outer trace carries.
 *
 *     I = 0.048 dT^0.44 A^0.725, A in square mils (IPC-2221, external conductors)
 *
 * Usual, for widths to 10 mm and 10 to 100 K.
 *
 * @example traceAmps(2e-3) // 3.95
 */
export function traceAmps(widthMetres: number, riseKelvin = 10, copperMetres = usualCopperMetres): number {
  requirePositive("widthMetres", widthMetres);
  requirePositive("copperMetres", copperMetres);
  if (!(riseKelvin >= 1 && riseKelvin <= 100)) throw new OutOfRangeError("riseKelvin", riseKelvin, "from 1 to 100");
  return 0.048 * riseKelvin ** 0.44 * ((widthMetres * copperMetres) / squareMilMetres) ** 0.725;
}

/** The width that carries a current; the inverse of `traceAmps`. */
export function traceWidthMetres(amps: number, riseKelvin = 10, copperMetres = usualCopperMetres): number {
  requirePositive("amps", amps);
  return ((amps / (0.048 * riseKelvin ** 0.44)) ** (1 / 0.725) * squareMilMetres) / copperMetres;
}

import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";
import { canSurfaceSquareMetres } from "./canSurface";
import type { LiquidCapacitorClass } from "./capacitorClass";

export interface CanImpedance {
  /** Catalogue maximum |Z| at 100 kHz, 20 degrees C. */
  readonly impedanceMaxOhms: number;
  /** Catalogue ripple rating at 105 degrees C, 100 kHz. */
  readonly ratedRippleAmpsRms: number;
  readonly source: "table" | "power_law";
}

/**
 * Maximum 100 kHz impedance and rated ripple of a can, from its size.
 *
 * A can in the table (diameter within 0.3 mm, length within 0.8 mm) takes its row; any other the power law
 * z = k D^a L^b fitted to the table. Both are scaled by class and voltage. The ripple rating follows from the surface
 * with a pseudo heat-transfer coefficient that makes catalogue ripple come out of catalogue impedance.
 * Table usual; power law +-15 %; voltage factors and gp/ultra ratios rough.
 *
 * @throws {OutOfRangeError} above 100 V rated, or where an argument is not finite and above 0
 */
export function canImpedance(
  can: {
    readonly diameterMetres: number;
    readonly heightMetres: number;
    readonly ratedVolts: number;
    readonly capacitorClass: LiquidCapacitorClass;
  },
  constants: JudgementConstants["A"] = judgementConstants.A,
): CanImpedance {
  const diameterMm = requirePositive("diameterMetres", can.diameterMetres) * 1e3;
  const heightMm = requirePositive("heightMetres", can.heightMetres) * 1e3;
  requirePositive("ratedVolts", can.ratedVolts);
  const voltRow = constants.volt_factor.find(([volts]) => can.ratedVolts <= volts);
  if (!voltRow) throw new OutOfRangeError("ratedVolts", can.ratedVolts, "at most 100 V for the can-size table");

  const row = constants.can_lowz.find(
    ([d, l]) => isWithin(diameterMm - d, constants.match_D_mm) && isWithin(heightMm - l, constants.match_L_mm),
  );
  const base = row ? row[2] : powerLawOhms(diameterMm, heightMm, constants);
  const impedanceMaxOhms = base * constants.class_ratio[can.capacitorClass] * voltRow[1];
  const surface = canSurfaceSquareMetres(can.diameterMetres, can.heightMetres);
  return {
    impedanceMaxOhms,
    ratedRippleAmpsRms: pseudoRatedRippleAmpsRms(surface, impedanceMaxOhms, constants),
    source: row ? "table" : "power_law",
  };
}

/**
 * Ripple current at which a can of this surface and resistance reaches its catalogue core rise; also used, marked as
 * assumed, for polymers and parts above 100 V.
 *
 *     I = sqrt(h S dT0 / R)
 */
export function pseudoRatedRippleAmpsRms(
  surfaceSquareMetres: number,
  resistanceOhms: number,
  constants: JudgementConstants["A"] = judgementConstants.A,
): number {
  return Math.sqrt((constants.h_pseudo * surfaceSquareMetres * constants.dT0_pseudo) / resistanceOhms);
}

/** Millimetres converted from metres carry rounding noise; 1e-9 mm of slack keeps the table's edges inclusive. */
function isWithin(differenceMm: number, limitMm: number): boolean {
  return Math.abs(differenceMm) <= limitMm + 1e-9;
}

function powerLawOhms(diameterMm: number, heightMm: number, constants: JudgementConstants["A"]): number {
  const { k, a, b } = constants.power_law;
  const z = k * diameterMm ** a * heightMm ** b;
  return diameterMm < constants.small_D_mm - 1e-9 ? z * constants.small_D_factor : z;
}

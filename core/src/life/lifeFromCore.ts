import { canSurfaceSquareMetres } from "../capacitors/canSurface";
import { seriesResistanceTemperatureFactor } from "../capacitors/seriesResistanceTemperatureFactor";
import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { bracketedRoot } from "../numerics/bracketedRoot";
import { clamp } from "../numerics/clamp";
import { interpolate } from "../numerics/interpolate";
import { requireFinite, requireNonNegative, requirePositive } from "../numerics/requireRange";

/** How a can gives off its heat: calm air, the makers' handbook values, or a coefficient in W/m2K. */
export type HeatTransfer = "still" | "handbook" | number;
export type VoltageLaw = "none" | "power" | "linear";

export interface CoreLifeQuestion {
  readonly ratedLifeHours: number;
  readonly ratedTemperatureCelsius: number;
  readonly ambientCelsius: number;
  readonly ratedCoreRiseKelvin: number;
  readonly rippleAmpsRms: number;
  readonly frequencyHertz: number;
  /** Series part at 20 degrees C and loss of the oxide, as core's expected ESR gives them. */
  readonly seriesResistance20CelsiusOhms: number;
  readonly oxideLossRatio: number;
  readonly capacitanceFarads: number;
  readonly diameterMetres: number;
  readonly heightMetres: number;
  readonly heatTransfer: HeatTransfer;
  readonly volts: number;
  readonly ratedVolts: number;
  readonly voltageLaw: VoltageLaw;
  /** Of the power law; null: the usual one of large cans. */
  readonly voltageExponent?: number | null;
}

export interface CoreLife {
  readonly coreRiseKelvin: number;
  readonly esrOhms: number;
  readonly voltageFactorRatio: number;
  readonly lifeHours: number;
  readonly cappedLifeHours: number;
}

/** No can lives to see it: a current that would heat it more has no answer. */
const highestRiseKelvin = 1e4;

/**
 * Life from the core temperature that ripple and ESR make of each other.
 *
 *     x = alpha I^2 ESR(Ta + x) / (h A),  L = L0 2^((T0 + dT0 - Ta - x)/10) Kv
 *
 * ESR falls as the core warms, so the root is unique: bracketedRoot on [0, 10,000] K. With handbook coefficients
 * ESR is taken cold, as handbooks do. Thermal part within 40 %, Kv rough.
 *
 * @throws {OutOfRangeError} volts above the rating, or values out of range
 * @throws {NoBracketError} a current that nothing but a far hotter can would balance
 */
export function lifeFromCoreTemperature(
  question: CoreLifeQuestion,
  constants: JudgementConstants["D"] = judgementConstants.D,
): CoreLife {
  const diameterMillimetres = requirePositive("diameterMetres", question.diameterMetres) * 1e3;
  const surface = canSurfaceSquareMetres(
    question.diameterMetres,
    requirePositive("heightMetres", question.heightMetres),
  );
  const alpha = interpolate(diameterMillimetres, constants.core_factor);
  const { heatTransfer } = question;
  const h =
    heatTransfer === "still"
      ? constants.h_still
      : heatTransfer === "handbook"
        ? interpolate(diameterMillimetres, constants.h_handbook)
        : requirePositive("heatTransfer", heatTransfer);
  const amps = requireNonNegative("rippleAmpsRms", question.rippleAmpsRms);
  const series = requirePositive("seriesResistance20CelsiusOhms", question.seriesResistance20CelsiusOhms);
  const oxide =
    requireNonNegative("oxideLossRatio", question.oxideLossRatio) /
    (2 *
      Math.PI *
      requirePositive("frequencyHertz", question.frequencyHertz) *
      requirePositive("capacitanceFarads", question.capacitanceFarads));
  const ambient = requireFinite("ambientCelsius", question.ambientCelsius);
  const esrAt = (rise: number) =>
    series * (heatTransfer === "handbook" ? 1 : seriesResistanceTemperatureFactor(ambient + rise).factorRatio) + oxide;
  const excess = (rise: number) => (alpha * amps ** 2 * esrAt(rise)) / (h * surface) - rise;
  const coreRiseKelvin = bracketedRoot(excess, 0, highestRiseKelvin);
  const voltageFactorRatio = voltageFactor(question, constants);
  const kelvin =
    requireFinite("ratedTemperatureCelsius", question.ratedTemperatureCelsius) +
    requireNonNegative("ratedCoreRiseKelvin", question.ratedCoreRiseKelvin) -
    ambient -
    coreRiseKelvin;
  const lifeHours =
    requirePositive("ratedLifeHours", question.ratedLifeHours) * 2 ** (kelvin / 10) * voltageFactorRatio;
  return {
    coreRiseKelvin,
    esrOhms: esrAt(coreRiseKelvin),
    voltageFactorRatio,
    lifeHours,
    cappedLifeHours: Math.min(lifeHours, constants.cap_h),
  };
}

/** What running below the rated voltage gives: nothing, v^-n, or a straight line; v held between a floor and 1. */
function voltageFactor(question: CoreLifeQuestion, constants: JudgementConstants["D"]): number {
  const rated = requirePositive("ratedVolts", question.ratedVolts);
  const volts = requirePositive("volts", question.volts);
  if (volts > rated) throw new OutOfRangeError("volts", volts, "at most the rated volts");
  const v = clamp(volts / rated, constants.kv_floor, 1);
  switch (question.voltageLaw) {
    case "none":
      return 1;
    case "power":
      return v ** -(question.voltageExponent ?? constants.kv_n_large);
    case "linear":
      return constants.kv_lin[0] - constants.kv_lin[1] * v;
  }
}

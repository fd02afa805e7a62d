import { requireNonNegative, requirePositive } from "../numerics/requireRange";
import { storedEnergyJoules } from "./discharge";

/** A filament lamp: R = Rcold (1 + alpha (T - T0)), Cth dT/dt = v^2/R - (T - T0)/Rth, starting at T0. */
export interface LampModel {
  readonly coldOhms: number;
  readonly coefficientPerKelvin: number;
  readonly ambientKelvin: number;
  readonly thermalResistanceKelvinPerWatt: number;
  readonly heatCapacityJoulesPerKelvin: number;
}

export type DrainLoad =
  | { readonly kind: "resistor"; readonly ohms: number }
  | { readonly kind: "lamp"; readonly lamp: LampModel };

export interface DrainPath {
  readonly capacitanceFarads: number;
  readonly startVolts: number;
  readonly esrOhms: number;
  /** Fixed bleeder across the store; null where there is none. */
  readonly bleederOhms: number | null;
  readonly load: DrainLoad;
}

export interface DrainCourse {
  /** Terminal voltage over time, for a curve; ends at the lowest target. */
  readonly samples: readonly { readonly seconds: number; readonly volts: number }[];
  /** When the terminals fall to each target, in the order asked; 0 where they start below it. */
  readonly secondsToTargets: readonly number[];
  readonly peakPowerWatts: number;
  readonly peakCurrentAmps: number;
  readonly loadJoules: number;
  readonly bleederJoules: number;
  readonly storedJoules: number;
  /** Hottest the filament gets; null for a resistor. */
  readonly peakKelvin: number | null;
}

/** Where a step of the integration stands: capacitor voltage, filament temperature, energies so far. */
interface State {
  readonly volts: number;
  readonly kelvin: number;
  readonly loadJoules: number;
  readonly bleederJoules: number;
}

const mostSteps = 400_000;

/**
 * Draining of a capacitor (with its own ESR) through a resistor or a lamp beside a bleeder, times by terminal voltage.
 *
 * Runge-Kutta of fourth order with steps of 1/400 of the momentary time constant, and for a lamp at most 4 K of
 * heating, so that the fast cold start and the slow tail are both followed: error below 0.1 %. A lamp starts at a
 * tenth of its hot resistance: that is its peak power, and why its fuse and contacts see far more than its rating.
 *
 * @param targetVolts at least one, each above 0
 * @throws {OutOfRangeError} values not above 0, ESR negative
 * @see lamp model of the reference cases (tungsten, alpha 0.0045 per kelvin); usual
 */
export function drainCourse(path: DrainPath, targetVolts: readonly number[]): DrainCourse {
  const C = requirePositive("capacitanceFarads", path.capacitanceFarads);
  requirePositive("startVolts", path.startVolts);
  requireNonNegative("esrOhms", path.esrOhms);
  if (path.bleederOhms !== null) requirePositive("bleederOhms", path.bleederOhms);
  if (path.load.kind === "resistor") requirePositive("ohms", path.load.ohms);
  for (const target of targetVolts) requirePositive("targetVolts", target);
  const lamp = path.load.kind === "lamp" ? path.load.lamp : null;
  const lowest = Math.min(...targetVolts);

  const loadOhms = (kelvin: number): number =>
    path.load.kind === "resistor" ? path.load.ohms : filamentOhms(path.load.lamp, kelvin);
  const parallelOhms = (kelvin: number): number => {
    const bleeder = path.bleederOhms === null ? 0 : 1 / path.bleederOhms;
    return 1 / (1 / loadOhms(kelvin) + bleeder);
  };
  const terminalVolts = (state: State): number => {
    const ohms = parallelOhms(state.kelvin);
    return (state.volts * ohms) / (ohms + path.esrOhms);
  };
  const slope = (state: State): State => {
    const v = terminalVolts(state);
    const power = v ** 2 / loadOhms(state.kelvin);
    const cooling = lamp ? (state.kelvin - lamp.ambientKelvin) / lamp.thermalResistanceKelvinPerWatt : 0;
    return {
      volts: -v / parallelOhms(state.kelvin) / C,
      kelvin: lamp ? (power - cooling) / lamp.heatCapacityJoulesPerKelvin : 0,
      loadJoules: power,
      bleederJoules: path.bleederOhms === null ? 0 : v ** 2 / path.bleederOhms,
    };
  };

  let state: State = { volts: path.startVolts, kelvin: lamp?.ambientKelvin ?? 0, loadJoules: 0, bleederJoules: 0 };
  let seconds = 0;
  let volts = terminalVolts(state);
  const samples = [{ seconds, volts }];
  const secondsToTargets = targetVolts.map((target) => (volts <= target ? 0 : Number.POSITIVE_INFINITY));
  const peakCurrentAmps = volts / loadOhms(state.kelvin);
  const peakPowerWatts = volts * peakCurrentAmps;
  let peakKelvin = state.kelvin;
  for (let step = 0; step < mostSteps && volts > lowest; step++) {
    const heating = Math.abs(slope(state).kelvin);
    const timeConstant = (parallelOhms(state.kelvin) + path.esrOhms) * C;
    const h = Math.min(timeConstant / 400, heating > 0 ? 4 / heating : Number.POSITIVE_INFINITY);
    const next = rungeKuttaStep(state, h, slope);
    const nextVolts = terminalVolts(next);
    targetVolts.forEach((target, i) => {
      if (volts <= target || nextVolts > target) return;
      // The voltage falls almost exponentially within a step: interpolate its logarithm.
      secondsToTargets[i] = seconds + (h * Math.log(volts / target)) / Math.log(volts / nextVolts);
    });
    state = next;
    seconds += h;
    volts = nextVolts;
    peakKelvin = Math.max(peakKelvin, state.kelvin);
    samples.push({ seconds, volts });
  }
  return {
    samples: thin(samples),
    secondsToTargets,
    peakPowerWatts,
    peakCurrentAmps,
    loadJoules: state.loadJoules,
    bleederJoules: state.bleederJoules,
    storedJoules: storedEnergyJoules(C, path.startVolts),
    peakKelvin: lamp ? peakKelvin : null,
  };
}

/**
 * Model of a filament lamp from what is printed on it: 2800 K hot at its rating, and a thermal time constant that
 * grows with the filament's thickness (power and low voltage). Usual for clear filament lamps of 25 to 150 W; a halogen
 * lamp is hotter and quicker, an LED lamp is none at all.
 *
 * @throws {OutOfRangeError} rating not above 0
 */
export function lampFromRating(ratedVolts: number, ratedWatts: number): LampModel {
  requirePositive("ratedVolts", ratedVolts);
  requirePositive("ratedWatts", ratedWatts);
  const ambientKelvin = 293;
  const hotKelvin = 2800;
  const coefficientPerKelvin = 0.0045;
  const hotOhms = ratedVolts ** 2 / ratedWatts;
  const thermalResistanceKelvinPerWatt = (hotKelvin - ambientKelvin) / ratedWatts;
  const timeConstantSeconds = 0.12 * (ratedWatts / 60) ** 0.8 * (230 / ratedVolts) ** 0.35;
  return {
    coldOhms: hotOhms / (1 + coefficientPerKelvin * (hotKelvin - ambientKelvin)),
    coefficientPerKelvin,
    ambientKelvin,
    thermalResistanceKelvinPerWatt,
    heatCapacityJoulesPerKelvin: timeConstantSeconds / thermalResistanceKelvinPerWatt,
  };
}

function filamentOhms(lamp: LampModel, kelvin: number): number {
  return lamp.coldOhms * (1 + lamp.coefficientPerKelvin * (kelvin - lamp.ambientKelvin));
}

function rungeKuttaStep(state: State, h: number, slope: (state: State) => State): State {
  const moved = (by: State, share: number): State => ({
    volts: state.volts + share * h * by.volts,
    kelvin: state.kelvin + share * h * by.kelvin,
    loadJoules: state.loadJoules + share * h * by.loadJoules,
    bleederJoules: state.bleederJoules + share * h * by.bleederJoules,
  });
  const k1 = slope(state);
  const k2 = slope(moved(k1, 0.5));
  const k3 = slope(moved(k2, 0.5));
  const k4 = slope(moved(k3, 1));
  const mean = (key: keyof State) => (k1[key] + 2 * k2[key] + 2 * k3[key] + k4[key]) / 6;
  return moved(
    {
      volts: mean("volts"),
      kelvin: mean("kelvin"),
      loadJoules: mean("loadJoules"),
      bleederJoules: mean("bleederJoules"),
    },
    1,
  );
}

/** About 120 points are enough for a curve; first and last stay. */
function thin<T>(samples: readonly T[]): readonly T[] {
  const every = Math.max(1, Math.floor(samples.length / 120));
  return samples.filter((_, index) => index % every === 0 || index === samples.length - 1);
}

import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";

export interface HeatSample {
  readonly seconds: number;
  readonly celsius: number;
  readonly ambientCelsius?: number | null;
}

export type SettleFlag = "flat" | "short_span" | "tau_at_edge" | "wide";

export interface ThermalSettle {
  /** Where it will settle, at the ambient of the first sample. */
  readonly settledCelsius: number;
  /** The same at the ambient of the last. */
  readonly settledNowCelsius: number;
  /** null where nothing changes. */
  readonly timeConstantSeconds: number | null;
  readonly deviationKelvin: number;
  /** Still to come after the last sample. */
  readonly remainingKelvin: number;
  /** From the last sample until it is near. */
  readonly nearInSeconds: number;
  readonly isTrusted: boolean;
  readonly flags: readonly SettleFlag[];
}

const gridPoints = 400;

/**
 * Where a temperature will settle, from how it rises.
 *
 *     T = Tinf + b e^(-(t - t1)/tau), least squares: Tinf and b linear, ln tau by grid and golden section
 *     u = s sqrt((J'J)^-1_11), s = max(sqrt(SSE/(n - 3)), u_T)
 *
 * Usual: a part that several masses heat is not one exponential. Trusted only where the span reaches 1.5 time constants, tau is
 * within the grid and u below 1 K.
 *
 * @param samples at least five, in time order; with `isAmbientOff` each with its ambient
 * @throws {OutOfRangeError} fewer, times that do not rise, a missing ambient
 * @example thermalSettle([25.2, 47.5, 60.9, 67.9, 71.8, 74.0] each 200 s).settledCelsius // 77.0
 */
export function thermalSettle(
  samples: readonly HeatSample[],
  options: { readonly isAmbientOff?: boolean; readonly deviationKelvin?: number } = {},
): ThermalSettle {
  const constants = planningConstants.J;
  const { isAmbientOff = false, deviationKelvin: reading = constants.u_T_K } = options;
  requirePositive("deviationKelvin", reading);
  const [first, last] = [samples[0], samples.at(-1)];
  if (samples.length < 5 || !first || !last) throw new OutOfRangeError("samples", samples.length, "at least 5");
  for (const [n, { seconds, celsius, ambientCelsius }] of samples.entries()) {
    const before = samples[n - 1]?.seconds ?? Number.NEGATIVE_INFINITY;
    if (!(seconds > before)) throw new OutOfRangeError("seconds", seconds, `above ${before}`);
    if (!Number.isFinite(celsius)) throw new OutOfRangeError("celsius", celsius, "a number");
    if (isAmbientOff && ambientCelsius == null) throw new OutOfRangeError("ambientCelsius", null, "known");
  }
  const ambient = (one: HeatSample) => (isAmbientOff ? (one.ambientCelsius ?? 0) : 0);
  const drift = ambient(last) - ambient(first);
  const points = samples.map((one) => ({
    after: one.seconds - first.seconds,
    celsius: one.celsius - (ambient(one) - ambient(first)),
  }));
  const values = points.map((one) => one.celsius);
  if (Math.max(...values) - Math.min(...values) <= 2 * reading) {
    const mean = values.reduce((sum, one) => sum + one, 0) / values.length;
    return {
      ...{ settledCelsius: mean, settledNowCelsius: mean + drift, timeConstantSeconds: null },
      ...{ deviationKelvin: reading, remainingKelvin: 0, nearInSeconds: 0, isTrusted: false, flags: ["flat"] },
    };
  }
  const span = last.seconds - first.seconds;
  const [low, high] = [Math.log(constants.tau_lo * span), Math.log(constants.tau_hi * span)];
  const errorAt = (lnTau: number) => linear(points, Math.exp(lnTau)).squares;
  const grid = Array.from({ length: gridPoints }, (_, n) => low + ((high - low) * n) / (gridPoints - 1));
  const errors = grid.map(errorAt);
  const best = errors.indexOf(Math.min(...errors));
  const isAtEdge = best === 0 || best === gridPoints - 1;
  const lnTau = isAtEdge
    ? (grid[best] as number)
    : goldenMinimum(errorAt, grid[best - 1] as number, grid[best + 1] as number);
  const tau = Math.exp(lnTau);
  const { settled, swing, squares } = linear(points, tau);
  const deviation = Math.max(Math.sqrt(squares / (points.length - 3)), reading);
  const deviationKelvin = deviation * Math.sqrt(firstOfInverse(points, tau, swing));
  const remainingKelvin = -swing * Math.exp(-span / tau);
  const flags: SettleFlag[] = [
    ...(span < constants.trust_span_tau * tau ? (["short_span"] as const) : []),
    ...(isAtEdge ? (["tau_at_edge"] as const) : []),
    ...(deviationKelvin > constants.trust_u_K ? (["wide"] as const) : []),
  ];
  return {
    ...{ settledCelsius: settled, settledNowCelsius: settled + drift, timeConstantSeconds: tau },
    ...{ deviationKelvin, remainingKelvin },
    nearInSeconds: Math.max(0, tau * Math.log(Math.abs(remainingKelvin) / constants.near_K)),
    ...{ isTrusted: flags.length === 0, flags },
  };
}

type Point = { readonly after: number; readonly celsius: number };

/** Least squares of T = settled + swing e^(-t/tau) for one tau. */
function linear(points: readonly Point[], tau: number) {
  const count = points.length;
  const decays = points.map((one) => Math.exp(-one.after / tau));
  const meanE = decays.reduce((sum, one) => sum + one, 0) / count;
  const meanT = points.reduce((sum, one) => sum + one.celsius, 0) / count;
  let [see, set] = [0, 0];
  for (const [n, e] of decays.entries()) {
    see += (e - meanE) ** 2;
    set += (e - meanE) * ((points[n]?.celsius ?? 0) - meanT);
  }
  const swing = set / see;
  const settled = meanT - swing * meanE;
  const squares = decays.reduce((sum, e, n) => sum + ((points[n]?.celsius ?? 0) - settled - swing * e) ** 2, 0);
  return { settled, swing, squares };
}

/** (J'J)^-1 at the settled value, J = [1, e, b t/tau^2 e], with the last column scaled to be tame. */
function firstOfInverse(points: readonly Point[], tau: number, swing: number): number {
  const m = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (const { after } of points) {
    const e = Math.exp(-after / tau);
    const row = [1, e, ((Math.sign(swing) || 1) * after * e) / tau];
    for (let i = 0; i < 3; i++) {
      for (let j = 0; j < 3; j++) (m[i] as number[])[j] = (m[i]?.[j] ?? 0) + (row[i] ?? 0) * (row[j] ?? 0);
    }
  }
  const at = (i: number, j: number) => m[i]?.[j] ?? 0;
  const minor = at(1, 1) * at(2, 2) - at(1, 2) * at(2, 1);
  const determinant =
    at(0, 0) * minor -
    at(0, 1) * (at(1, 0) * at(2, 2) - at(1, 2) * at(2, 0)) +
    at(0, 2) * (at(1, 0) * at(2, 1) - at(1, 1) * at(2, 0));
  return minor / determinant;
}

function goldenMinimum(of: (x: number) => number, low: number, high: number): number {
  const ratio = (Math.sqrt(5) - 1) / 2;
  let [from, to] = [low, high];
  let [left, right] = [to - ratio * (to - from), from + ratio * (to - from)];
  let [atLeft, atRight] = [of(left), of(right)];
  for (let step = 0; step < 80; step++) {
    if (atLeft < atRight) {
      to = right;
      [right, atRight] = [left, atLeft];
      left = to - ratio * (to - from);
      atLeft = of(left);
    } else {
      from = left;
      [left, atLeft] = [right, atRight];
      right = from + ratio * (to - from);
      atRight = of(right);
    }
  }
  return (from + to) / 2;
}

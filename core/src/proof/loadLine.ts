import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

export interface LoadPoint {
  readonly loadAmps: number;
  readonly volts: number;
  /** One standard deviation. */
  readonly voltsDeviation: number;
}

export interface LoadLine {
  readonly unloadedVolts: number;
  readonly outputOhms: number;
  readonly unloadedDeviationVolts: number;
  readonly outputDeviationOhms: number;
  readonly fittedCount: number;
  readonly chiSquared: number;
  /** null where as many points as unknowns were fitted. */
  readonly reducedChiSquared: number | null;
  /** Index of the first point that falls below the line: the limit sets in before it. */
  readonly kneeAt: number | null;
  /** Between these. */
  readonly kneeLowAmps: number | null;
  readonly kneeHighAmps: number | null;
}

interface LoadLineOptions {
  /** There and back, of a lead at whose end the volts were read. */
  readonly leadOhms?: number;
  /** How many deviations below the line, and which share of it, make a knee. */
  readonly kneeDeviations?: number;
  readonly kneeRatio?: number;
}

/**
 * The straight part of volts over load, and where the limit sets in.
 *
 *     weighted least squares V = V0 - R I on V + I R_lead, weights 1/u_V^2, over the first three points;
 *     each further one: r = predicted - V, u^2 = u_V^2 + var(V0) + I^2 var(R) + 2 I cov; r > k u and r > share of |predicted|: the knee
 *
 * Points from the knee on are not fitted. Fit solid, the rule of the knee usual.
 *
 * @throws {OutOfRangeError} fewer than three points, loads not rising, deviations not above 0
 */
export function loadLine(points: readonly LoadPoint[], options: LoadLineOptions = {}): LoadLine {
  const constants = planningConstants.J;
  const { leadOhms = 0, kneeDeviations = constants.kink_k } = options;
  const kneeRatio = options.kneeRatio ?? constants.kink_min_pct / 100;
  requireNonNegative("leadOhms", leadOhms);
  requirePositive("kneeDeviations", kneeDeviations);
  requireNonNegative("kneeRatio", kneeRatio);
  if (points.length < constants.kink_first) {
    throw new OutOfRangeError("points", points.length, `at least ${constants.kink_first}`);
  }
  for (const [n, { loadAmps, voltsDeviation }] of points.entries()) {
    requireNonNegative("loadAmps", loadAmps);
    requirePositive("voltsDeviation", voltsDeviation);
    const before = points[n - 1]?.loadAmps ?? -1;
    if (loadAmps <= before) throw new OutOfRangeError("loadAmps", loadAmps, `above ${before}`);
  }
  const voltsOf = ({ loadAmps, volts }: LoadPoint) => volts + loadAmps * leadOhms;
  let count = constants.kink_first;
  let line = fitted(points.slice(0, count), voltsOf);
  let kneeAt: number | null = null;
  while (count < points.length) {
    const next = points[count] as LoadPoint;
    const predicted = line.unloadedVolts - line.outputOhms * next.loadAmps;
    const below = predicted - voltsOf(next);
    // R falls with the load: its covariance with V0 has the other sign in V0 - R I.
    const variance =
      next.voltsDeviation ** 2 +
      line.varianceVolts +
      line.varianceOhms * next.loadAmps ** 2 -
      2 * line.covariance * next.loadAmps;
    if (below > kneeDeviations * Math.sqrt(variance) && below > kneeRatio * Math.abs(predicted)) {
      kneeAt = count;
      break;
    }
    count += 1;
    line = fitted(points.slice(0, count), voltsOf);
  }
  return {
    ...{ unloadedVolts: line.unloadedVolts, outputOhms: line.outputOhms },
    unloadedDeviationVolts: Math.sqrt(line.varianceVolts),
    outputDeviationOhms: Math.sqrt(line.varianceOhms),
    ...{ fittedCount: count, chiSquared: line.chiSquared, kneeAt },
    reducedChiSquared: count > 2 ? line.chiSquared / (count - 2) : null,
    kneeLowAmps: kneeAt === null ? null : (points[kneeAt - 1]?.loadAmps ?? null),
    kneeHighAmps: kneeAt === null ? null : (points[kneeAt]?.loadAmps ?? null),
  };
}

function fitted(points: readonly LoadPoint[], voltsOf: (point: LoadPoint) => number) {
  let [w, wi, wii, wv, wiv] = [0, 0, 0, 0, 0];
  for (const point of points) {
    const weight = 1 / point.voltsDeviation ** 2;
    const [amps, volts] = [point.loadAmps, voltsOf(point)];
    w += weight;
    wi += weight * amps;
    wii += weight * amps * amps;
    wv += weight * volts;
    wiv += weight * amps * volts;
  }
  const determinant = w * wii - wi * wi;
  const unloadedVolts = (wii * wv - wi * wiv) / determinant;
  const outputOhms = -(w * wiv - wi * wv) / determinant;
  const chiSquared = points.reduce((sum, point) => {
    const residual = voltsOf(point) - (unloadedVolts - outputOhms * point.loadAmps);
    return sum + (residual / point.voltsDeviation) ** 2;
  }, 0);
  return {
    ...{ unloadedVolts, outputOhms, chiSquared },
    ...{ varianceVolts: wii / determinant, varianceOhms: w / determinant, covariance: wi / determinant },
  };
}

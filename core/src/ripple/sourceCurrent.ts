import { OutOfRangeError } from "../errors";
import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";

/** One straight line of a current over time; unequal values at a shared time are a jump. */
export interface CurrentSegment {
  readonly startSeconds: number;
  readonly startAmps: number;
  readonly endSeconds: number;
  readonly endAmps: number;
}

/** A periodic current into the output filter, as straight lines that tile one period. */
export interface SourceCurrent {
  readonly periodSeconds: number;
  readonly segments: readonly CurrentSegment[];
  /** Mean over the period: what the load draws. */
  readonly meanAmps: number;
  /** Where the current is switched over: what inductance makes of it are spikes, told apart from the ripple. */
  readonly edges: readonly (readonly [startSeconds: number, endSeconds: number])[];
}

/**
 * A periodic current from its corners.
 *
 * @param corners lists of time and current, ascending in time from 0; two corners at one time make a jump
 * @param edges stretches between corners in which the current is switched over
 * @throws {OutOfRangeError} fewer than two corners, a period of no length, time that runs back
 */
export function sourceFromCorners(
  corners: readonly (readonly [seconds: number, amps: number])[],
  edges: SourceCurrent["edges"] = [],
): SourceCurrent {
  const last = corners.at(-1);
  const first = corners[0];
  if (!first || !last || corners.length < 2) throw new OutOfRangeError("corners", corners.length, "at least two");
  if (first[0] !== 0) throw new OutOfRangeError("corners", first[0], "starting at 0 s");
  const periodSeconds = requirePositive("periodSeconds", last[0]);
  const segments: CurrentSegment[] = [];
  let charge = 0;
  for (let n = 1; n < corners.length; n++) {
    const [startSeconds, startAmps] = corners[n - 1] as readonly [number, number];
    const [endSeconds, endAmps] = corners[n] as readonly [number, number];
    if (!(endSeconds >= startSeconds)) throw new OutOfRangeError("corners", endSeconds, "ascending in time");
    if (!Number.isFinite(startAmps + endAmps)) throw new OutOfRangeError("corners", endAmps, "finite amperes");
    if (endSeconds === startSeconds) continue;
    segments.push({ startSeconds, startAmps, endSeconds, endAmps });
    charge += ((startAmps + endAmps) / 2) * (endSeconds - startSeconds);
  }
  return { periodSeconds, segments, meanAmps: charge / periodSeconds, edges };
}

/**
 * Secondary current of a flyback in discontinuous conduction: a jump (or ramp) to the peak, a straight fall to zero, a rest.
 *
 *     Iout = Ipk (tr + d2 T) / (2 T)
 *
 * @throws {OutOfRangeError} where ramp and fall do not fit into the period
 */
export function flybackDiscontinuousCurrent(input: {
  readonly switchingHertz: number;
  readonly peakAmps: number;
  /** Share of the period in which the secondary current falls. */
  readonly fallRatio: number;
  readonly riseSeconds?: number;
}): SourceCurrent {
  const period = 1 / requirePositive("switchingHertz", input.switchingHertz);
  const peak = requirePositive("peakAmps", input.peakAmps);
  const rise = requireNonNegative("riseSeconds", input.riseSeconds ?? 0);
  const end = rise + requirePositive("fallRatio", input.fallRatio) * period;
  if (end > period * (1 + 1e-12))
    throw new OutOfRangeError("fallRatio", input.fallRatio, "short enough for the period");
  const last: readonly [number, number][] = end < period ? [[period, 0]] : [];
  return sourceFromCorners([[0, 0], [rise, peak], [Math.min(end, period), 0], ...last], [[0, rise]]);
}

/**
 * Secondary current of a flyback in continuous conduction: it flows during (1 - D) T, from the peak down to the valley.
 *
 * @throws {OutOfRangeError} a duty outside 0..1, a valley above the peak, edges that do not fit
 */
export function flybackContinuousCurrent(input: {
  readonly switchingHertz: number;
  readonly peakAmps: number;
  readonly valleyAmps: number;
  readonly dutyRatio: number;
  readonly riseSeconds?: number;
  readonly fallSeconds?: number;
}): SourceCurrent {
  const period = 1 / requirePositive("switchingHertz", input.switchingHertz);
  const peak = requirePositive("peakAmps", input.peakAmps);
  const valley = requireNonNegative("valleyAmps", input.valleyAmps);
  if (valley > peak) throw new OutOfRangeError("valleyAmps", valley, "at most the peak");
  const conducting = (1 - requireBetween("dutyRatio", input.dutyRatio, 0, 1)) * period;
  const rise = requireNonNegative("riseSeconds", input.riseSeconds ?? 0);
  const fall = requireNonNegative("fallSeconds", input.fallSeconds ?? 0);
  if (rise > conducting) throw new OutOfRangeError("riseSeconds", rise, "within the conduction");
  if (conducting + fall > period) throw new OutOfRangeError("fallSeconds", fall, "within the period");
  return sourceFromCorners(
    [
      [0, 0],
      [rise, peak],
      [conducting, valley],
      [conducting + fall, 0],
      [period, 0],
    ],
    [
      [0, rise],
      [conducting, conducting + fall],
    ],
  );
}

/**
 * Inductor current of a buck, forward or half bridge: a triangle about the load current.
 *
 * @throws {OutOfRangeError} a duty outside 0..1, a swing below 0
 */
export function inductorCurrent(input: {
  readonly switchingHertz: number;
  readonly loadAmps: number;
  readonly swingAmps: number;
  readonly dutyRatio: number;
}): SourceCurrent {
  const period = 1 / requirePositive("switchingHertz", input.switchingHertz);
  const load = requireNonNegative("loadAmps", input.loadAmps);
  const half = requireNonNegative("swingAmps", input.swingAmps) / 2;
  const duty = requireBetween("dutyRatio", input.dutyRatio, 0, 1);
  return sourceFromCorners([
    [0, load - half],
    [duty * period, load + half],
    [period, load - half],
  ]);
}

/** Straight lines in each half sine: its RMS is 0.2 % off, far below what is known of a resonant tank. */
const linesPerHalfSine = 16;

/**
 * Rectified current of a resonant converter near its resonance: one half sine after the other, as straight lines.
 *
 *     peak = (pi/2) I;  alternating part: I sqrt(pi^2/8 - 1) = 0.483 I
 *
 * Usual: away from resonance the halves have gaps or corners, and carry more.
 *
 * @param input.halfHertz of the halves: twice the switching frequency
 */
export function halfSineCurrent(input: { readonly halfHertz: number; readonly meanAmps: number }): SourceCurrent {
  const period = 1 / requirePositive("halfHertz", input.halfHertz);
  const mean = requireNonNegative("meanAmps", input.meanAmps);
  const shape = Array.from({ length: linesPerHalfSine + 1 }, (_, n) => Math.sin((Math.PI * n) / linesPerHalfSine));
  shape[linesPerHalfSine] = 0;
  // The lines lie a little below the arch: the whole is scaled so that the load gets what it draws.
  const area = shape.reduce((sum, one) => sum + one, 0) / linesPerHalfSine;
  return sourceFromCorners(
    shape.map((one, n): readonly [number, number] => [(n / linesPerHalfSine) * period, (one * mean) / area]),
  );
}

/**
 * Complex amplitude of one harmonic of the current: a peak phasor, exact for straight lines.
 *
 *     c_n = (2/T) sum over segments of integral i(t) e^(-j n w t) dt
 */
export function sourceHarmonic(source: SourceCurrent, order: number): { readonly re: number; readonly im: number } {
  const omega = (2 * Math.PI * order) / source.periodSeconds;
  let re = 0;
  let im = 0;
  for (const { startSeconds: a, startAmps, endSeconds: b, endAmps } of source.segments) {
    const slope = (endAmps - startAmps) / (b - a);
    // integral (i0 + s (t - a)) e^(-jwt) = [ i(t) j/w e^(-jwt) + s/w^2 e^(-jwt) ] from a to b
    for (const [t, amps, sign] of [
      [b, endAmps, 1],
      [a, startAmps, -1],
    ] as const) {
      const cos = Math.cos(omega * t);
      const sin = Math.sin(omega * t);
      re += sign * ((amps / omega) * sin + (slope / omega ** 2) * cos);
      im += sign * ((amps / omega) * cos - (slope / omega ** 2) * sin);
    }
  }
  return { re: (2 * re) / source.periodSeconds, im: (2 * im) / source.periodSeconds };
}

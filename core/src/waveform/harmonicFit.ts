import { leastSquares, matrix } from "../numerics/matrix";

/** A periodic part of a waveform: amplitudes of its harmonics, fitted over a window that need not hold whole periods. */
export interface HarmonicFit {
  readonly frequencyHertz: number;
  /** Peak amplitude of each harmonic that was fitted, by order. */
  readonly amplitudes: ReadonlyMap<number, number>;
  readonly rms: number;
  /** Mean square of what the fit leaves over, trend and mean taken off. */
  readonly residualMeanSquare: number;
  /** The fitted part at a moment of the window, without mean and trend; of some orders only, if wanted. */
  readonly at: (seconds: number, keeps?: (order: number) => boolean) => number;
}

/**
 * Least-squares fit of harmonics of a frequency, beside a mean and a straight drift.
 *
 *     v(t) = a + b t + sum over orders of (p_k cos k w t + q_k sin k w t)
 *
 * Coherent over windows that hold no whole number of periods, where a plain spectrum leaks. Columns are scaled to one;
 * normal equations, so at least three samples a period of the highest order and half a period of the lowest in the window.
 */
export function fitHarmonics(
  samples: ArrayLike<number>,
  intervalSeconds: number,
  frequencyHertz: number,
  orders: readonly number[],
): HarmonicFit {
  const count = samples.length;
  const width = 2 + 2 * orders.length;
  const normal = matrix(width, width);
  const right = new Float64Array(width);
  const row = new Float64Array(width);
  const omega = 2 * Math.PI * frequencyHertz * intervalSeconds;
  let squares = 0;
  for (let n = 0; n < count; n++) {
    row[0] = 1;
    row[1] = (2 * n) / Math.max(count - 1, 1) - 1;
    orders.forEach((order, k) => {
      row[2 + 2 * k] = Math.cos(order * omega * n);
      row[3 + 2 * k] = Math.sin(order * omega * n);
    });
    const value = samples[n] as number;
    squares += value * value;
    for (let i = 0; i < width; i++) {
      right[i] = (right[i] as number) + (row[i] as number) * value;
      for (let j = i; j < width; j++) {
        normal.values[i * width + j] =
          (normal.values[i * width + j] as number) + (row[i] as number) * (row[j] as number);
      }
    }
  }
  for (let i = 0; i < width; i++) {
    for (let j = 0; j < i; j++) normal.values[i * width + j] = normal.values[j * width + i] as number;
  }
  const found = leastSquares(normal, right);
  const explained = found.reduce((sum, one, i) => sum + one * (right[i] as number), 0);
  const pairs = orders.map((order, k) => [order, found[2 + 2 * k] as number, found[3 + 2 * k] as number] as const);
  return {
    frequencyHertz,
    amplitudes: new Map(pairs.map(([order, p, q]) => [order, Math.hypot(p, q)])),
    rms: Math.sqrt(pairs.reduce((sum, [, p, q]) => sum + (p * p + q * q) / 2, 0)),
    residualMeanSquare: Math.max(squares - explained, 0) / count,
    at: (seconds, keeps = () => true) => {
      const angle = 2 * Math.PI * frequencyHertz * seconds;
      const kept = pairs.filter(([order]) => keeps(order));
      return kept.reduce((sum, [order, p, q]) => sum + p * Math.cos(order * angle) + q * Math.sin(order * angle), 0);
    },
  };
}

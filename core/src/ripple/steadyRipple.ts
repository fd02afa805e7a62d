import { OutOfRangeError } from "../errors";
import { bracketedRoot } from "../numerics/bracketedRoot";
import {
  leastSquares,
  type Matrix,
  matrix,
  matrixExponential,
  multiply,
  multiplyVector,
  rowNorm,
} from "../numerics/matrix";
import { type FilterNetwork, type FilterSystem, filterSystem } from "./filterNetwork";
import type { SourceCurrent } from "./sourceCurrent";

/** One period of a quantity without its mean. */
export interface RippleCourse {
  readonly values: Float64Array;
  readonly peakToPeak: number;
  readonly rms: number;
}

export interface SteadyRipple {
  /** Ascending; a corner of the source stands twice, once from each side. */
  readonly seconds: Float64Array;
  /** At the first bank, and behind the choke where there is one. */
  readonly nodeVolts: readonly RippleCourse[];
  /** Into each capacitor, those before the choke first. */
  readonly capacitorAmps: readonly RippleCourse[];
}

/** Samples of one segment: time from its start, and the propagator over the step that leads there. */
interface Step {
  readonly seconds: number;
  readonly propagator: Matrix;
}

/**
 * Periodic steady state of an output filter under a current of straight lines: exact to rounding.
 *
 *     z = [x, u, s], dz/dt = F z,  z(t + h) = e^(F h) z(t),  (I - M) x0 = b over one period
 *
 * M has an eigenvalue of 1 for everything that a period conserves (the charge of the bank; the balance of a node of
 * inductive branches only). These are fixed by what they must be, and the whole solved by least squares: the load draws
 * exactly the mean of the source. Peak to peak counts both sides of a corner and the extremes between samples (cubic
 * through values and slopes); RMS is Simpson's rule over steps that begin below the fastest time constant and double.
 * Valid for constant parts; the filter's answer is linear, so nothing is clamped.
 *
 * @throws {OutOfRangeError} a current that jumps into inductive branches only, or values out of range
 */
export function steadyRipple(source: SourceCurrent, network: FilterNetwork): SteadyRipple {
  const system = filterSystem(network);
  if (system.refusesJumps) refuseJumps(source);
  const { stateCount } = system;
  const width = stateCount + 2;
  const fastest = rowNorm(stateMatrix(system));
  const grids = source.segments.map((segment) => {
    const duration = segment.endSeconds - segment.startSeconds;
    return stepsOf(system.dynamics, duration, fastest, system.ringingRadiansPerSecond);
  });

  const start = periodicState(source, system, grids);
  const count = grids.reduce((sum, grid) => sum + grid.steps.length + 1, 0);
  const seconds = new Float64Array(count);
  const rows = [...system.nodeRows, ...system.capacitorRows];
  const courses = rows.map(() => new Float64Array(count));
  const slopes = rows.map(() => new Float64Array(count));
  const slopeRows = rows.map((row) => rowTimesMatrix(row, system.dynamics));

  let z = new Float64Array(width);
  let next = new Float64Array(width);
  z.set(start);
  let at = 0;
  const record = (time: number) => {
    seconds[at] = time;
    rows.forEach((row, n) => {
      (courses[n] as Float64Array)[at] = dot(row, z);
      (slopes[n] as Float64Array)[at] = dot(slopeRows[n] as Float64Array, z);
    });
    at += 1;
  };
  source.segments.forEach((segment, n) => {
    const { duration, steps } = grids[n] as SegmentGrid;
    z[stateCount] = segment.startAmps - source.meanAmps;
    z[stateCount + 1] = (segment.endAmps - segment.startAmps) / duration;
    record(segment.startSeconds);
    for (const step of steps) {
      multiplyVector(step.propagator, z, next);
      [z, next] = [next, z];
      record(segment.startSeconds + step.seconds);
    }
  });
  const measure = (course: Float64Array, slope: Float64Array) => courseOf(seconds, course, slope);
  const measured = rows.map((_, n) => measure(courses[n] as Float64Array, slopes[n] as Float64Array));
  return {
    seconds,
    nodeVolts: measured.slice(0, system.nodeRows.length),
    capacitorAmps: measured.slice(system.nodeRows.length),
  };
}

interface SegmentGrid {
  readonly duration: number;
  readonly steps: readonly Step[];
  readonly whole: Matrix;
}

const coarsestSteps = 64;
const stepsPerOctave = 8;
const mostSteps = 4096;

/** Steps over one segment: eight of the finest, then eight for each doubling of time, then even ones. */
function stepsOf(dynamics: Matrix, duration: number, fastest: number, ringing: number): SegmentGrid {
  const evenCount = Math.min(mostSteps, 2 ** Math.ceil(Math.log2(Math.max(coarsestSteps, (ringing * duration) / 0.3))));
  const doublings = Math.max(0, Math.min(30, Math.ceil(Math.log2((fastest * duration) / evenCount / 0.25))));
  const finest = duration / evenCount / 2 ** doublings;
  const steps: Step[] = [];
  let propagator = matrixExponential(dynamics, finest);
  let [ticks, stride] = [0, 1];
  const total = evenCount * 2 ** doublings;
  while (ticks < total) {
    if (stride < 2 ** doublings && ticks >= stride * 2 * stepsPerOctave && ticks % (stride * 2) === 0) {
      propagator = multiply(propagator, propagator);
      stride *= 2;
    }
    ticks += stride;
    steps.push({ seconds: ticks * finest, propagator });
  }
  let whole = propagator;
  for (let reached = stride; reached < total; reached *= 2) whole = multiply(whole, whole);
  return { duration, steps, whole };
}

/** The state at the start of the period, [x, 0, 0]. */
function periodicState(source: SourceCurrent, system: FilterSystem, grids: readonly SegmentGrid[]): Float64Array {
  const { stateCount, conserved } = system;
  const width = stateCount + 2;
  // x after the period as an affine function of x before it, one column for each state and one for the source.
  let affine = matrix(stateCount, stateCount + 1);
  for (let n = 0; n < stateCount; n++) affine.values[n * (stateCount + 1) + n] = 1;
  source.segments.forEach((segment, n) => {
    const { duration, whole } = grids[n] as SegmentGrid;
    const inner = matrix(stateCount, stateCount);
    for (let row = 0; row < stateCount; row++) {
      for (let column = 0; column < stateCount; column++) {
        inner.values[row * stateCount + column] = whole.values[row * width + column] as number;
      }
    }
    affine = multiply(inner, affine);
    const u = segment.startAmps - source.meanAmps;
    const s = (segment.endAmps - segment.startAmps) / duration;
    for (let row = 0; row < stateCount; row++) {
      const index = row * (stateCount + 1) + stateCount;
      const driven =
        (whole.values[row * width + stateCount] as number) * u +
        (whole.values[row * width + stateCount + 1] as number) * s;
      affine.values[index] = (affine.values[index] as number) + driven;
    }
  });
  const rows = stateCount + conserved.length;
  const equations = matrix(rows, stateCount);
  const right = new Float64Array(rows);
  for (let row = 0; row < stateCount; row++) {
    for (let column = 0; column < stateCount; column++) {
      equations.values[row * stateCount + column] =
        (row === column ? 1 : 0) - (affine.values[row * (stateCount + 1) + column] as number);
    }
    right[row] = affine.values[row * (stateCount + 1) + stateCount] as number;
  }
  const firstAmps = (source.segments[0]?.startAmps ?? 0) - source.meanAmps;
  conserved.forEach((row, n) => {
    for (let column = 0; column < stateCount; column++) {
      equations.values[(stateCount + n) * stateCount + column] = row[column] as number;
    }
    right[stateCount + n] = -(row[stateCount] as number) * firstAmps;
  });
  return leastSquares(equations, right);
}

function stateMatrix({ dynamics, stateCount }: FilterSystem): Matrix {
  const inner = matrix(stateCount, stateCount);
  for (let row = 0; row < stateCount; row++) {
    for (let column = 0; column < stateCount; column++) {
      inner.values[row * stateCount + column] = dynamics.values[row * (stateCount + 2) + column] as number;
    }
  }
  return inner;
}

function refuseJumps(source: SourceCurrent): void {
  const { segments } = source;
  segments.forEach((segment, n) => {
    const before = segments[(n - 1 + segments.length) % segments.length] as (typeof segments)[number];
    if (Math.abs(before.endAmps - segment.startAmps) > 1e-9 * Math.abs(source.meanAmps)) {
      throw new OutOfRangeError("source", segment.startSeconds, "without jumps where every capacitor has inductance");
    }
  });
}

/** Peak to peak and RMS of a sampled course with known slopes; two samples at one time are the two sides of a corner. */
function courseOf(seconds: Float64Array, values: Float64Array, slopes: Float64Array): RippleCourse {
  let [low, high] = [Infinity, -Infinity];
  let [sum, squares] = [0, 0];
  for (let n = 0; n < values.length; n++) {
    const a = values[n] as number;
    low = Math.min(low, a);
    high = Math.max(high, a);
    if (n + 1 === values.length) break;
    const h = (seconds[n + 1] as number) - (seconds[n] as number);
    if (h <= 0) continue;
    const b = values[n + 1] as number;
    const [p, q] = [(slopes[n] as number) * h, (slopes[n + 1] as number) * h];
    const middle = (a + b) / 2 + (p - q) / 8;
    sum += (h * (a + 4 * middle + b)) / 6;
    squares += (h * (a * a + 4 * middle * middle + b * b)) / 6;
    if (p * q < 0) {
      const extreme = turningValue(a, b, p, q);
      low = Math.min(low, extreme);
      high = Math.max(high, extreme);
    }
  }
  const period = (seconds[seconds.length - 1] as number) - (seconds[0] as number);
  const mean = sum / period;
  return { values, peakToPeak: high - low, rms: Math.sqrt(Math.max(squares / period - mean * mean, 0)) };
}

/** Halvings of a step: the value beside a turning point is flat. */
const turningSteps = 40;

/** Value at the turning point of the cubic with ends a, b and end slopes p, q per step; p and q differ in sign. */
function turningValue(a: number, b: number, p: number, q: number): number {
  const c3 = 2 * (a - b) + p + q;
  const c2 = 3 * (b - a) - 2 * p - q;
  const x = bracketedRoot((at) => 3 * c3 * at * at + 2 * c2 * at + p, 0, 1, turningSteps);
  return a + x * (p + x * (c2 + x * c3));
}

function rowTimesMatrix(row: Float64Array, by: Matrix): Float64Array {
  const result = new Float64Array(by.columns);
  for (let inner = 0; inner < by.rows; inner++) {
    const factor = row[inner] as number;
    if (factor === 0) continue;
    for (let column = 0; column < by.columns; column++) {
      result[column] = (result[column] as number) + factor * (by.values[inner * by.columns + column] as number);
    }
  }
  return result;
}

function dot(row: Float64Array, z: Float64Array): number {
  let sum = 0;
  for (let n = 0; n < row.length; n++) sum += (row[n] as number) * (z[n] as number);
  return sum;
}

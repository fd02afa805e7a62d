import { OutOfRangeError } from "../errors";

/** A dense matrix, row by row. */
export interface Matrix {
  readonly rows: number;
  readonly columns: number;
  readonly values: Float64Array;
}

export function matrix(rows: number, columns: number): Matrix {
  return { rows, columns, values: new Float64Array(rows * columns) };
}

function identityMatrix(size: number): Matrix {
  const made = matrix(size, size);
  for (let n = 0; n < size; n++) made.values[n * size + n] = 1;
  return made;
}

/** a x b. */
export function multiply(a: Matrix, b: Matrix): Matrix {
  const product = matrix(a.rows, b.columns);
  const { values } = product;
  const width = b.columns;
  for (let row = 0; row < a.rows; row++) {
    for (let inner = 0; inner < a.columns; inner++) {
      const factor = a.values[row * a.columns + inner] as number;
      if (factor === 0) continue;
      const from = inner * width;
      const to = row * width;
      for (let column = 0; column < width; column++) {
        values[to + column] = (values[to + column] as number) + factor * (b.values[from + column] as number);
      }
    }
  }
  return product;
}

/** a x vector, written into `result`, which must be another array than `vector`. */
export function multiplyVector(a: Matrix, vector: Float64Array, result: Float64Array): Float64Array {
  for (let row = 0; row < a.rows; row++) {
    let sum = 0;
    for (let column = 0; column < a.columns; column++) {
      sum += (a.values[row * a.columns + column] as number) * (vector[column] as number);
    }
    result[row] = sum;
  }
  return result;
}

/** Largest sum of magnitudes in a row: an upper bound of every eigenvalue's magnitude. */
export function rowNorm(a: Matrix): number {
  let most = 0;
  for (let row = 0; row < a.rows; row++) {
    let sum = 0;
    for (let column = 0; column < a.columns; column++) sum += Math.abs(a.values[row * a.columns + column] as number);
    most = Math.max(most, sum);
  }
  return most;
}

/**
 * e^(a t) by its Taylor series after scaling: a t / 2^s with row norm at most 1/2, twelve terms (error below 1e-13
 * relative to the norm), then s squarings.
 *
 * @throws {OutOfRangeError} where a t is not finite
 */
export function matrixExponential(a: Matrix, t: number): Matrix {
  const norm = rowNorm(a) * Math.abs(t);
  if (!Number.isFinite(norm)) throw new OutOfRangeError("matrix", norm, "finite");
  const squarings = Math.max(0, Math.ceil(Math.log2(Math.max(norm, 1e-300) * 2)));
  const scale = t / 2 ** squarings;
  const scaled = matrix(a.rows, a.columns);
  for (let n = 0; n < a.values.length; n++) scaled.values[n] = (a.values[n] as number) * scale;
  // Horner: I + X (I + X/2 (I + X/3 (...)))
  let sum = identityMatrix(a.rows);
  for (let term = 12; term >= 1; term--) {
    sum = multiply(scaled, sum);
    for (let n = 0; n < sum.values.length; n++) sum.values[n] = (sum.values[n] as number) / term;
    for (let n = 0; n < a.rows; n++) sum.values[n * a.rows + n] = (sum.values[n * a.rows + n] as number) + 1;
  }
  for (let n = 0; n < squarings; n++) sum = multiply(sum, sum);
  return sum;
}

/**
 * The x with least |a x - b|, by Householder reflections; a has at least as many rows as columns and full rank.
 *
 * @throws {OutOfRangeError} where a column depends on the others (relative 1e-14 of the largest column)
 */
export function leastSquares(a: Matrix, b: Float64Array): Float64Array {
  const { rows, columns } = a;
  const r = Float64Array.from(a.values);
  const y = Float64Array.from(b);
  const at = (row: number, column: number) => r[row * columns + column] as number;
  let largest = 0;
  for (let column = 0; column < columns; column++) {
    let squared = 0;
    for (let row = column; row < rows; row++) squared += at(row, column) ** 2;
    const length = Math.sqrt(squared);
    largest = Math.max(largest, length);
    if (!(length > 1e-14 * largest)) throw new OutOfRangeError("matrix", length, "of full rank");
    const head = at(column, column);
    const alpha = head > 0 ? -length : length;
    // v = x - alpha e1; beta = 2 / v.v = 1 / (length^2 - alpha head)
    const beta = 1 / (squared - alpha * head);
    r[column * columns + column] = head - alpha;
    for (let other = column + 1; other <= columns; other++) {
      const read = (row: number) => (other === columns ? (y[row] as number) : at(row, other));
      let dot = 0;
      for (let row = column; row < rows; row++) dot += at(row, column) * read(row);
      for (let row = column; row < rows; row++) {
        const value = read(row) - beta * dot * at(row, column);
        if (other === columns) y[row] = value;
        else r[row * columns + other] = value;
      }
    }
    r[column * columns + column] = alpha;
  }
  const x = new Float64Array(columns);
  for (let row = columns - 1; row >= 0; row--) {
    let sum = y[row] as number;
    for (let column = row + 1; column < columns; column++) sum -= at(row, column) * (x[column] as number);
    x[row] = sum / at(row, row);
  }
  return x;
}

import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { leastSquares, matrix, matrixExponential, multiply } from "./matrix";

const of = (rows: number, values: readonly number[]) => ({
  rows,
  columns: values.length / rows,
  values: Float64Array.from(values),
});

describe("matrixExponential", () => {
  it("turns a plane by the angle, also a large one", () => {
    const turned = matrixExponential(of(2, [0, -1, 1, 0]), 40);
    expect(turned.values[0]).toBeCloseTo(Math.cos(40), 11);
    expect(turned.values[2]).toBeCloseTo(Math.sin(40), 11);
  });
  it("takes a stiff decay to nothing rather than to infinity, and back steps undo", () => {
    expect(matrixExponential(of(1, [-1e9]), 1e-3).values[0]).toBe(0);
    const a = of(2, [0.3, 2, -1, 0.1]);
    const there = multiply(matrixExponential(a, 1), matrixExponential(a, -1)).values;
    [1, 0, 0, 1].forEach((value, n) => {
      expect(there[n]).toBeCloseTo(value, 12);
    });
    expect(() => matrixExponential(of(1, [Infinity]), 1)).toThrow(OutOfRangeError);
  });
});

describe("leastSquares", () => {
  it("solves a consistent system with a row too many", () => {
    const x = leastSquares(of(3, [2, 1, 1, 3, 1, 1]), Float64Array.from([4, 7, 3]));
    expect([...x].map((value) => Number(value.toFixed(9)))).toEqual([1, 2]);
  });
  it("refuses columns that depend on each other", () => {
    expect(() => leastSquares(of(2, [1, 2, 2, 4]), Float64Array.from([1, 2]))).toThrow(OutOfRangeError);
    expect(() => leastSquares(matrix(2, 2), new Float64Array(2))).toThrow(OutOfRangeError);
  });
});

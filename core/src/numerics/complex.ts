/** A complex number, rectangular. */
export interface Complex {
  readonly re: number;
  readonly im: number;
}

export const addComplex = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im });

/** 1/z; z must not be 0. */
export function reciprocalComplex(z: Complex): Complex {
  const squared = z.re * z.re + z.im * z.im;
  return { re: z.re / squared, im: -z.im / squared };
}

/** SI prefixes used on a bench, by typed letter. The micro sign is typed as u and printed as such. */
export const siPrefixes = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  m: 1e-3,
  "": 1,
  k: 1e3,
  M: 1e6,
  G: 1e9,
} as const;

export type SiPrefix = keyof typeof siPrefixes;

/** How a prefix is printed. */
export const printedPrefix = (prefix: SiPrefix): string => (prefix === "u" ? "µ" : prefix);

/** Decimal exponent of a prefix: exact scaling by text instead of by a rounded factor. */
export const prefixExponents: Readonly<Record<SiPrefix, number>> = {
  p: -12,
  n: -9,
  u: -6,
  m: -3,
  "": 0,
  k: 3,
  M: 6,
  G: 9,
};

/** One reference case, as the files hold it. */
export interface ReferenceCase {
  readonly family: string;
  readonly id: string;
  readonly inputs: Readonly<Record<string, unknown>>;
  readonly expected: unknown;
  readonly tolerance: number;
}

export interface Comparison {
  /** Largest |got - want| / max(|want|, 1e-6) over the numbers that agree in kind. */
  readonly worstRelativeError: number;
  readonly failure: { readonly key: string; readonly got: unknown; readonly want: unknown } | null;
}

/**
 * Compares leaf by leaf what was expected; keys that were not expected are ignored. Strings, booleans, nulls and list
 * lengths must be equal, numbers within the relative tolerance (JSON does not tell whole numbers from floats).
 */
export function compare(got: unknown, want: unknown, tolerance: number, key = ""): Comparison {
  const fails = (worstRelativeError = 0): Comparison => ({ worstRelativeError, failure: { key, got, want } });
  if (typeof want === "number") {
    if (typeof got !== "number") return fails();
    const error = Math.abs(got - want) / Math.max(Math.abs(want), 1e-6);
    return error <= tolerance ? { worstRelativeError: error, failure: null } : fails(error);
  }
  if (typeof want !== "object" || want === null) {
    return got === want ? { worstRelativeError: 0, failure: null } : fails();
  }
  if (typeof got !== "object" || got === null || Array.isArray(got) !== Array.isArray(want)) return fails();
  if (Array.isArray(want) && (got as unknown[]).length !== want.length) return fails();
  let worstRelativeError = 0;
  for (const [name, wanted] of Object.entries(want)) {
    const inner = compare((got as Record<string, unknown>)[name], wanted, tolerance, key ? `${key}.${name}` : name);
    worstRelativeError = Math.max(worstRelativeError, inner.worstRelativeError);
    if (inner.failure) return { worstRelativeError, failure: inner.failure };
  }
  return { worstRelativeError, failure: null };
}

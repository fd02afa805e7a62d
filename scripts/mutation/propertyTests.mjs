// Stands in for @fast-check/vitest while code is broken piece by piece: the same property tests under names that stay,
// always with the same values and a fifth of them, without a search for the smallest that fails, and without the seconds that the
// package takes to load for every piece.
import * as fc from "fast-check";
import { test as plain } from "vitest";

const seed = 20_261_128;
const usualRuns = 100;

function prop(arbitraries, parameters = {}) {
  return (name, check, timeout) => {
    const property = Array.isArray(arbitraries)
      ? fc.asyncProperty(...arbitraries, async (...values) => check(...values))
      : fc.asyncProperty(fc.record(arbitraries), async (values) => check(values));
    const numRuns = Math.ceil((parameters.numRuns ?? usualRuns) / 5);
    plain(name, () => fc.assert(property, { seed, endOnFailure: true, ...parameters, numRuns }), timeout);
  };
}

export const test = Object.assign((...args) => plain(...args), { prop, each: plain.each.bind(plain) });
export const it = test;
export { fc };

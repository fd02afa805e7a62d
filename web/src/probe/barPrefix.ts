import type { QuantityKind, SiPrefix } from "@pale-cap/core";

const prefixLadder: readonly SiPrefix[] = ["p", "n", "u", "m", "", "k", "M"];

/** The prefix in which the expectation is shown: a bare number takes it. */
export function expectedPrefix(quantity: QuantityKind, high: number | null): SiPrefix {
  if (quantity === "capacitance" || quantity === "leakage_current") return "u";
  if (quantity === "ripple_voltage") return "m";
  if (quantity !== "esr" || high === null) return "";
  return high < 1 ? "m" : "";
}

/** So many steps up or down the ladder; at its ends it stays where it was. */
export function shiftPrefix(prefix: SiPrefix, by: number): SiPrefix {
  return prefixLadder[prefixLadder.indexOf(prefix) + by] ?? prefix;
}

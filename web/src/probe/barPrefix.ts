import { type QuantityKind, type Section, type SiPrefix, sectionFacts } from "@pale-cap/core";

const prefixLadder: readonly SiPrefix[] = ["p", "n", "u", "m", "", "k", "M"];

/**
 * The prefix that a bare number takes: by what is read and where on the supply, never by the part at the probes, so that
 * it does not change under the hand from one part to the next.
 */
export function barPrefix(quantity: QuantityKind, section: Section | null): SiPrefix {
  if (quantity === "capacitance" || quantity === "leakage_current") return "u";
  if (quantity === "ripple_voltage") return "m";
  return quantity === "esr" && section !== null && sectionFacts[section].isSwitchingOutput ? "m" : "";
}

/** So many steps up or down the ladder; at its ends it stays where it was. */
export function shiftPrefix(prefix: SiPrefix, by: number): SiPrefix {
  return prefixLadder[prefixLadder.indexOf(prefix) + by] ?? prefix;
}

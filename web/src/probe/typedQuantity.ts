import type { QuantityKind } from "@pale-cap/core";

/** Words that may stand before a number to name the quantity. */
const spokenQuantities: Readonly<Record<string, QuantityKind>> = {
  esr: "esr",
  e: "esr",
  c: "capacitance",
  d: "dissipation",
  dc: "dc_voltage",
  v: "dc_voltage",
  ac: "ac_voltage",
  rip: "ripple_voltage",
  loss: "voltage_loss",
  leak: "leakage_current",
  r: "resistance",
  di: "diode_drop",
  t: "temperature",
  w: "power",
};

/** What was typed: perhaps a quantity word, then a number. */
export function typedQuantity(text: string): readonly [QuantityKind | null, string] {
  const match = /^\s*([a-z]+)\s+(.*)$/i.exec(text);
  const word = match?.[1]?.toLowerCase() ?? "";
  const spoken = Object.hasOwn(spokenQuantities, word) ? spokenQuantities[word] : undefined;
  return spoken && match ? [spoken, match[2] ?? ""] : [null, text];
}

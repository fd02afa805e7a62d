import {
  type BoardNet,
  type CircuitState,
  type Fixing,
  type PolarityMark,
  type QuantityKind,
  sectionFacts,
  type Unit,
  type VisualSign,
} from "@pale-cap/core";

export const signLabels: Readonly<Record<VisualSign, string>> = {
  domed: "domed top",
  vented: "vent open",
  burst: "burst",
  crust: "crust",
  leak: "leak at the base",
  base_lifted: "base lifted",
  sleeve_damaged: "sleeve shrunk or discoloured",
  board_browned: "board browned beneath",
  cracked_joint: "cracked joint",
  adhesive_brown: "adhesive brown",
};

export const markLabels: Readonly<Record<PolarityMark, string>> = {
  plus_printed: "plus printed",
  minus_printed: "minus printed",
  light_half: "white half",
  dark_half: "dark half",
  dot: "dot",
  none: "no mark",
};

export const fixingLabels: Readonly<Record<Fixing, string>> = {
  free: "by its leads only",
  glued: "glued",
  clamped: "clamped",
};

interface QuantityFacts {
  readonly label: string;
  /** Where there is no room for it. */
  readonly short?: string;
  readonly unit: Unit;
}

export const quantityFacts: Readonly<Record<QuantityKind, QuantityFacts>> = {
  esr: { label: "ESR", unit: "Ω" },
  capacitance: { label: "C", unit: "F" },
  dc_voltage: { label: "DC", unit: "V" },
  ripple_voltage: { label: "Ripple p-p", unit: "V" },
  voltage_loss: { label: "Charge loss", short: "Loss", unit: "%" },
  resistance: { label: "Ohms", unit: "Ω" },
  dissipation: { label: "D", unit: "" },
  leakage_current: { label: "Leakage", unit: "A" },
  ac_voltage: { label: "AC", unit: "V" },
  diode_drop: { label: "Diode", unit: "V" },
  temperature: { label: "Temperature", unit: "°C" },
  time: { label: "Time", unit: "s" },
  power: { label: "Power", unit: "W" },
  tester_band: { label: "Tester band", unit: "" },
  observation: { label: "Seen, heard, felt", unit: "" },
};

export const circuitLabels: Readonly<Record<CircuitState, string>> = {
  in_circuit: "in circuit",
  lead_lifted: "one lead lifted",
  out: "out of circuit",
};

/** A direction on the board as a person points: 0 is right, 90 is down. */
export function directionWord(degrees: number | null): string {
  if (degrees === null) return "not recorded";
  return ["right", "bottom", "left", "top"][Math.round(degrees / 90) % 4] as string;
}

/** A net by its name and where it lies; a net that is still named after its section is not named twice. */
export function netWords(net: Pick<BoardNet, "name" | "section"> | undefined): string {
  if (!net) return "no net";
  const { label } = sectionFacts[net.section];
  return net.name === label ? label : `${net.name}, ${label.toLowerCase()}`;
}

/** Names as a person lists them: up to four, then the first three and how many more. */
export function listWords(names: readonly string[]): string {
  if (names.length > 4) return `${names.slice(0, 3).join(", ")} and ${names.length - 3} more`;
  return names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
}

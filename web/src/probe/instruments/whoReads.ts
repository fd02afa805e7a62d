import type { InstrumentFunction, InstrumentKind } from "@pale-cap/contract";
import type { QuantityKind } from "@pale-cap/core";

/** Which kind of instrument reads a quantity, and by which of its functions; null where only a person does. */
export const whoReads: Readonly<
  Record<QuantityKind, { readonly kind: InstrumentKind; readonly function: InstrumentFunction } | null>
> = {
  esr: { kind: "lcr", function: "ESR" },
  capacitance: { kind: "lcr", function: "CAP" },
  dissipation: { kind: "lcr", function: "DISS" },
  voltage_loss: { kind: "lcr", function: "VLOS" },
  dc_voltage: { kind: "multimeter", function: "DCV" },
  ac_voltage: { kind: "multimeter", function: "ACV" },
  resistance: { kind: "multimeter", function: "OHMS" },
  diode_drop: { kind: "multimeter", function: "DIOD" },
  leakage_current: { kind: "multimeter", function: "LEAK" },
  ripple_voltage: { kind: "oscilloscope", function: "PKPK" },
  time: { kind: "oscilloscope", function: "STAR" },
  temperature: { kind: "thermometer", function: "TEMP" },
  power: { kind: "mains", function: "POW" },
  tester_band: null,
  observation: null,
};

/** Probe points as an instrument is told them: a designator, its pins, or a net. */
export function pointsText(name: string, terminals: string | undefined | null): string {
  if (!terminals?.includes(",")) return name;
  return terminals
    .split(",")
    .map((pin) => `${name}.${pin}`)
    .join(",");
}

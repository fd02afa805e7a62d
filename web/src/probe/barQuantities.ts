import type { PartKind, QuantityKind } from "@pale-cap/core";
import { type ProbeTarget, tipsTogether } from "../job/workplaceSlice";

/** Quantities at hand for a target, and those behind `more`, in the order in which a bench takes them. */
export interface BarQuantities {
  readonly main: readonly QuantityKind[];
  readonly more: readonly QuantityKind[];
}

const capacitor: BarQuantities = {
  main: ["esr", "capacitance", "voltage_loss", "dc_voltage"],
  more: ["dissipation", "leakage_current", "resistance", "tester_band", "temperature", "observation"],
};
const device: BarQuantities = {
  main: ["resistance", "diode_drop", "dc_voltage"],
  more: ["temperature", "tester_band", "observation"],
};
const rail: BarQuantities = {
  main: ["dc_voltage", "ripple_voltage", "ac_voltage"],
  more: ["time", "temperature", "leakage_current", "resistance", "observation"],
};
const tips: BarQuantities = { main: ["esr"], more: [] };
const unit: BarQuantities = { main: ["power", "time", "observation"], more: ["temperature", "ac_voltage"] };

export function barQuantities(target: ProbeTarget | undefined, kind: PartKind | undefined): BarQuantities {
  if (target?.kind === "unit") return target.terminals === tipsTogether ? tips : unit;
  if (target?.kind === "rail") return rail;
  return kind === undefined || kind === "electrolytic" || kind === "film" ? capacitor : device;
}

/** The wanted quantity where it fits the target, else the first one that does. */
export function fittingQuantity(wanted: QuantityKind, fitting: BarQuantities): QuantityKind {
  return fitting.main.includes(wanted) || fitting.more.includes(wanted) ? wanted : (fitting.main[0] as QuantityKind);
}

/** Taken with the unit under power, so that the charge watch draws its conclusion. */
export function isUnderPower(target: ProbeTarget, quantity: QuantityKind): boolean {
  if (target.kind === "part") return false;
  // Ohms and what a nose says need no power; a test from a bench supply feeds the board without the mains.
  if (quantity === "resistance" || quantity === "observation" || quantity === "leakage_current") return false;
  return target.terminals === undefined;
}

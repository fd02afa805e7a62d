/**
 * gp: general purpose; lowz: low impedance; ultra: very low impedance; polymer: solid conductive polymer; hybrid: polymer
 * with a little liquid beside it.
 */
export type LiquidCapacitorClass = "gp" | "lowz" | "ultra";
export type CapacitorClass = LiquidCapacitorClass | "polymer" | "hybrid";

export const capacitorClasses: readonly CapacitorClass[] = ["gp", "lowz", "ultra", "polymer", "hybrid"];

/** Current goes through polymer: ESR that hardly changes with temperature, and a loop that may not bear so little of it. */
export function hasPolymer(capacitorClass: CapacitorClass): capacitorClass is "polymer" | "hybrid" {
  return capacitorClass === "polymer" || capacitorClass === "hybrid";
}

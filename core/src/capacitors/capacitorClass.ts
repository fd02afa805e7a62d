/** gp: general purpose; lowz: low impedance; ultra: very low impedance; polymer: solid conductive polymer. */
export type LiquidCapacitorClass = "gp" | "lowz" | "ultra";
export type CapacitorClass = LiquidCapacitorClass | "polymer";

export const capacitorClasses: readonly CapacitorClass[] = ["gp", "lowz", "ultra", "polymer"];

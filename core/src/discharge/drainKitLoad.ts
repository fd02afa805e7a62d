import type { DrainKitItem } from "../facts/drainKit";
import type { DrainLoad } from "./drainPath";
import { lampFromRating } from "./drainPath";
/** Equal bodies in series as one: resistances add, each filament takes its share of the power. */
export function drainKitLoad({ kind, count, ohms, watts, volts }: DrainKitItem): DrainLoad {
  if (kind === "resistor") return { kind, ohms: (ohms ?? 0) * count };
  const one = lampFromRating(volts, watts);
  return {
    kind,
    lamp: {
      ...one,
      coldOhms: one.coldOhms * count,
      thermalResistanceKelvinPerWatt: one.thermalResistanceKelvinPerWatt / count,
      heatCapacityJoulesPerKelvin: one.heatCapacityJoulesPerKelvin * count,
    },
  };
}

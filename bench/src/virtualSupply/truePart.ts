import type { ScenarioCapacitor } from "@pale-cap/contract";
import { expectedEsr, seriesResistanceTemperatureFactor } from "@pale-cap/core";
import { fatedFoil } from "./fatedFoil";
import { foilImpedance } from "./foil";

/** A capacitor as it really is at a temperature and frequency: what no instrument shows without its own errors. */
export interface TruePart {
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly eslHenrys: number;
  readonly leakageOhms: number | null;
}

/** Inductance of a radial can of usual size. */
const eslHenrys = 12e-9;

/** What is left of a part that is open. */
const [openFarads, openOhms] = [20e-12, 50e6];

/** Sound parts leak a little: a time constant of minutes, as a formed oxide has. */
const formedSeconds = 400;

/**
 * The true part of a scenario: core's typical new part, times what has happened to it. Liquid electrolytes lose some
 * capacitance in the cold, 0.25 % for each kelvin.
 */
export function truePart(part: ScenarioCapacitor, temperatureCelsius: number, frequencyHertz: number): TruePart {
  if (part.fate) return byFoil(part, temperatureCelsius, frequencyHertz);
  const [microfarads = 1, ratedVolts = 1] = part.marking;
  const [diameter = 5, height = 11] = part.can;
  const marked = microfarads / 1e6;
  const fresh = expectedEsr({
    capacitanceFarads: marked,
    ratedVolts,
    capacitorClass: part.capacitorClass,
    diameterMetres: diameter / 1e3,
    heightMetres: height / 1e3,
    frequencyHertz,
    temperatureCelsius: 20,
  });
  const { factorRatio } = seriesResistanceTemperatureFactor(temperatureCelsius, part.capacitorClass);
  const oxideOhms = fresh.typicalOhms - fresh.seriesResistance20CelsiusOhms;
  const cold =
    part.capacitorClass === "polymer" ? 1 : 1 + 0.0025 * Math.min(Math.max(temperatureCelsius - 20, -40), 60);
  const capacitanceFarads = marked * part.capacitanceRatio * cold;
  return {
    capacitanceFarads,
    esrOhms: part.esrRatio * fresh.seriesResistance20CelsiusOhms * factorRatio + Math.max(oxideOhms, 0),
    eslHenrys,
    leakageOhms: part.leakageOhms ?? formedSeconds / marked,
  };
}

/** A part that is told as a foil: what it shows at this frequency and temperature, its leak apart. */
function byFoil(part: ScenarioCapacitor, temperatureCelsius: number, frequencyHertz: number): TruePart {
  const foil = fatedFoil(part);
  const z = foilImpedance({ ...foil, leakOhms: Number.POSITIVE_INFINITY }, frequencyHertz, temperatureCelsius);
  if (!z) return { capacitanceFarads: openFarads, esrOhms: openOhms, eslHenrys, leakageOhms: null };
  return {
    capacitanceFarads: -1 / (2 * Math.PI * frequencyHertz * z.im),
    esrOhms: z.re,
    eslHenrys,
    leakageOhms: Number.isFinite(foil.leakOhms) ? foil.leakOhms : formedSeconds / foil.farads,
  };
}

import {
  type CapacitorClass,
  canImpedance,
  canSurfaceSquareMetres,
  expectedEsr,
  hasPolymer,
  pseudoRatedRippleAmpsRms,
} from "@pale-cap/core";
import type { CataloguePartRow } from "../models/catalogueParts";

/** An invented series: everything that its parts share. */
interface Series {
  readonly maker: string;
  readonly series: string;
  readonly capacitorClass: CapacitorClass;
  readonly temperatureClassCelsius: number;
  readonly ratedVolts: readonly number[];
  /** Life by can: small, medium (from 8 mm), large (from 12.5 mm). */
  readonly lifeHours: readonly [number, number, number];
  /** C times V per cubic centimetre of can. */
  readonly densityCoulombPerCubicCentimetre: number;
  readonly priceFactor: number;
}

const lowVolts = [6.3, 10, 16, 25, 35, 50, 63, 100];
const highVolts = [160, 200, 250, 400, 420, 450];

const seriesList: readonly Series[] = [
  series("Kelpin", "Tern", "lowz", 105, lowVolts, [2000, 4000, 6000], 0.0165, 1),
  series("Kelpin", "Plover", "ultra", 105, [6.3, 10, 16, 25, 35], [2000, 5000, 7000], 0.0162, 1.5),
  series("Hesperal", "Marl", "gp", 85, lowVolts, [2000, 2000, 2000], 0.02, 0.5),
  series("Hesperal", "Loam", "gp", 105, lowVolts, [1000, 2000, 2000], 0.018, 0.6),
  series("Ostrel", "Brook", "lowz", 105, lowVolts, [4000, 7000, 10000], 0.0135, 1.6),
  series("Ostrel", "Basalt", "lowz", 105, highVolts, [3000, 5000, 8000], 0.0046, 1.3),
  series("Hesperal", "Shale", "gp", 105, highVolts, [2000, 2000, 3000], 0.0052, 1),
  series("Dunmarrow", "Flint", "polymer", 105, [6.3, 10, 16, 25], [2000, 3000, 5000], 0.0125, 2.2),
];

function series(
  maker: string,
  name: string,
  capacitorClass: CapacitorClass,
  temperatureClassCelsius: number,
  ratedVolts: readonly number[],
  lifeHours: readonly [number, number, number],
  density: number,
  priceFactor: number,
): Series {
  return {
    maker,
    series: name,
    capacitorClass,
    temperatureClassCelsius,
    ratedVolts,
    lifeHours,
    densityCoulombPerCubicCentimetre: density,
    priceFactor,
  };
}

/** Diameter, heights, pitch in millimetres: the radial cans of the can-size table, polymer cans, snap-in cans. */
const radialCans: readonly (readonly [number, readonly number[], number])[] = [
  [5, [11], 2],
  [6.3, [11], 2.5],
  [8, [11.5, 15, 20], 3.5],
  [10, [12.5, 16, 20, 25], 5],
  [12.5, [20, 25, 30, 35], 5],
  [16, [20, 25, 31.5, 35.5, 40], 7.5],
  [18, [20, 25, 31.5, 35.5, 40], 7.5],
];
const polymerCans: typeof radialCans = [
  [5, [8], 2],
  [6.3, [8, 11], 2.5],
  [8, [8, 11.5], 3.5],
  [10, [10, 12.5], 5],
];
const snapInCans: typeof radialCans = [
  [22, [25, 30, 35, 40, 45], 10],
  [25, [25, 30, 35, 40, 45, 50], 10],
  [30, [25, 30, 35, 40, 45, 50], 10],
];

const e12 = [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2];
const e6 = [1, 1.5, 2.2, 3.3, 4.7, 6.8];
/** Microfarads: E6 steps below 100, E12 above. */
const capacitances = [
  ...[1, 10].flatMap((decade) => e6.map((mantissa) => mantissa * decade)),
  ...[100, 1000].flatMap((decade) => e12.map((mantissa) => mantissa * decade)),
].filter((value) => value <= 6800);

interface Can {
  readonly diameterMm: number;
  readonly heightMm: number;
  readonly pitchMm: number;
  readonly cubicCentimetres: number;
}

/**
 * An invented catalogue whose numbers hang together: the can follows from C and V, maximum ESR and rated ripple from
 * the can (physics of the can-size table), life from series and size. The seed decides gaps and prices only.
 *
 * @param random numbers in [0, 1)
 */
export function generateCatalogue(random: () => number): CataloguePartRow[] {
  return seriesList.flatMap((one) =>
    one.ratedVolts.flatMap((ratedVolts) =>
      capacitances.flatMap((microfarads) =>
        // A radial series offers the smallest can that holds the value and, for most values, a slimmer, taller one.
        cansFor(one, ratedVolts, microfarads)
          .filter((_, index) => index === 0 || random() < 0.6)
          .filter(() => random() > 0.08)
          .map((can) => toPart(one, ratedVolts, microfarads / 1e6, can, random)),
      ),
    ),
  );
}

function cansFor(one: Series, ratedVolts: number, microfarads: number): Can[] {
  const needed = (microfarads * 1e-6 * ratedVolts) / one.densityCoulombPerCubicCentimetre;
  const isHighVoltage = ratedVolts > 100;
  const table =
    one.capacitorClass === "polymer"
      ? polymerCans
      : isHighVoltage
        ? [...radialCans.slice(3), ...snapInCans]
        : radialCans;
  const cans = table.flatMap(([diameterMm, heights, pitchMm]) =>
    heights.map(
      (heightMm): Can => ({
        diameterMm,
        heightMm,
        pitchMm,
        cubicCentimetres: (Math.PI * diameterMm ** 2 * heightMm) / 4000,
      }),
    ),
  );
  // Nobody makes a 1 uF part in a can ten times too large.
  const fitting = cans
    .filter((can) => can.cubicCentimetres >= needed && can.cubicCentimetres <= Math.max(needed * 2.2, 0.25))
    .sort((a, b) => a.cubicCentimetres - b.cubicCentimetres);
  const smallest = fitting[0];
  if (!smallest) return [];
  const slimmer = fitting.find((can) => can.diameterMm < smallest.diameterMm);
  const wider = fitting.find((can) => can.diameterMm > smallest.diameterMm);
  return [smallest, ...[slimmer, wider].filter((can) => can !== undefined)];
}

function toPart(
  one: Series,
  ratedVolts: number,
  capacitanceFarads: number,
  can: Can,
  random: () => number,
): CataloguePartRow {
  const { capacitorClass } = one;
  const diameterMetres = can.diameterMm / 1e3;
  const heightMetres = can.heightMm / 1e3;
  const size = { diameterMetres, heightMetres, ratedVolts };
  const esrOhms = expectedEsr({
    ...size,
    capacitanceFarads,
    capacitorClass,
    frequencyHertz: 100e3,
    temperatureCelsius: 20,
  }).highOhms;
  const rippleAmpsRms =
    !hasPolymer(capacitorClass) && ratedVolts <= 100
      ? canImpedance({ ...size, capacitorClass }).ratedRippleAmpsRms
      : pseudoRatedRippleAmpsRms(canSurfaceSquareMetres(diameterMetres, heightMetres), esrOhms);
  const lifeHours = one.lifeHours[can.diameterMm >= 12.5 ? 2 : can.diameterMm >= 8 ? 1 : 0] as number;
  const price = (8 + 22 * can.cubicCentimetres) * one.priceFactor * (0.85 + 0.3 * random());
  return {
    id: uuidFrom(random),
    maker: one.maker,
    series: one.series,
    capacitorClass,
    capacitanceFarads: round(capacitanceFarads),
    ratedVolts,
    temperatureClassCelsius: one.temperatureClassCelsius,
    diameterMetres: round(diameterMetres),
    heightMetres: round(heightMetres),
    pitchMetres: round(can.pitchMm / 1e3),
    esrOhms: round(esrOhms),
    rippleAmpsRms: round(rippleAmpsRms),
    ratedLifeHours: lifeHours,
    priceMinor: Math.round(price),
    // Letters of the series, volts, value and can: told apart as its sheet would.
    orderCode: `${one.series.slice(0, 2).toUpperCase()}${ratedVolts}V${Number((capacitanceFarads * 1e6).toPrecision(3))}-${can.diameterMm}X${can.heightMm}`,
    printed: null,
    source: null,
  };
}

/** Catalogues print three digits. */
function round(value: number): number {
  return Number(value.toPrecision(3));
}

/** A repeatable id in the shape of a random UUID. */
export function uuidFrom(random: () => number): string {
  const hex = (digits: number) => Array.from({ length: digits }, () => Math.floor(random() * 16).toString(16)).join("");
  return `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`;
}

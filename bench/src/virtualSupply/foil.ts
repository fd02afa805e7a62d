/**
 * A wound electrolytic as its foil, its paper and its tabs: the truth of the unkind study, and nothing of core's.
 *
 *     Z = R_tab + R_paper k(T) + sqrt(R_pore k(T) / jwC) coth sqrt(jwC R_pore k(T)) + tan d_oxide / wC
 *     k(T) = exp(B / (T - T0)) / k(20)
 *
 * The etched foil is a transmission line of pores filled with electrolyte (R. de Levie, "On porous electrodes in electrolyte
 * solutions", Electrochimica Acta 8, 1963); the electrolyte thickens in the cold after Vogel, Fulcher and Tammann. As it dries,
 * pores lose their wetting: capacitance falls with their share, and what remains wet conducts by a power of it.
 */
export interface Foil {
  readonly farads: number;
  readonly tabOhms: number;
  readonly paperOhms: number;
  readonly poreOhms: number;
  /** Parallel to it; Infinity where nothing leaks. */
  readonly leakOhms: number;
  readonly isOpen: boolean;
}

export interface Impedance {
  readonly re: number;
  readonly im: number;
}

const oxideLoss = 0.008;
const vogelKelvin = 608;
const vogelZeroCelsius = -128;
const referenceHertz = 100e3;

/** Share of the tabs in what a new part shows at 100 kHz and 20 degrees, and what its paper has at least. */
const [tabShare, leastPaperShare] = [0.1, 0.25];
const lossHertz = 120;

/**
 * A new part that shows so many ohms at 100 kHz and loses so much at 120 Hz, both at 20 degrees. Its pores are what the two tell
 * apart: their whole length counts at 120 Hz, R/3, and only their mouths at 100 kHz, sqrt(R / 2wC).
 *
 * @param lossRatio tan delta at 120 Hz: sheets allow 0.1 to 0.25, usual parts have half of it
 */
export function newFoil(farads: number, ohms: number, lossRatio: number): Foil {
  const reactanceOhms = 1 / (2 * Math.PI * lossHertz * farads);
  const wanted = 3 * Math.max((lossRatio - oxideLoss) * reactanceOhms - 0.8 * ohms, 0.05 * ohms);
  const mouth = (poreOhms: number) => Math.sqrt(poreOhms / (2 * 2 * Math.PI * referenceHertz * farads));
  const mostMouth = (1 - tabShare - leastPaperShare) * ohms;
  const poreOhms = mouth(wanted) <= mostMouth ? wanted : 2 * (2 * Math.PI * referenceHertz * farads) * mostMouth ** 2;
  return {
    farads,
    tabOhms: tabShare * ohms,
    paperOhms: (1 - tabShare) * ohms - mouth(poreOhms),
    poreOhms,
    leakOhms: Number.POSITIVE_INFINITY,
    isOpen: false,
  };
}

/**
 * Dried until so much of the foil is wet.
 *
 * @param wetRatio of the foil, above 0 and at most 1
 * @param steepness power by which what is wet conducts: 2 to 6
 */
export function dried(foil: Foil, wetRatio: number, steepness: number): Foil {
  return {
    ...foil,
    farads: foil.farads * wetRatio,
    paperOhms: foil.paperOhms / wetRatio ** steepness,
    poreOhms: foil.poreOhms / wetRatio ** (steepness - 1),
  };
}

const thickness = (celsius: number) =>
  Math.exp(vogelKelvin / (celsius - vogelZeroCelsius) - vogelKelvin / (20 - vogelZeroCelsius));

/** Of the part alone, its leak beside it; null: it is open. */
export function foilImpedance(foil: Foil, hertz: number, celsius: number): Impedance | null {
  if (foil.isOpen) return null;
  const omega = 2 * Math.PI * hertz;
  const k = thickness(celsius);
  const pore = poreImpedance(foil.poreOhms * k, foil.farads, omega);
  const series = {
    re: foil.tabOhms + foil.paperOhms * k + pore.re + oxideLoss / (omega * foil.farads),
    im: pore.im,
  };
  return Number.isFinite(foil.leakOhms) ? parallel([series, { re: foil.leakOhms, im: 0 }]) : series;
}

/** sqrt(R / jwC) coth sqrt(jwCR), written out: with u = sqrt(wCR / 2) the root is u (1 + j). */
function poreImpedance(ohms: number, farads: number, omega: number): Impedance {
  const u = Math.sqrt((omega * farads * ohms) / 2);
  // coth(u + ju) = (sinh 2u - j sin 2u) / (cosh 2u - cos 2u)
  const far = u > 20;
  const below = far ? 1 : Math.cosh(2 * u) - Math.cos(2 * u);
  const [re, im] = far ? [1, 0] : [Math.sinh(2 * u) / below, -Math.sin(2 * u) / below];
  // sqrt(R / jwC) = sqrt(R / wC) (1 - j) / sqrt 2
  const root = Math.sqrt(ohms / (2 * omega * farads));
  return { re: root * (re + im), im: root * (im - re) };
}

/** All in parallel. */
export function parallel(parts: readonly Impedance[]): Impedance {
  let [g, b] = [0, 0];
  for (const { re, im } of parts) {
    const square = re ** 2 + im ** 2;
    g += re / square;
    b -= im / square;
  }
  const square = g ** 2 + b ** 2;
  return { re: g / square, im: -b / square };
}

export const inSeries = (a: Impedance, b: Impedance): Impedance => ({ re: a.re + b.re, im: a.im + b.im });

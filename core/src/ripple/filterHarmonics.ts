import { addComplex, type Complex, reciprocalComplex } from "../numerics/complex";
import type { FilterCapacitor, FilterNetwork } from "./filterNetwork";
import { type SourceCurrent, sourceHarmonic } from "./sourceCurrent";

export interface CapacitorHarmonic {
  readonly frequencyHertz: number;
  readonly ampsRms: number;
}

/**
 * Current into each capacitor of a filter, harmonic by harmonic: the source's harmonic divided among the branches by their
 * admittances, before and behind the choke.
 *
 *     V1 = I / (Y1 + 1/(Zc + 1/Y2)),  V2 = V1 (1/Y2) / (Zc + 1/Y2),  Ik = V / zk
 *
 * The same linear filter as in `steadyRipple`, in the frequency domain: what the life model needs, which weighs every
 * frequency by itself. Exact for each harmonic; the sum over the first ones leaves out what steep edges hold above.
 *
 * @returns for each capacitor, `before` first, its harmonics from the first on
 */
export function filterHarmonics(
  source: SourceCurrent,
  network: FilterNetwork,
  harmonicCount: number,
): readonly (readonly CapacitorHarmonic[])[] {
  const parts = [...network.before, ...network.after];
  const spectra: CapacitorHarmonic[][] = parts.map(() => []);
  for (let order = 1; order <= harmonicCount; order++) {
    const frequencyHertz = order / source.periodSeconds;
    const omega = 2 * Math.PI * frequencyHertz;
    const current = sourceHarmonic(source, order);
    const before = network.before.map((part) => admittance(part, omega));
    const after = network.after.map((part) => admittance(part, omega));
    const sum = (list: readonly Complex[]) => list.reduce(addComplex, { re: 0, im: 0 });
    let total = sum(before);
    let share: Complex = { re: 0, im: 0 };
    if (network.choke && after.length > 0) {
      const second = reciprocalComplex(sum(after));
      const behind = addComplex(
        { re: network.choke.resistanceOhms, im: omega * network.choke.inductanceHenrys },
        second,
      );
      total = addComplex(total, reciprocalComplex(behind));
      share = times(second, reciprocalComplex(behind));
    }
    const first = times(current, reciprocalComplex(total));
    const second = times(first, share);
    [...before.map((y) => times(first, y)), ...after.map((y) => times(second, y))].forEach((amps, n) => {
      spectra[n]?.push({ frequencyHertz, ampsRms: Math.hypot(amps.re, amps.im) / Math.SQRT2 });
    });
  }
  return spectra;
}

/** ESR - ESL - C, with the leakage across C. */
function admittance(part: FilterCapacitor, omega: number): Complex {
  const leakage = part.leakageOhms == null ? 0 : 1 / part.leakageOhms;
  const inner = reciprocalComplex({ re: leakage, im: omega * part.capacitanceFarads });
  return reciprocalComplex({ re: part.esrOhms + inner.re, im: omega * (part.eslHenrys ?? 0) + inner.im });
}

function times(a: Complex, b: Complex): Complex {
  return { re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re };
}

import { addComplex, type Complex, reciprocalComplex } from "../numerics/complex";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";
import type { BankNetwork } from "./bank";

/** What hangs on a probe beside the capacitors, checked once. */
export interface CheckedNetwork {
  readonly parallelSiemens: number;
  /** Impedance of the choke at the frequency; null: none, all parts are joined. */
  readonly choke: Complex | null;
  readonly leadOhms: number;
}

/** @throws {OutOfRangeError} resistances below 0, a parallel load or choke not above 0 */
export function checkedNetwork(network: BankNetwork, omega: number): CheckedNetwork {
  const chokeOhms = requireNonNegative("chokeOhms", network.chokeOhms ?? 0);
  const chokeHenrys = network.chokeHenrys ?? null;
  return {
    parallelSiemens: network.parallelOhms == null ? 0 : 1 / requirePositive("parallelOhms", network.parallelOhms),
    choke: chokeHenrys === null ? null : { re: chokeOhms, im: omega * requirePositive("chokeHenrys", chokeHenrys) },
    leadOhms: requireNonNegative("leadOhms", network.leadOhms ?? 0),
  };
}

/** Admittance of one capacitor as a series branch. */
export function capacitorAdmittance(
  part: { readonly capacitanceFarads: number; readonly esrOhms: number; readonly eslHenrys?: number },
  omega: number,
): Complex {
  return reciprocalComplex({
    re: requirePositive("esrOhms", part.esrOhms),
    im:
      omega * requireNonNegative("eslHenrys", part.eslHenrys ?? 0) -
      1 / (omega * requirePositive("capacitanceFarads", part.capacitanceFarads)),
  });
}

/**
 * What the probe sees of summed admittances at it and behind the choke; null where nothing conducts.
 *
 * @param behind null: no part behind the choke
 */
export function probeImpedance(network: CheckedNetwork, atProbe: Complex, behind: Complex | null): Complex | null {
  let total: Complex = { re: atProbe.re + network.parallelSiemens, im: atProbe.im };
  if (network.choke && behind) {
    total = addComplex(total, reciprocalComplex(addComplex(network.choke, reciprocalComplex(behind))));
  }
  if (total.re === 0 && total.im === 0) return null;
  const z = reciprocalComplex(total);
  return { re: z.re + network.leadOhms, im: z.im };
}

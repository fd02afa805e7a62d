import { OutOfRangeError } from "../errors";
import { addComplex, type Complex } from "../numerics/complex";
import { requirePositive } from "../numerics/requireRange";
import type { BankCapacitor, BankNetwork } from "./bank";
import { capacitorAdmittance, checkedNetwork, probeImpedance } from "./probeImpedance";

export interface BankImpedance {
  readonly resistanceOhms: number;
  readonly reactanceOhms: number;
  readonly magnitudeOhms: number;
  /** Apparent series capacitance; null where the bank looks inductive. */
  readonly capacitanceFarads: number | null;
}

/**
 * Impedance that a probe sees of one to eight capacitors in parallel, part of them perhaps behind a choke.
 *
 *     Y = sum 1/z_k + 1/Rp + 1/(Rchoke + jwL + 1/Y_behind),  Z = 1/Y + Rlead
 *
 * Without a choke all parts are joined at the probe. Solid.
 *
 * @throws {OutOfRangeError} no or more than eight parts, values not above 0, nothing conducting at the probe
 */
export function bankImpedance(
  capacitors: readonly BankCapacitor[],
  frequencyHertz: number,
  network: BankNetwork = {},
): BankImpedance {
  if (capacitors.length < 1 || capacitors.length > 8) {
    throw new OutOfRangeError("capacitors", capacitors.length, "one to eight parts");
  }
  const omega = 2 * Math.PI * requirePositive("frequencyHertz", frequencyHertz);
  const around = checkedNetwork(network, omega);
  let atProbe: Complex = { re: 0, im: 0 };
  let behind: Complex | null = null;
  for (const part of capacitors) {
    const admittance = capacitorAdmittance(part, omega);
    if (around.choke && part.isBehindChoke) behind = addComplex(behind ?? { re: 0, im: 0 }, admittance);
    else atProbe = addComplex(atProbe, admittance);
  }
  const z = probeImpedance(around, atProbe, behind);
  if (!z) throw new OutOfRangeError("capacitors", 0, "connected to the probe");
  return {
    resistanceOhms: z.re,
    reactanceOhms: z.im,
    magnitudeOhms: Math.hypot(z.re, z.im),
    capacitanceFarads: z.im < 0 ? -1 / (omega * z.im) : null,
  };
}

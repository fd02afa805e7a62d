import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { bracketedRoot } from "../numerics/bracketedRoot";
import { requirePositive } from "../numerics/requireRange";
import type { BankCapacitor, BankNetwork } from "./bank";
import { capacitorAdmittance, checkedNetwork, probeImpedance } from "./probeImpedance";

export interface MaskingLimit {
  /** Up to so many times its ESR the part stays hidden; Infinity: it never shows. */
  readonly hiddenMultiple: number;
  readonly nominalOhms: number;
  /** Reading without the part against the nominal one; Infinity where nothing remains. */
  readonly openRatio: number;
}

/**
 * How bad one part of a bank can be before the reading shows it: the multiple of its ESR at which Re Z leaves
 * (1 + tolerance) of nominal, scanned upward in even steps of its logarithm and then by bracketedRoot between two steps.
 * Solid; the first crossing counts, also where the reading falls again beyond it.
 *
 * @throws {OutOfRangeError} no or more than eight parts, an index outside, a tolerance not above 0
 */
export function maskingLimit(
  capacitors: readonly BankCapacitor[],
  index: number,
  frequencyHertz: number,
  toleranceRatio: number,
  network: BankNetwork = {},
  constants: JudgementConstants["C"] = judgementConstants.C,
): MaskingLimit {
  if (capacitors.length < 1 || capacitors.length > 8) {
    throw new OutOfRangeError("capacitors", capacitors.length, "one to eight parts");
  }
  const own = capacitors[index];
  if (!Number.isInteger(index) || !own) throw new OutOfRangeError("index", index, "the place of a part");
  requirePositive("toleranceRatio", toleranceRatio);
  const omega = 2 * Math.PI * requirePositive("frequencyHertz", frequencyHertz);
  const around = checkedNetwork(network, omega);
  const hasChoke = around.choke !== null;
  const admittances = capacitors.map((part) => capacitorAdmittance(part, omega));
  const resistance = (ownAdmittance: { readonly re: number; readonly im: number } | null): number | null => {
    let atProbe = { re: 0, im: 0 };
    let behind: { re: number; im: number } | null = null;
    capacitors.forEach((part, n) => {
      const y = n === index ? ownAdmittance : (admittances[n] ?? null);
      if (!y) return;
      if (hasChoke && part.isBehindChoke) behind = { re: (behind?.re ?? 0) + y.re, im: (behind?.im ?? 0) + y.im };
      else atProbe = { re: atProbe.re + y.re, im: atProbe.im + y.im };
    });
    return probeImpedance(around, atProbe, behind)?.re ?? null;
  };
  const at = (multiple: number) =>
    resistance(capacitorAdmittance({ ...own, esrOhms: own.esrOhms * multiple }, omega)) ?? 0;
  const nominalOhms = at(1);
  const limit = (1 + toleranceRatio) * nominalOhms;
  const without = resistance(null);
  return {
    hiddenMultiple: firstCrossing(at, limit, constants),
    nominalOhms,
    openRatio: without === null ? Infinity : without / nominalOhms,
  };
}

function firstCrossing(at: (multiple: number) => number, limit: number, constants: JudgementConstants["C"]): number {
  let before = 1;
  for (let step = 1; step <= constants.scan_n; step++) {
    const multiple = constants.scan_max ** (step / constants.scan_n);
    if (at(multiple) > limit) {
      // Multiples span decades: their logarithms are halved.
      return Math.exp(bracketedRoot((log) => at(Math.exp(log)) - limit, Math.log(before), Math.log(multiple)));
    }
    before = multiple;
  }
  return Infinity;
}

/**
 * The same for pure resistances, in closed form.
 *
 *     m = gk (1 + tol) / (gk - tol go),  g = 1 / ESR;  Infinity where the others carry it whatever happens
 *
 * @throws {OutOfRangeError} resistances or tolerance not above 0, an index outside
 */
export function maskingLimitOfResistances(esrOhms: readonly number[], index: number, toleranceRatio: number): number {
  requirePositive("toleranceRatio", toleranceRatio);
  const conductances = esrOhms.map((esr) => 1 / requirePositive("esrOhms", esr));
  const own = conductances[index];
  if (!Number.isInteger(index) || own === undefined) throw new OutOfRangeError("index", index, "the place of a part");
  const others = conductances.reduce((sum, one) => sum + one, 0) - own;
  const left = own - toleranceRatio * others;
  return left <= 1e-9 * own ? Infinity : (own * (1 + toleranceRatio)) / left;
}

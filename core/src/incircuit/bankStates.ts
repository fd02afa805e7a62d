import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import type { Complex } from "../numerics/complex";
import { requirePositive } from "../numerics/requireRange";
import type { BankCapacitor, BankNetwork } from "./bankImpedance";
import { capacitorAdmittance, checkedNetwork, probeImpedance } from "./probeImpedance";

export interface BankReading {
  /** Resistive part, leads included. */
  readonly resistanceOhms: number;
  /** Apparent capacitance at the same frequency; null: not read. */
  readonly capacitanceFarads: number | null;
  readonly resistanceUncertaintyRatio: number;
  readonly capacitanceUncertaintyRatio: number;
}

export type BankStateVerdict = "cleared" | "condemned" | "masked" | "inconsistent";

export interface BankStates {
  /** How many combinations of states agree with the reading, at 99 %. */
  readonly consistentCount: number;
  readonly parts: readonly { readonly badProbability: number | null; readonly verdict: BankStateVerdict }[];
  readonly leastBad: number | null;
  readonly mostBad: number | null;
  /** No part failed or open; worn counts as in order. */
  readonly allInOrderProbability: number | null;
}

/**
 * Probability that each part of a bank is bad, by listing all states: healthy, worn, failed, open.
 *
 *     chi2 = (ln(R / Re Z) / uR)^2 [+ (ln(C / Cz) / uC)^2],  weight = product of priors x e^(-chi2 / 2)
 *
 * Combinations beyond the 99 % quantile are left out. One to eight parts; 4^n combinations, each one sum of admittances
 * deeper than the last. The method is solid, the states and priors are rough.
 *
 * @throws {OutOfRangeError} no or more than eight parts, values not above 0
 */
export function bankStates(
  capacitors: readonly BankCapacitor[],
  frequencyHertz: number,
  reading: BankReading,
  network: BankNetwork = {},
  constants: JudgementConstants["C"] = judgementConstants.C,
): BankStates {
  const count = capacitors.length;
  if (count < 1 || count > 8) throw new OutOfRangeError("capacitors", count, "one to eight parts");
  const omega = 2 * Math.PI * requirePositive("frequencyHertz", frequencyHertz);
  const around = checkedNetwork(network, omega);
  const lnR = Math.log(requirePositive("resistanceOhms", reading.resistanceOhms));
  const lnC =
    reading.capacitanceFarads === null
      ? null
      : Math.log(requirePositive("capacitanceFarads", reading.capacitanceFarads));
  const uR = requirePositive("resistanceUncertaintyRatio", reading.resistanceUncertaintyRatio);
  const uC = requirePositive("capacitanceUncertaintyRatio", reading.capacitanceUncertaintyRatio);
  const limit = constants.chi2[lnC === null ? "1" : "2"];
  const states = Object.entries(constants.states).map(([name, [esrFactor, farads, prior]]) => ({
    isBad: name === "failed" || name === "open",
    esrFactor,
    farads,
    prior,
  }));
  const options = capacitors.map((part) =>
    states.map(({ esrFactor, farads, prior, isBad }) => ({
      isBad,
      prior,
      admittance:
        esrFactor === null
          ? null
          : capacitorAdmittance(
              { ...part, esrOhms: part.esrOhms * esrFactor, capacitanceFarads: part.capacitanceFarads * farads },
              omega,
            ),
    })),
  );

  const badWeight = new Float64Array(count);
  const seenBad = new Array<boolean>(count).fill(false);
  const seenGood = new Array<boolean>(count).fill(false);
  const isBad = new Array<boolean>(count).fill(false);
  let [total, inOrder, consistentCount, leastBad, mostBad] = [0, 0, 0, count + 1, -1];

  const descend = (index: number, atProbe: Complex, behind: Complex | null, prior: number, badCount: number): void => {
    if (index === count) {
      const z = probeImpedance(around, atProbe, behind);
      if (!z) return;
      let chi2 = ((lnR - Math.log(z.re)) / uR) ** 2;
      if (lnC !== null) {
        if (z.im >= 0) return;
        chi2 += ((lnC - Math.log(-1 / (omega * z.im))) / uC) ** 2;
      }
      if (!(chi2 <= limit)) return;
      const weight = prior * Math.exp(-chi2 / 2);
      total += weight;
      consistentCount += 1;
      if (badCount === 0) inOrder += weight;
      leastBad = Math.min(leastBad, badCount);
      mostBad = Math.max(mostBad, badCount);
      for (let n = 0; n < count; n++) {
        if (isBad[n]) {
          badWeight[n] = (badWeight[n] as number) + weight;
          seenBad[n] = true;
        } else seenGood[n] = true;
      }
      return;
    }
    const goesBehind = around.choke !== null && capacitors[index]?.isBehindChoke === true;
    for (const option of options[index] as (typeof options)[number]) {
      const y = option.admittance;
      isBad[index] = option.isBad;
      const nextAt = y && !goesBehind ? { re: atProbe.re + y.re, im: atProbe.im + y.im } : atProbe;
      const nextBehind = y && goesBehind ? { re: (behind?.re ?? 0) + y.re, im: (behind?.im ?? 0) + y.im } : behind;
      descend(index + 1, nextAt, nextBehind, prior * option.prior, badCount + Number(option.isBad));
    }
  };
  descend(0, { re: 0, im: 0 }, null, 1, 0);

  if (consistentCount === 0) {
    return {
      consistentCount,
      parts: capacitors.map(() => ({ badProbability: null, verdict: "inconsistent" })),
      leastBad: null,
      mostBad: null,
      allInOrderProbability: null,
    };
  }
  return {
    consistentCount,
    parts: capacitors.map((_, n) => ({
      badProbability: (badWeight[n] as number) / total,
      verdict: !seenBad[n] ? "cleared" : !seenGood[n] ? "condemned" : "masked",
    })),
    leastBad,
    mostBad,
    allInOrderProbability: inOrder / total,
  };
}

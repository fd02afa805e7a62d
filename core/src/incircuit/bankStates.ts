import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";
import type { BankCapacitor, BankNetwork } from "./bank";
import { capacitorAdmittance, checkedNetwork, probeImpedance } from "./probeImpedance";

export interface BankReading {
  /** Resistive part, leads included. */
  readonly resistanceOhms: number;
  /** Apparent capacitance at the same frequency; null: not read. */
  readonly capacitanceFarads: number | null;
  readonly resistanceUncertaintyRatio: number;
  readonly capacitanceUncertaintyRatio: number;
}

/** What a bank read at one frequency; a value that was not read is null. */
export interface BankLook {
  readonly frequencyHertz: number;
  readonly resistanceOhms: number | null;
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

/** A part that was measured by itself: as it is, and neither bad nor good by this reading. */
const knownState = { isBad: false, esrFactor: 1, farads: 1, prior: 1 } as const;

/** 99 % quantiles of chi squared where the constants hold none: three and four values. */
const moreQuantiles: Readonly<Record<number, number>> = { 3: 11.3449, 4: 13.2767 };

/**
 * Probability that each part of a bank is bad, from one reading at one frequency.
 *
 * @see bankStatesOfLooks, of which this is the case of a single look
 */
export function bankStates(
  capacitors: readonly BankCapacitor[],
  frequencyHertz: number,
  reading: BankReading,
  network: BankNetwork = {},
  constants: JudgementConstants["C"] = judgementConstants.C,
): BankStates {
  requirePositive("resistanceOhms", reading.resistanceOhms);
  return bankStatesOfLooks(capacitors, [{ ...reading, frequencyHertz }], network, constants);
}

/** States in which a part has to go; the others are ageing. */
const badStates: ReadonlySet<string> = new Set(["failed", "open"]);

/**
 * Probability that each part of a bank is bad, by listing all states: healthy, worn, failed, open.
 *
 *     chi2 = sum over looks of (ln(R / Re Z) / uR)^2 and (ln(C / Cz) / uC)^2,  weight = product of priors x e^(-chi2 / 2)
 *
 * ESR and C may each be read at their own frequency. Combinations beyond the 99 % quantile are left out. One to eight
 * parts; states^n combinations, each one sum of admittances deeper than the last. The method is solid, the states and
 * priors are rough. Which states are bad is `badStates`.
 *
 * @throws {OutOfRangeError} no or more than eight parts, no look, looks without a value, values not above 0
 */
export function bankStatesOfLooks(
  capacitors: readonly BankCapacitor[],
  looks: readonly BankLook[],
  network: BankNetwork = {},
  constants: JudgementConstants["C"] = judgementConstants.C,
): BankStates {
  const count = capacitors.length;
  if (count < 1 || count > 8) throw new OutOfRangeError("capacitors", count, "one to eight parts");
  const seen = looks.map((look) => checkedLook(look, network));
  const valueCount = seen.reduce((sum, look) => sum + Number(look.lnR !== null) + Number(look.lnC !== null), 0);
  const limit = constants.chi2[String(valueCount) as "1" | "2"] ?? moreQuantiles[valueCount];
  if (limit === undefined) throw new OutOfRangeError("looks", valueCount, "one to four values read");
  const states = Object.entries(constants.states).map(([name, [esrFactor, farads, prior]]) => ({
    isBad: badStates.has(name),
    esrFactor,
    farads,
    prior,
  }));
  const options = capacitors.map((part) =>
    (part.isKnown ? [knownState] : states).map(({ esrFactor, farads, prior, isBad }) => ({
      isBad,
      prior,
      admittances: seen.map(({ omega }) =>
        esrFactor === null
          ? null
          : capacitorAdmittance(
              { ...part, esrOhms: part.esrOhms * esrFactor, capacitanceFarads: part.capacitanceFarads * farads },
              omega,
            ),
      ),
    })),
  );
  const goesBehind = capacitors.map((part) => seen[0]?.around.choke !== null && part.isBehindChoke === true);

  const badWeight = new Float64Array(count);
  const seenBad = new Array<boolean>(count).fill(false);
  const seenGood = new Array<boolean>(count).fill(false);
  const isBad = new Array<boolean>(count).fill(false);
  let [total, inOrder, consistentCount, leastBad, mostBad] = [0, 0, 0, count + 1, -1];
  // Sums of admittances by depth and look: at the probe (re, im), behind the choke (re, im).
  const sums = new Float64Array((count + 1) * seen.length * 4);

  const finish = (prior: number, badCount: number, hasBehind: boolean): void => {
    let chi2 = 0;
    for (let n = 0; n < seen.length; n++) {
      const look = seen[n] as (typeof seen)[number];
      const at = (count * seen.length + n) * 4;
      const z = probeImpedance(
        look.around,
        { re: sums[at] as number, im: sums[at + 1] as number },
        hasBehind ? { re: sums[at + 2] as number, im: sums[at + 3] as number } : null,
      );
      if (!z) return;
      if (look.lnR !== null) chi2 += ((look.lnR - Math.log(z.re)) / look.uR) ** 2;
      if (look.lnC !== null) {
        if (z.im >= 0) return;
        chi2 += ((look.lnC - Math.log(-1 / (look.omega * z.im))) / look.uC) ** 2;
      }
      if (!(chi2 <= limit)) return;
    }
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
  };

  const descend = (index: number, prior: number, badCount: number, hasBehind: boolean): void => {
    if (index === count) {
      finish(prior, badCount, hasBehind);
      return;
    }
    const isBehind = goesBehind[index] === true;
    for (const option of options[index] as (typeof options)[number]) {
      isBad[index] = option.isBad;
      for (let n = 0; n < seen.length; n++) {
        const from = (index * seen.length + n) * 4;
        const to = from + seen.length * 4;
        for (let k = 0; k < 4; k++) sums[to + k] = sums[from + k] as number;
        const y = option.admittances[n];
        if (!y) continue;
        const side = to + (isBehind ? 2 : 0);
        sums[side] = (sums[side] as number) + y.re;
        sums[side + 1] = (sums[side + 1] as number) + y.im;
      }
      const conducts = option.admittances[0] !== null;
      descend(index + 1, prior * option.prior, badCount + Number(option.isBad), hasBehind || (isBehind && conducts));
    }
  };
  descend(0, 1, 0, false);

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

function checkedLook(look: BankLook, network: BankNetwork) {
  const omega = 2 * Math.PI * requirePositive("frequencyHertz", look.frequencyHertz);
  const ln = (name: string, value: number | null) => (value === null ? null : Math.log(requirePositive(name, value)));
  return {
    omega,
    around: checkedNetwork(network, omega),
    lnR: ln("resistanceOhms", look.resistanceOhms),
    lnC: ln("capacitanceFarads", look.capacitanceFarads),
    uR: requirePositive("resistanceUncertaintyRatio", look.resistanceUncertaintyRatio),
    uC: requirePositive("capacitanceUncertaintyRatio", look.capacitanceUncertaintyRatio),
  };
}

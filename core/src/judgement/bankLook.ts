import { tradeConstants } from "../constants/tradeConstants";
import { capacitorAdmittance } from "../incircuit/probeImpedance";
import { addComplex, type Complex, reciprocalComplex } from "../numerics/complex";
import { bell, lookIndex, type OwnLook, type SplitEsr, slipFloor } from "./ownLook";
import type { ConditionBins } from "./partConditions";
import { seriesSteps } from "./seriesPrior";

const { chances, bank: rough, leads } = tradeConstants.judgement;

/** One reading of the bank as it hangs together. */
export interface BankEsr {
  readonly ohms: number | null;
  readonly isOpen: boolean;
  readonly uncertaintyRatio: number;
  readonly hertz: number;
}

export interface BankMember {
  readonly look: OwnLook;
  readonly farads: number;
  /** As new at the frequency of the ESR, and at that of the capacitance. */
  readonly expected: SplitEsr;
  readonly expectedAtCapacitance: SplitEsr;
}

export interface BankLookQuestion {
  readonly members: readonly BankMember[];
  readonly bins: ConditionBins;
  readonly esr: BankEsr;
  readonly capacitance: { readonly farads: number; readonly hertz: number; readonly uncertaintyRatio: number } | null;
  /** Parts of the next bank, as they most likely are. */
  readonly across: readonly { readonly farads: number; readonly ohms: number }[];
  /** What the choke before them may have, with shares; empty: none is drawn. */
  readonly chokes: readonly { readonly henrys: number; readonly ohms: number; readonly shareRatio: number }[];
  readonly parallelOhms: number | null;
  readonly offsets: readonly number[];
  /** Series steps that count, with their shares. */
  readonly series: readonly number[];
}

/** Weights by offset: of everything, of each member failed and worn-or-failed; and ln of the series' mean factor. */
export interface GroupLook {
  readonly total: readonly number[];
  readonly failed: readonly (readonly number[])[];
  readonly worn: readonly (readonly number[])[];
  readonly seriesMean: readonly number[];
}

/** How parts of one bank go: mostly each by itself, in a bad batch nearly all. As factors on "not failed" and "failed". */
const batches = [
  { shareRatio: 1 - chances.badBatchShare, good: chances.goodOfUsual, bad: chances.badOfUsual },
  { shareRatio: chances.badBatchShare, good: chances.goodOfBatch, bad: chances.badOfBatch },
];

interface Sums {
  readonly total: number[];
  readonly failed: number[][];
  readonly worn: number[][];
  readonly seriesSum: number[];
}

const emptySums = (offsetCount: number, memberCount: number): Sums => ({
  total: new Array<number>(offsetCount).fill(0),
  failed: Array.from({ length: memberCount }, () => new Array<number>(offsetCount).fill(0)),
  worn: Array.from({ length: memberCount }, () => new Array<number>(offsetCount).fill(0)),
  seriesSum: new Array<number>(offsetCount).fill(0),
});

const asLook = ({ total, failed, worn, seriesSum }: Sums): GroupLook => ({
  ...{ total, failed, worn },
  seriesMean: seriesSum.map((sum, n) => sum / Math.max(total[n] as number, 1e-300)),
});

/** Parts of one series of which nothing was read together: each by itself, tied by their series and their batch. */
export function looksTogether(looks: readonly OwnLook[], series: readonly number[], offsetCount: number): GroupLook {
  const sums = emptySums(offsetCount, looks.length);
  for (let offset = 0; offset < offsetCount; offset++) {
    for (let step = 0; step < seriesSteps.length; step++) {
      for (const batch of batches) {
        let weight = (series[step] as number) * batch.shareRatio;
        const own = looks.map((look) => {
          let [all, failed, worn] = [0, 0, 0];
          for (let bin = 0; bin < look.binCount; bin++) {
            const at = lookIndex(offset, step, bin, look.binCount);
            all += look.all[at] as number;
            failed += look.failed[at] as number;
            worn += look.worn[at] as number;
          }
          const [bad, good] = [failed * batch.bad, (all - failed) * batch.good];
          weight *= bad + good;
          const sum = Math.max(bad + good, 1e-300);
          return { failed: bad / sum, worn: (bad + (worn - failed) * batch.good) / sum };
        });
        sums.total[offset] = (sums.total[offset] as number) + weight;
        sums.seriesSum[offset] = (sums.seriesSum[offset] as number) + weight * (seriesSteps[step] as number);
        own.forEach((one, n) => {
          const [failed, worn] = [sums.failed[n] as number[], sums.worn[n] as number[]];
          failed[offset] = (failed[offset] as number) + weight * one.failed;
          worn[offset] = (worn[offset] as number) + weight * one.worn;
        });
      }
    }
  }
  return asLook(sums);
}

/**
 * Parts of a bank that was read as it hangs together: all combinations of their conditions, with the choke and the series
 * as further unknowns.
 *
 *     weight = series x choke x batch x product of own looks x L(R | Z) x L(C | Z)
 *
 * A reading in circuit may lie below what the bank has, for ceramic capacitors that nobody enters stand beside it, and
 * near the resonance of a choke above it. One to eight parts. The sum is exact, its states and shares are rough.
 */
export function bankLook(question: BankLookQuestion): GroupLook {
  const { members, bins, offsets, series } = question;
  const binCount = bins.middles.length;
  const count = members.length;
  const combinations = binCount ** count;
  const sums = emptySums(offsets.length, members.length);
  const chokes = question.chokes.length > 0 ? question.chokes : [{ henrys: 0, ohms: 0, shareRatio: 1 }];
  const ohmsOf = new Float64Array(combinations);
  const lnC = new Float64Array(combinations);
  const places = new Int32Array(members.length);
  const cells = cellWeights(question);
  const least = Math.max(...cells) * chances.leastCellShare;
  for (let step = 0; step < seriesSteps.length; step++) {
    const active = offsets.flatMap((_, offset) =>
      (cells[offset * seriesSteps.length + step] as number) >= least ? [offset] : [],
    );
    if (active.length === 0) continue;
    for (const choke of chokes) {
      fill(question, step, choke, ohmsOf, lnC);
      for (const offset of active) sumUp(offset, step, (series[step] as number) * choke.shareRatio);
    }
  }
  return asLook(sums);

  /** All combinations at one offset, step and choke, in usual banks and in bad batches. */
  function sumUp(offset: number, step: number, share: number): void {
    const likelihood = likelihoodAt(question, offsets[offset] as number);
    for (const batch of batches) {
      const own = memberWeights(question, offset, step, batch);
      const marginal = new Float64Array(count * binCount);
      const products = new Float64Array(count + 1).fill(1);
      places.fill(0);
      for (let m = count - 1; m >= 0; m--)
        products[m] = (products[m + 1] as number) * (own.weight[m * binCount] as number);
      const floor = leastShareOf(own.weight, binCount);
      let total = 0;
      for (let n = 0; n < combinations; n++) {
        const product = products[0] as number;
        const weight = product > floor ? product * likelihood(ohmsOf[n] as number, lnC[n] as number) : 0;
        if (weight > 0) {
          total += weight;
          for (let m = 0; m < count; m++) {
            const at = m * binCount + (places[m] as number);
            marginal[at] = (marginal[at] as number) + weight;
          }
        }
        // Products change only up to where the count carried.
        const carried = countUp(places, binCount);
        if (carried === count) break;
        for (let m = carried; m >= 0; m--) {
          products[m] = (products[m + 1] as number) * (own.weight[m * binCount + (places[m] as number)] as number);
        }
      }
      const scale = share * batch.shareRatio;
      sums.total[offset] = (sums.total[offset] as number) + scale * total;
      sums.seriesSum[offset] = (sums.seriesSum[offset] as number) + scale * total * (seriesSteps[step] as number);
      for (let m = 0; m < count; m++) {
        const [failed, worn] = [sums.failed[m] as number[], sums.worn[m] as number[]];
        for (let at = m * binCount; at < (m + 1) * binCount; at++) {
          failed[offset] = (failed[offset] as number) + scale * (marginal[at] as number) * (own.failed[at] as number);
          worn[offset] = (worn[offset] as number) + scale * (marginal[at] as number) * (own.worn[at] as number);
        }
      }
    }
  }
}

/** By member and bin: the weight of all, and of it the shares of failed and of worn or failed. */
function memberWeights(
  { members, bins }: BankLookQuestion,
  offset: number,
  step: number,
  batch: (typeof batches)[number],
) {
  const binCount = bins.middles.length;
  const size = members.length * binCount;
  const [weight, failed, worn] = [new Float64Array(size), new Float64Array(size), new Float64Array(size)];
  members.forEach(({ look }, m) => {
    for (let bin = 0; bin < binCount; bin++) {
      const from = lookIndex(offset, step, bin, binCount);
      const bad = (look.failed[from] as number) * batch.bad;
      const ageing = ((look.worn[from] as number) - (look.failed[from] as number)) * batch.good;
      const sum = bad + ((look.all[from] as number) - (look.failed[from] as number)) * batch.good;
      const at = m * binCount + bin;
      weight[at] = sum;
      failed[at] = sum > 0 ? bad / sum : 0;
      worn[at] = sum > 0 ? (bad + ageing) / sum : 0;
    }
  });
  return { weight, failed, worn };
}

/** What the likeliest combination weighs, times a share below which none counts. */
function leastShareOf(weight: Float64Array, binCount: number): number {
  let product = chances.leastCombinationShare;
  for (let from = 0; from < weight.length; from += binCount)
    product *= Math.max(...weight.subarray(from, from + binCount));
  return product;
}

/** The next combination: the first place counts fastest. Returns the place up to which it carried; their number after the last. */
function countUp(places: Int32Array, base: number): number {
  for (let m = 0; m < places.length; m++) {
    if ((places[m] as number) + 1 < base) {
      places[m] = (places[m] as number) + 1;
      return m;
    }
    places[m] = 0;
  }
  return places.length;
}

/** How much each offset and step can weigh at all, by the parts' own looks. */
function cellWeights({ members, offsets, series }: BankLookQuestion): number[] {
  return offsets.flatMap((_, offset) =>
    seriesSteps.map((_, step) =>
      members.reduce((product, { look }) => {
        let sum = 0;
        for (let bin = 0; bin < look.binCount; bin++)
          sum += look.all[lookIndex(offset, step, bin, look.binCount)] as number;
        return product * sum;
      }, series[step] as number),
    ),
  );
}

/** What every combination would read at one step of the series and one choke; NaN where nothing conducts. */
function fill(
  question: BankLookQuestion,
  step: number,
  choke: { readonly henrys: number; readonly ohms: number },
  ohmsOf: Float64Array,
  lnC: Float64Array,
): void {
  const { members, bins, esr, capacitance } = question;
  const factor = Math.exp(seriesSteps[step] as number);
  const binCount = bins.middles.length;
  const places = new Int32Array(members.length);
  const at = (hertz: number, pick: (member: BankMember) => SplitEsr) => ({
    branches: members.map((member) => {
      const [re, im] = [new Float64Array(binCount), new Float64Array(binCount)];
      bins.middles.forEach(({ esrRatio, capacitanceRatio }, bin) => {
        if (esrRatio === null) return;
        const { seriesOhms, oxideOhms } = pick(member);
        const r = factor * esrRatio * seriesOhms + oxideOhms / capacitanceRatio;
        const y = canAdmittance(member.farads * capacitanceRatio, r, hertz);
        re[bin] = y.re;
        im[bin] = y.im;
      });
      return { re, im };
    }),
    beside: besideAt(question, choke, hertz),
  });
  const first = at(esr.hertz, (one) => one.expected);
  const second = capacitance ? at(capacitance.hertz, (one) => one.expectedAtCapacitance) : null;
  const combinations = ohmsOf.length;
  for (let n = 0; n < combinations; n++) {
    ohmsOf[n] = read(first, 0);
    lnC[n] = second && capacitance ? read(second, 2 * Math.PI * capacitance.hertz) : Number.NaN;
    countUp(places, binCount);
  }

  /** The real part; or ln of the capacitance, where an angular frequency is given. */
  function read(from: ReturnType<typeof at>, omega: number): number {
    let [g, b] = [from.beside.re, from.beside.im];
    for (let m = 0; m < members.length; m++) {
      const branch = from.branches[m] as { re: Float64Array; im: Float64Array };
      g += branch.re[places[m] as number] as number;
      b += branch.im[places[m] as number] as number;
    }
    const square = g * g + b * b;
    if (square === 0) return Number.NaN;
    if (omega === 0) return g / square;
    return b > 0 ? Math.log(square / (b * omega)) : Number.NaN;
  }
}

/** Admittance of what hangs beside the bank: a load, and the next bank across the choke. */
function besideAt({ across, parallelOhms }: BankLookQuestion, choke: { henrys: number; ohms: number }, hertz: number) {
  const load: Complex = { re: parallelOhms === null ? 0 : 1 / parallelOhms, im: 0 };
  if (across.length === 0 || choke.henrys === 0) return load;
  const far = across.map(({ farads, ohms }) => canAdmittance(farads, ohms, hertz)).reduce(addComplex);
  const series = { re: choke.ohms, im: 2 * Math.PI * hertz * choke.henrys };
  return addComplex(load, reciprocalComplex(addComplex(series, reciprocalComplex(far))));
}

const canAdmittance = (capacitanceFarads: number, esrOhms: number, hertz: number): Complex =>
  capacitorAdmittance({ capacitanceFarads, esrOhms, eslHenrys: rough.canHenrys }, 2 * Math.PI * hertz);

/** Likelihood of what was read at an offset of the leads, by the real part and ln C of a combination. */
function likelihoodAt({ esr, capacitance, chokes }: BankLookQuestion, offset: number) {
  const isSlow = esr.hertz < rough.resonantBelowHertz;
  const width = isSlow ? (chokes.length > 0 ? rough.resonantSpread : rough.slowSpread) : rough.spreadRatio;
  const ohms = Math.max(esr.ohms ?? 1, 1e-9);
  const spread = Math.hypot(esr.uncertaintyRatio, width, (leads.stepRatio * offset) / ohms);
  const scale = esr.uncertaintyRatio / spread;
  const lnRead = Math.log(ohms);
  const isRead = esr.ohms !== null;
  const lnFarads = capacitance ? Math.log(capacitance.farads) : 0;
  const spreadOfC = Math.hypot(capacitance?.uncertaintyRatio ?? 0, rough.capacitanceSpread);
  const flat = (rough.besideShare / rough.besideLn) * 2.5;
  return (r: number, lnC: number): number => {
    let weight = 1;
    if (esr.isOpen) weight = Number.isNaN(r) ? 1 : chances.openThoughNot;
    else if (isRead) {
      if (Number.isNaN(r)) weight = slipFloor(esr.uncertaintyRatio);
      else {
        const x = lnRead - Math.log(r + offset);
        // Ceramic capacitors that nobody entered make a bank read less.
        const below = x < 0 && x > -rough.besideLn ? flat * spread : 0;
        weight = ((1 - rough.besideShare) * bell(x / spread) + below) * scale + slipFloor(esr.uncertaintyRatio, x);
      }
    }
    if (!capacitance) return weight;
    if (Number.isNaN(lnC)) return weight * slipFloor(spreadOfC);
    const x = lnFarads - lnC;
    const above = x > 0 && x < rough.besideLn ? flat * spreadOfC : 0;
    return weight * ((1 - rough.besideShare) * bell(x / spreadOfC) + above + slipFloor(spreadOfC));
  };
}

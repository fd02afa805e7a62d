import type { ExpectedEsr } from "../capacitors/expectedEsr";
import type { EndOfLifeSchool } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { normalDistribution } from "../numerics/normalDistribution";
import { type ConditionBins, partConditions } from "./partConditions";
import { seriesSteps } from "./seriesPrior";

const { chances, leads } = tradeConstants.judgement;

/** An ESR that was read of a part by itself, and what a new one of it reads under the same conditions. */
export interface OwnEsr {
  readonly ohms: number;
  readonly uncertaintyRatio: number;
  readonly count: number;
  readonly expected: SplitEsr;
}

/** Expected ESR by its parts: what grows with wear, and what the oxide loses. */
export interface SplitEsr {
  readonly seriesOhms: number;
  readonly oxideOhms: number;
}

export interface OwnLookQuestion {
  readonly esr: readonly OwnEsr[];
  /** Read with a lead up, over the marking. */
  readonly capacitanceRatio: number | null;
  readonly capacitanceUncertaintyRatio: number;
  /** What was read open with a lead up, and whether the same probes have shown that they read. */
  readonly isOpen: boolean;
  readonly isProbeShown: boolean;
  readonly school: EndOfLifeSchool;
  /** What the catalogue allows at most over the typical new value. */
  readonly highRatio: number;
  /** Log-odds by which looks, touch, coarse testers and the record move "failed". */
  readonly besideLogOdds: number;
  readonly offsets: readonly number[];
  readonly bins: ConditionBins;
}

/**
 * What a part's own readings and looks say of it: for each offset of the leads, step of its series and bin of conditions
 * the weight of all, of failed and of worn-or-failed conditions.
 */
export interface OwnLook {
  readonly all: Float64Array;
  readonly failed: Float64Array;
  readonly worn: Float64Array;
  readonly binCount: number;
}

export const lookIndex = (offset: number, step: number, bin: number, binCount: number) =>
  (offset * seriesSteps.length + step) * binCount + bin;

/** The part split at a frequency and temperature; C lost raises what the oxide loses. */
export function splitEsr(expected: ExpectedEsr, farads: number, hertz: number): SplitEsr {
  const oxideOhms = Math.min(expected.oxideLossRatio / (2 * Math.PI * hertz * farads), 0.95 * expected.typicalOhms);
  return { seriesOhms: expected.typicalOhms - oxideOhms, oxideOhms };
}

/** Chance that a condition lies beyond the limits of a school, at a step of the series. */
function beyond(n: number, step: number, school: EndOfLifeSchool, highRatio: number, level: "failed" | "worn"): number {
  const { esrRatio, capacitanceRatio } = partConditions[n] as (typeof partConditions)[number];
  if (esrRatio === null) return 1;
  const [c, r] = level === "failed" ? [school.c_f, school.r_f] : [school.c_w, school.r_w];
  // Against the catalogue the limit is in ohms, against a new part it goes with its series.
  const limit = school.ref === "high" ? Math.log(r * highRatio) - (seriesSteps[step] as number) : Math.log(r);
  const byEsr = normalDistribution((Math.log(esrRatio) - limit) / chances.limitSpreadRatio);
  const byC = normalDistribution(
    (c - chances.capacitanceGrace - 0.98 * capacitanceRatio) / chances.capacitanceLimitSpread,
  );
  return 1 - (1 - byEsr) * (1 - byC);
}

const limitTables = new Map<string, { readonly failed: Float64Array; readonly worn: Float64Array }>();

/** The same for every part of a school: made once. Against the catalogue only in steps of a tenth. */
function limitTable(school: EndOfLifeSchool, highRatio: number) {
  const rounded = school.ref === "high" ? Math.round(10 * highRatio) / 10 : 1;
  const key = JSON.stringify([school, rounded]);
  const known = limitTables.get(key);
  if (known) return known;
  const size = seriesSteps.length * partConditions.length;
  const table = { failed: new Float64Array(size), worn: new Float64Array(size) };
  for (let step = 0; step < seriesSteps.length; step++) {
    for (let n = 0; n < partConditions.length; n++) {
      const at = step * partConditions.length + n;
      table.failed[at] = beyond(n, step, school, rounded, "failed");
      table.worn[at] = Math.max(beyond(n, step, school, rounded, "worn"), table.failed[at] as number);
    }
  }
  if (limitTables.size > 100) limitTables.clear();
  limitTables.set(key, table);
  return table;
}

export function ownLook(question: OwnLookQuestion): OwnLook {
  const { offsets, bins } = question;
  const binCount = bins.middles.length;
  const size = offsets.length * seriesSteps.length * binCount;
  const look = {
    all: new Float64Array(size),
    failed: new Float64Array(size),
    worn: new Float64Array(size),
    binCount,
  };
  const limits = limitTable(question.school, question.highRatio);
  const beside = Math.exp(question.besideLogOdds);
  const wornBeside = Math.exp(question.besideLogOdds * chances.wornShareOfLooks);
  const weights = partConditions.map((one, n) => one.shareRatio * withoutEsr(question, n));
  const conditionCount = partConditions.length;
  const { binOf } = bins;
  let most = 0;
  for (let offset = 0; offset < offsets.length; offset++) {
    for (let step = 0; step < seriesSteps.length; step++) {
      const byEsr = esrLikelihoods(question, offsets[offset] as number, step);
      for (let n = 0; n < conditionCount; n++) {
        const weight = (weights[n] as number) * (byEsr[n] as number);
        const limit = step * conditionCount + n;
        const isFailed = limits.failed[limit] as number;
        const isWorn = (limits.worn[limit] as number) - isFailed;
        const failed = weight * isFailed * beside;
        const worn = weight * isWorn * wornBeside;
        const at = lookIndex(offset, step, binOf[n] as number, binCount);
        const all = failed + worn + weight * (1 - isFailed - isWorn);
        look.all[at] = (look.all[at] as number) + all;
        look.failed[at] = (look.failed[at] as number) + failed;
        look.worn[at] = (look.worn[at] as number) + failed + worn;
        most = Math.max(most, look.all[at] as number);
      }
    }
  }
  // Weights are relative: kept near one, however much was read.
  for (const table of [look.all, look.failed, look.worn])
    for (let n = 0; n < size; n++) table[n] = (table[n] as number) / most;
  return look;
}

/** What capacitance and an open reading say of one condition. */
function withoutEsr(question: OwnLookQuestion, n: number): number {
  const { esrRatio, capacitanceRatio } = partConditions[n] as (typeof partConditions)[number];
  let likelihood = 1;
  if (question.isOpen) {
    likelihood *= esrRatio === null ? 1 : question.isProbeShown ? chances.openThoughNot : chances.openByBadContact;
  }
  if (question.capacitanceRatio !== null) {
    const spread = Math.hypot(question.capacitanceUncertaintyRatio, chances.newCapacitanceSpread);
    const distance = Math.log(Math.max(question.capacitanceRatio, 1e-6) / (0.98 * Math.max(capacitanceRatio, 1e-4)));
    // A marking that was read wrong is mostly one step of the usual values off.
    const wrong = Math.log(chances.wrongValueFactor);
    likelihood *=
      (1 - chances.wrongValueShare) * bell(distance / spread) +
      (chances.wrongValueShare / 2) * (bell((distance - wrong) / spread) + bell((distance + wrong) / spread)) +
      slipFloor(spread);
  }
  return likelihood;
}

/** Likelihood of what was read as ESR, for one offset and step of the series, by condition; 1 where nothing was. */
function esrLikelihoods({ esr }: OwnLookQuestion, offsetOhms: number, step: number): Float64Array {
  const likelihoods = new Float64Array(partConditions.length).fill(1);
  const factor = Math.exp(seriesSteps[step] as number);
  for (const { ohms, uncertaintyRatio, count, expected } of esr) {
    // Read twice, it is hardly a slip any more.
    const slip = (x = 0) => slipFloor(uncertaintyRatio, x) * (count > 1 ? chances.slipShare : 1);
    // Between two steps of the offset it may be either: what the leads add is the less certain the more it is.
    const spread = Math.hypot(uncertaintyRatio, (leads.stepRatio * offsetOhms) / Math.max(ohms, 1e-9));
    const scale = uncertaintyRatio / spread;
    const grows = factor * expected.seriesOhms;
    const lnRead = Math.log(Math.max(ohms, 1e-12));
    partConditions.forEach(({ esrRatio, capacitanceRatio }, n) => {
      if (esrRatio === null) {
        likelihoods[n] = (likelihoods[n] as number) * slip();
        return;
      }
      const x = lnRead - Math.log(grows * esrRatio + expected.oxideOhms / capacitanceRatio + offsetOhms);
      likelihoods[n] = (likelihoods[n] as number) * (scale * bell(x / spread) + slip(x));
    });
  }
  return likelihoods;
}

/** Likelihood of a value that nothing explains, so far off by its logarithm, beside a bell of height one and this spread. */
export const slipFloor = (spread: number, x = 0): number =>
  chances.slipShare * chances.slipDensity * spread * (Math.abs(x) > chances.farFromLn ? chances.farSlipShare : 1);

/** e^(-x^2 / 2), 0 where it is nothing. */
export const bell = (x: number): number => (x > 6 || x < -6 ? 0 : Math.exp((-x * x) / 2));

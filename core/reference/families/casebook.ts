import { betaInterval, compareShares, jeffreysPrior } from "../../src/casebook/betaInterval";
import { calibration } from "../../src/casebook/calibration";
import { kaplanMeier, survivalAt } from "../../src/casebook/kaplanMeier";
import { weibullFit } from "../../src/casebook/weibullFit";
import { planningConstants } from "../../src/constants/planningConstants";
import { OutOfRangeError } from "../../src/errors";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, list, number, optionalNumber, record, word } from "../inputs";

const prior = (inputs: Inputs) => ({
  ratio: optionalNumber(inputs, "p_default") ?? jeffreysPrior.ratio,
  count: optionalNumber(inputs, "n0") ?? jeffreysPrior.count,
});

export const casebookFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "i-beta-interval": (inputs) => {
    const confidence = optionalNumber(inputs, "conf");
    const found = betaInterval(number(inputs, "k"), number(inputs, "n"), {
      prior: prior(inputs),
      ...(confidence === null ? {} : { confidence }),
    });
    return { a: found.a, b: found.b, mean: found.meanRatio, lo: found.lowRatio, hi: found.highRatio };
  },
  "i-compare-series": (inputs) => {
    const higherFrom = optionalNumber(inputs, "cut_higher");
    const found = compareShares(
      { count: number(inputs, "k1"), total: number(inputs, "n1") },
      { count: number(inputs, "k2"), total: number(inputs, "n2") },
      { prior: prior(inputs), ...(higherFrom === null ? {} : { higherFrom }) },
    );
    return {
      ...{ P_gt: found.higherProbability, mean_1: found.firstMeanRatio, mean_2: found.secondMeanRatio },
      verdict: found.verdict,
    };
  },
  "i-calibration": (inputs) => {
    const items = list(inputs, "items").map((one) => {
      const row = record(one, "items");
      if (typeof row.y !== "boolean") throw new OutOfRangeError("y", row.y, "true or false");
      return { probability: number(row, "p"), isTrue: row.y };
    });
    const bins = optionalNumber(inputs, "bins");
    const found = bins === null ? calibration(items) : calibration(items, bins);
    return {
      table: found.bins.map((bin) => ({
        ...{ lo: bin.lowRatio, hi: bin.highRatio, n: bin.count, mean_p: bin.meanProbability, freq: bin.trueRatio },
      })),
      ...{ brier: found.brier, ece: found.expectedError, mce: found.greatestError },
      ...{ base: found.baseRatio, skill: found.skill },
    };
  },
  "i-kaplan-meier": (inputs) => {
    const parts = list(inputs, "data").map((one) => {
      const row = record(one, "data");
      if (typeof row.event !== "boolean") throw new OutOfRangeError("event", row.event, "true or false");
      return { time: number(row, "t"), hasFailed: row.event, entry: optionalNumber(row, "entry") ?? 0 };
    });
    const curve = kaplanMeier(parts, optionalNumber(inputs, "conf") ?? planningConstants.I.conf);
    const at = inputs.at == null ? null : list(inputs, "at").map((one) => survivalAt(curve, parts, one as number));
    return {
      ...{ n: curve.count, n_events: curve.failedCount, b10: curve.tenPercentTime, median: curve.medianTime },
      steps: curve.steps.map((step) => ({
        ...{ t: step.time, n: step.atRiskCount, d: step.failedCount, S: step.survivalRatio, se: step.standardError },
        ...{ lo: step.lowRatio, hi: step.highRatio },
      })),
      at: at?.map((one) => ({ S: one.survivalRatio, lo: one.lowRatio, hi: one.highRatio })) ?? null,
    };
  },
  "i-weibull-fit": (inputs) => {
    const kinds = { fail: "failed", censored: "working", found_failed: "found_failed" } as const;
    const records = list(inputs, "data").map((one) => {
      const row = record(one, "data");
      return {
        hours: number(row, "t"),
        kind: kinds[word(row, "kind", ["fail", "censored", "found_failed"])],
        entryHours: optionalNumber(row, "entry") ?? 0,
        count: optionalNumber(row, "n") ?? 1,
      };
    });
    const [beta0, spread] = [optionalNumber(inputs, "beta0"), optionalNumber(inputs, "s_beta")];
    const life = weibullFit(records, {
      ...(beta0 === null ? {} : { beta0 }),
      ...(spread === null ? {} : { spread }),
    });
    const nothing = { eta_h: null, beta: null, loglik: null, logpost: null, B10_h: null };
    if (typeof life === "string") return { status: life, ...nothing, B10_lo_h: null, B10_hi_h: null };
    return {
      ...{ status: "ok", eta_h: life.etaHours, beta: life.beta, loglik: life.logLikelihood },
      ...{ logpost: life.logPosterior, B10_h: life.tenPercentHours },
      ...{ B10_lo_h: life.tenPercentLowHours, B10_hi_h: life.tenPercentHighHours },
    };
  },
};

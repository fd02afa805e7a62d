import { betaInterval, compareShares, jeffreysPrior } from "../../src/casebook/betaInterval";
import { calibration } from "../../src/casebook/calibration";
import { OutOfRangeError } from "../../src/errors";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, list, number, optionalNumber, record } from "../inputs";

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
};

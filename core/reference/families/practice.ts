import { OutOfRangeError } from "../../src/errors";
import { practiceScore } from "../../src/practice/practiceScore";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, list, number, optionalNumber, record } from "../inputs";

const points = (inputs: Inputs, key: string) =>
  Object.fromEntries(
    Object.keys(record(inputs[key], key)).map((code) => [code, number(record(inputs[key], key), code)]),
  );

export const practiceFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "k-score": (inputs) => {
    const items = list(inputs, "items").map((one) => {
      const row = record(one, "items");
      if (typeof row.bad !== "boolean") throw new OutOfRangeError("bad", Number.NaN, "true or false");
      return { badProbability: number(row, "p_bad"), isBad: row.bad };
    });
    const weights = record(inputs.weights, "weights");
    const violations = inputs.violations === undefined ? [] : list(inputs, "violations");
    const optional = {
      slackRatio: optionalNumber(inputs, "slack"),
      passMark: optionalNumber(inputs, "pass_mark"),
      fatalPoints: optionalNumber(inputs, "fatal_points"),
    };
    const found = practiceScore({
      ...{ items, minutes: number(inputs, "minutes"), bestMinutes: number(inputs, "minutes_best") },
      weights: { brier: number(weights, "brier"), log: number(weights, "log"), time: number(weights, "time") },
      penalties: points(inputs, "penalties"),
      violations: violations.map((one) => {
        const row = record(one, "violations");
        return { code: String(row.code), count: number(row, "count") };
      }),
      ...Object.fromEntries(Object.entries(optional).filter(([, value]) => value !== null)),
    });
    return {
      ...{ brier: found.brier, log_loss: found.logLoss, s_brier: found.brierScore, s_log: found.logScore },
      ...{ s_time: found.timeScore, raw: found.raw, penalty: found.penalty, total: found.total },
      ...{ fatal: found.isFatal, passed: found.isPassed },
    };
  },
};

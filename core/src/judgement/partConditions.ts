import { tradeConstants } from "../constants/tradeConstants";

const { drying, conditionShares } = tradeConstants.judgement;

/** One way in which a part can be, against its own new values. */
export interface PartCondition {
  /** ESR over its own new one; null: open. */
  readonly esrRatio: number | null;
  readonly capacitanceRatio: number;
  /** Share of the parts that come to a bench so. */
  readonly shareRatio: number;
}

/**
 * How electrolytics are that come to a bench: new, drying, cooked, with a corroded tab, open. Where the foil loses its wetting
 * C falls with the wet share w and ESR grows as a power of it (1/w to 1/w^5, by electrolyte); heat thickens the
 * electrolyte at nearly full C; a tab adds ohms alone. Shares rough, from benches; shorts and leaks are judged apart.
 */
export const partConditions: readonly PartCondition[] = [
  { esrRatio: 1, capacitanceRatio: 1, shareRatio: conditionShares.new },
  ...drying.wetRatios.flatMap((wet) =>
    drying.powers.map(([power, powerShare]) => ({
      esrRatio: wet ** -power,
      capacitanceRatio: wet,
      shareRatio:
        (powerShare * (wet >= drying.ageingFromRatio ? conditionShares.ageing : conditionShares.dry)) /
        drying.wetRatios.filter((one) => one >= drying.ageingFromRatio === wet >= drying.ageingFromRatio).length,
    })),
  ),
  ...[3, 5, 8, 13, 22].flatMap((esrRatio) =>
    [0.95, 0.8].map((capacitanceRatio) => ({ esrRatio, capacitanceRatio, shareRatio: conditionShares.cooked / 10 })),
  ),
  ...[2.2, 3.5, 6, 10, 18].map((esrRatio) => ({ esrRatio, capacitanceRatio: 1, shareRatio: conditionShares.tab / 5 })),
  { esrRatio: null, capacitanceRatio: 0, shareRatio: conditionShares.open },
];

/** Conditions that a bank is listed by: the fewer the more parts it has. */
export interface ConditionBins {
  /** Bin of each condition. */
  readonly binOf: readonly number[];
  /** What stands for all of a bin; its ESR is null where they are open. */
  readonly middles: readonly { readonly esrRatio: number | null; readonly capacitanceRatio: number }[];
  /** Standard deviation of ln(ESR) that the coarseness adds. */
  readonly widthRatio: number;
}

/** Limits of ESR between bins by the size of a bank, and whether lost capacitance has bins of its own. */
const coarseness = [
  { esrLimits: [1.15, 1.6, 2.2, 3, 4.5, 8, 16], hasLowBins: true, widthRatio: 0.12 },
  { esrLimits: [1.6, 3, 6, 14], hasLowBins: true, widthRatio: 0.2 },
  { esrLimits: [1.6, 3, 6, 14], hasLowBins: false, widthRatio: 0.22 },
  { esrLimits: [3, 8], hasLowBins: false, widthRatio: 0.33 },
  { esrLimits: [3, 8], hasLowBins: false, widthRatio: 0.35 },
  { esrLimits: [3], hasLowBins: false, widthRatio: 0.5 },
] as const;
const lowCapacitanceRatio = 0.78;
export const mostListedParts = coarseness.length + 2;

/** Every condition by itself for a lone part, one bin for all where nothing is listed, and fewer the larger the bank is. */
export function conditionBins(partCount: number, isListed: boolean): ConditionBins {
  if (!isListed) return oneBin;
  if (partCount === 1) return everyBin;
  return binsBySize[Math.min(partCount, mostListedParts) - 2] ?? oneBin;
}

const binsBySize = [...coarseness, coarseness.at(-1) as (typeof coarseness)[5]].map((row) => binsOf(row));
const oneBin = binsFrom(
  partConditions.map(() => "all"),
  0,
);
const everyBin = binsFrom(
  partConditions.map((_, n) => String(n)),
  0.05,
);

function binsOf({ esrLimits, hasLowBins, widthRatio }: (typeof coarseness)[number]): ConditionBins {
  const names = partConditions.map(({ esrRatio, capacitanceRatio }) => {
    if (esrRatio === null) return "open";
    const step = esrLimits.filter((limit) => esrRatio >= limit).length;
    const isLow = capacitanceRatio < lowCapacitanceRatio && (hasLowBins || esrRatio < 3) && esrLimits.length > 3;
    return `${esrRatio < 3 && isLow ? "early" : step} ${isLow}`;
  });
  return binsFrom(names, widthRatio);
}

function binsFrom(names: readonly string[], widthRatio: number): ConditionBins {
  const distinct = [...new Set(names)];
  const binOf = names.map((name) => distinct.indexOf(name));
  const middles = distinct.map((_, bin) => {
    const own = partConditions.filter((_, n) => binOf[n] === bin);
    const share = own.reduce((sum, one) => sum + one.shareRatio, 0);
    const mean = (of: (one: PartCondition) => number) =>
      own.reduce((sum, one) => sum + of(one) * one.shareRatio, 0) / share;
    return {
      esrRatio: own.every((one) => one.esrRatio === null) ? null : Math.exp(mean((one) => Math.log(one.esrRatio ?? 1))),
      capacitanceRatio: mean((one) => one.capacitanceRatio),
    };
  });
  return { binOf, middles, widthRatio };
}

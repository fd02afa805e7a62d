import { type DeviceKind, deviceKinds } from "../facts/deviceKinds";
import { interpolate, type TableRow } from "../numerics/interpolate";
import type { FaultKnowledge } from "./faultKnowledge";
import { isStage } from "./findings";
import file from "./knowledge/priors.json";
import { historyCodes } from "./symptoms";

interface Priors {
  readonly wear: { readonly codes: readonly string[]; readonly factorAtYears: readonly TableRow[] };
  readonly kinds: Readonly<Record<DeviceKind, Readonly<Record<string, number>>>>;
  /** By what happened before: factors by stage or by fault. */
  readonly history: Readonly<Record<string, Readonly<Record<string, number>>>>;
}

/** The same fault in several of a type is mostly its design: what wears there, wears in all. Rough. */
const wearInOthers = 1.8;

/** JSON import loses tuple lengths, hence the one cast. */
const priors = file as unknown as Priors;

/**
 * The knowledge with its priors moved to a kind of device and its age: the odds of each fault are multiplied by the factor
 * of its stage in such devices and, where it comes of wear, by that of the years, and once more where others of its type have
 * the same, and by what happened before: a storm, liquid, a fall, years on a shelf. Unknown kind or age moves nothing.
 *
 *     odds = prior / (1 - prior) x kind factor x age factor x history factors
 *
 * @param told what was told, history among it
 */
export function priorsForDevice(
  knowledge: FaultKnowledge,
  kind: DeviceKind | null,
  ageYears: number | null,
  told: readonly string[] = [],
): FaultKnowledge {
  const isInOthers = told.includes("same_in_others");
  const before = told.flatMap((one) => (priors.history[one] ? [priors.history[one]] : []));
  const byStage = kind === null ? {} : priors.kinds[kind];
  const byYears = ageYears === null ? 1 : interpolate(ageYears, priors.wear.factorAtYears);
  const byAge = byYears * (isInOthers ? wearInOthers : 1);
  return knowledge.map((fault) => {
    const byHistory = before.reduce((product, one) => product * (one[fault.code] ?? one[fault.stage] ?? 1), 1);
    const factor = (byStage[fault.stage] ?? 1) * (priors.wear.codes.includes(fault.code) ? byAge : 1) * byHistory;
    const odds = (fault.prior / (1 - fault.prior)) * factor;
    return { ...fault, prior: odds / (1 + odds) };
  });
}

/** What is wrong with the file of priors against all codes that there are; empty where it holds together. */
export function priorProblems(codes: ReadonlySet<string>): readonly string[] {
  const problems = priors.wear.codes.filter((code) => !codes.has(code)).map((code) => `${code} is no fault`);
  for (const kind of deviceKinds) {
    for (const [stage, factor] of Object.entries(priors.kinds[kind] ?? { nothing: 0 })) {
      if (!isStage(stage)) problems.push(`${kind} weighs ${stage}, which is no stage`);
      if (!(factor >= 0.1 && factor <= 10)) problems.push(`${kind} weighs ${stage} with ${factor}`);
    }
  }
  for (const [code, factors] of Object.entries(priors.history)) {
    if (!historyCodes.includes(code)) problems.push(`${code} is no history`);
    for (const [target, factor] of Object.entries(factors)) {
      if (!isStage(target) && !codes.has(target))
        problems.push(`${code} weighs ${target}, which is neither stage nor fault`);
      if (!(factor >= 0.1 && factor <= 10)) problems.push(`${code} weighs ${target} with ${factor}`);
    }
  }
  for (const [years, factor] of priors.wear.factorAtYears) {
    if (!(years >= 0 && factor >= 0.1 && factor <= 10)) problems.push(`wear at ${years} years has ${factor}`);
  }
  return problems;
}

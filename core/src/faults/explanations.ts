import { OutOfRangeError } from "../errors";
import type { Fault, FaultKnowledge } from "./faultKnowledge";
import { type Finding, findingLeakRatio } from "./findings";

/** What is known: seen, or looked for and not seen. What was not looked for is not in it. */
export type FaultEvidence = ReadonlyMap<Finding, boolean>;

/** A set of faults that together explain what was found. */
export interface Explanation {
  readonly faults: readonly string[];
  readonly probability: number;
  /** Seen, and made likely by these faults. */
  readonly explained: readonly Finding[];
  /** Seen, and left over: no fault of the set brings it about. */
  readonly unexplained: readonly Finding[];
  /** Looked for and not seen, although these faults nearly always show it. */
  readonly contradicted: readonly Finding[];
  /** Faults of the set that nothing else of the set explains: what began it. */
  readonly first: readonly string[];
}

export interface FaultRanking {
  readonly explanations: readonly Explanation[];
  /** Chance of each fault, over all sets. */
  readonly probabilities: ReadonlyMap<string, number>;
}

export const largestExplanation = 4;
const explainedFrom = 0.3;
const contradictedFrom = 0.7;
const keptExplanations = 8;

/**
 * Ranked sets of faults that explain all evidence.
 *
 *     P(set | e) ~ product over faults P(fault or not | its causes in the set) x product over findings P(seen or not | set)
 *     P(seen | set) = 1 - (1 - leak) product over faults of the set (1 - shows)            (noisy or)
 *     P(fault | causes) = 1 - (1 - prior) product over its causes present (1 - link)
 *
 * Exact over all sets of up to four faults (about 20 000 for the largest topology); five independent faults at once are
 * left out, cascades of more are found by their check list. Priors and likelihoods are rough.
 *
 * @throws {OutOfRangeError} no faults
 */
export function rankExplanations(knowledge: FaultKnowledge, evidence: FaultEvidence): FaultRanking {
  const count = knowledge.length;
  if (count === 0) throw new OutOfRangeError("knowledge", 0, "at least one fault");
  const findings = [...evidence];
  const indexOf = new Map(knowledge.map((fault, n) => [fault.code, n]));
  // Logs of 1 - shows for each fault and finding, and of 1 - link from each fault to those that it takes along.
  const misses = knowledge.map((fault) => findings.map(([finding]) => Math.log1p(-(fault.shows[finding] ?? 0))));
  const leaks = findings.map(([finding]) => Math.log1p(-findingLeakRatio(finding)));
  const spares = knowledge.map((fault) =>
    Object.entries(fault.causes).flatMap(([caused, chance]) => {
      const n = indexOf.get(caused);
      return n === undefined ? [] : [{ n, log: Math.log1p(-chance) }];
    }),
  );

  // Kept while sets grow by one fault at a time: log of "not there" of each fault, its sum, log of "not seen" of each finding.
  const none = Float64Array.from(knowledge, (fault) => Math.log1p(-fault.prior));
  let noneSum = none.reduce((sum, one) => sum + one, 0);
  const unseen = Float64Array.from(leaks);
  const turn = (fault: number, sign: 1 | -1) => {
    for (const { n, log } of spares[fault] as (typeof spares)[number]) {
      none[n] = (none[n] as number) + sign * log;
      noneSum += sign * log;
    }
    const row = misses[fault] as readonly number[];
    for (let k = 0; k < row.length; k++) unseen[k] = (unseen[k] as number) + sign * (row[k] as number);
  };
  const logOf = (set: readonly number[]): number => {
    let log = noneSum;
    for (const n of set) log += Math.log(-Math.expm1(none[n] as number)) - (none[n] as number);
    for (let k = 0; k < findings.length; k++) {
      const miss = unseen[k] as number;
      log += findings[k]?.[1] ? Math.log(-Math.expm1(miss)) : miss;
    }
    return log;
  };

  const logs: { readonly set: readonly number[]; readonly log: number }[] = [];
  const grow = (set: readonly number[], from: number): void => {
    if (set.length > 0) logs.push({ set, log: logOf(set) });
    if (set.length === largestExplanation) return;
    for (let n = from; n < count; n++) {
      turn(n, 1);
      grow([...set, n], n + 1);
      turn(n, -1);
    }
  };
  grow([], 0);
  logs.sort((a, b) => b.log - a.log);
  const best = logs[0]?.log ?? 0;
  const total = logs.reduce((sum, { log }) => sum + Math.exp(log - best), 0);
  const probabilities = new Map<string, number>(knowledge.map((fault) => [fault.code, 0]));
  for (const { set, log } of logs) {
    const share = Math.exp(log - best) / total;
    for (const n of set) {
      const { code } = knowledge[n] as Fault;
      probabilities.set(code, (probabilities.get(code) ?? 0) + share);
    }
  }
  return {
    explanations: logs.slice(0, keptExplanations).map(({ set, log }) =>
      explanationOf(
        set.map((n) => knowledge[n] as Fault),
        Math.exp(log - best) / total,
        findings,
      ),
    ),
    probabilities,
  };
}

function explanationOf(
  faults: readonly Fault[],
  probability: number,
  findings: readonly (readonly [Finding, boolean])[],
): Explanation {
  const shown = (finding: Finding) => 1 - faults.reduce((miss, fault) => miss * (1 - (fault.shows[finding] ?? 0)), 1);
  const isFirst = (fault: Fault) => !faults.some((other) => other.causes[fault.code] !== undefined);
  const seen = findings.filter(([, isSeen]) => isSeen).map(([finding]) => finding);
  const missed = findings.filter(([, isSeen]) => !isSeen).map(([finding]) => finding);
  return {
    // What began it stands before what it took along.
    faults: [...faults].sort((a, b) => Number(isFirst(b)) - Number(isFirst(a))).map((fault) => fault.code),
    probability,
    explained: seen.filter((finding) => shown(finding) >= explainedFrom),
    unexplained: seen.filter((finding) => shown(finding) < explainedFrom),
    contradicted: missed.filter((finding) => shown(finding) >= contradictedFrom),
    first: faults.filter(isFirst).map((fault) => fault.code),
  };
}

import { OutOfRangeError } from "../errors";
import type { Fault, FaultKnowledge } from "./faultKnowledge";
import { type Finding, findingLeakRatio } from "./findings";

/** What is known: seen, or looked for and not seen. What was not looked for is not in it. */
export type FaultEvidence = ReadonlyMap<Finding, boolean>;

/** What is only likelier or less likely: by what factor the odds of a finding have moved. */
export type SoftEvidence = ReadonlyMap<Finding, number>;

const noSoft: SoftEvidence = new Map();

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
  /** Chance of each fault, over all sets: that the unit has it too. */
  readonly probabilities: ReadonlyMap<string, number>;
  /** Chance of each fault that it began it: that it is there and nothing else that is there took it along. */
  readonly firstProbabilities: ReadonlyMap<string, number>;
  /** Chance that none of the model's faults is there. */
  readonly noneProbability: number;
}

/** Fewer faults allow larger sets in the same time: a chain with two independent faults has six. */
const largestOfCount = (count: number) => (count <= 16 ? 6 : count <= 25 ? 5 : 4);
/** A finding is explained where a set makes it so much likelier than it is without any fault, or likely at all. */
const [explainedFactor, explainedFrom] = [3, 0.3];
const contradictedFrom = 0.7;
const keptExplanations = 8;

/**
 * Ranked sets of faults that explain all evidence.
 *
 *     P(set | e) ~ product over faults P(fault or not | its causes in the set) x product over findings P(seen or not | set)
 *     P(seen | set) = 1 - (1 - leak) product over faults of the set (1 - shows)            (noisy or)
 *     P(fault | causes) = 1 - (1 - prior) product over its causes present (1 - link)
 *
 * A fault that excludes a finding multiplies the chance of seeing it by its factor. Soft evidence counts as
 * factor x P(seen) + P(not seen). No fault at all is a set too.
 *
 * Exact over all sets of up to four faults (five or six where few take part) that show something seen or are linked to one
 * that does. A fault that stands
 * apart from all of these is independent of them: its chance follows by itself, odds = prior odds x product over findings
 * not seen of (1 - shows). Larger sets are left out; cascades of more are found by their check list.
 * Where nothing was seen, all faults take part. Priors and likelihoods are rough.
 *
 * @throws {OutOfRangeError} no faults
 */
export function rankExplanations(
  knowledge: FaultKnowledge,
  evidence: FaultEvidence,
  soft: SoftEvidence = noSoft,
): FaultRanking {
  if (knowledge.length === 0) throw new OutOfRangeError("knowledge", 0, "at least one fault");
  const relevant = relevantFaults(knowledge, evidence, soft);
  const ranking = rankAll(relevant, evidence, soft);
  const apart = knowledge
    .filter((fault) => !relevant.includes(fault))
    .map((fault) => {
      let odds = fault.prior / (1 - fault.prior);
      for (const [finding, isSeen] of evidence) {
        odds *= isSeen ? (fault.excludes?.[finding] ?? 1) : 1 - (fault.shows[finding] ?? 0);
      }
      return [fault.code, odds / (1 + odds)] as const;
    });
  return {
    ...ranking,
    probabilities: new Map([...ranking.probabilities, ...apart]),
    firstProbabilities: new Map([...ranking.firstProbabilities, ...apart]),
  };
}

/** Faults that show something seen, and what these take along or come from. */
function relevantFaults(knowledge: FaultKnowledge, evidence: FaultEvidence, soft: SoftEvidence): FaultKnowledge {
  const seen = [...evidence].filter(([, isSeen]) => isSeen).map(([finding]) => finding);
  for (const [finding] of soft) seen.push(finding);
  const codes = new Set(
    knowledge.filter((fault) => seen.some((finding) => fault.shows[finding] !== undefined)).map((fault) => fault.code),
  );
  if (codes.size === 0) return knowledge;
  const direct = new Set(codes);
  for (const fault of knowledge) {
    if (direct.has(fault.code)) for (const caused of Object.keys(fault.causes)) codes.add(caused);
    else if (Object.keys(fault.causes).some((caused) => direct.has(caused))) codes.add(fault.code);
  }
  return knowledge.filter((fault) => codes.has(fault.code));
}

function rankAll(knowledge: FaultKnowledge, evidence: FaultEvidence, soft: SoftEvidence): FaultRanking {
  const count = knowledge.length;
  const largestExplanation = largestOfCount(count);
  const findings = [...evidence];
  const softFindings = [...soft];
  const all = [...findings.map(([finding]) => finding), ...softFindings.map(([finding]) => finding)];
  const indexOf = new Map(knowledge.map((fault, n) => [fault.code, n]));
  // Logs of 1 - shows for each fault and finding, and of 1 - link from each fault to those that it takes along.
  const misses = knowledge.map((fault) => all.map((finding) => Math.log1p(-(fault.shows[finding] ?? 0))));
  const leaks = all.map((finding) => Math.log1p(-findingLeakRatio(finding)));
  // What a fault excludes and was seen all the same.
  const against = knowledge.map((fault) =>
    findings.reduce((sum, [finding, isSeen]) => sum + (isSeen ? Math.log(fault.excludes?.[finding] ?? 1) : 0), 0),
  );
  const spares = knowledge.map((fault) =>
    Object.entries(fault.causes).flatMap(([caused, chance]) => {
      const n = indexOf.get(caused);
      return n === undefined ? [] : [{ n, log: Math.log1p(-chance) }];
    }),
  );

  // Kept while sets grow by one fault at a time: log of "not there" of each fault, its sum, log of "not seen" of each finding.
  const none = Float64Array.from(knowledge, (fault) => Math.log1p(-fault.prior));
  let noneSum = none.reduce((sum, one) => sum + one, 0);
  let againstSum = 0;
  const unseen = Float64Array.from(leaks);
  const turn = (fault: number, sign: 1 | -1) => {
    for (const { n, log } of spares[fault] as (typeof spares)[number]) {
      none[n] = (none[n] as number) + sign * log;
      noneSum += sign * log;
    }
    againstSum += sign * (against[fault] as number);
    const row = misses[fault] as readonly number[];
    for (let k = 0; k < row.length; k++) unseen[k] = (unseen[k] as number) + sign * (row[k] as number);
  };
  const isSeen = findings.map(([, seen]) => seen);
  const stack = new Int32Array(largestExplanation);
  const logOf = (depth: number): number => {
    let log = noneSum + againstSum;
    for (let d = 0; d < depth; d++) {
      const own = none[stack[d] as number] as number;
      log += Math.log(-Math.expm1(own)) - own;
    }
    for (let k = 0; k < isSeen.length; k++) {
      const miss = unseen[k] as number;
      log += isSeen[k] ? Math.log(-Math.expm1(miss)) : miss;
    }
    for (let k = 0; k < softFindings.length; k++) {
      const missed = Math.exp(unseen[isSeen.length + k] as number);
      log += Math.log((softFindings[k]?.[1] ?? 1) * (1 - missed) + missed);
    }
    return log;
  };

  // Sets lie flat, so many places each and -1 behind the last fault: some ten thousand are made at every reading.
  const most = setCount(count, largestExplanation) + 1;
  const sets = new Int32Array(most * largestExplanation).fill(-1);
  const logs = new Float64Array(most);
  let made = 0;
  const grow = (depth: number, from: number): void => {
    for (let d = 0; d < depth; d++) sets[made * largestExplanation + d] = stack[d] as number;
    logs[made++] = logOf(depth);
    if (depth === largestExplanation) return;
    for (let n = from; n < count; n++) {
      stack[depth] = n;
      turn(n, 1);
      grow(depth + 1, n + 1);
      turn(n, -1);
    }
  };
  grow(0, 0);

  const best = logs.reduce((top, log) => Math.max(top, log), -Infinity);
  const shares = logs.map((log) => Math.exp(log - best));
  const total = shares.reduce((sum, share) => sum + share, 0);
  const weights = new Float64Array(count);
  const membersOf = (set: number): number[] => {
    const members: number[] = [];
    for (let d = 0; d < largestExplanation; d++) {
      const n = sets[set * largestExplanation + d] as number;
      if (n >= 0) members.push(n);
    }
    return members;
  };
  const firsts = new Float64Array(count);
  const isCausedBy = knowledge.map((fault) =>
    new Uint8Array(count).map((_, by) => Number((knowledge[by] as Fault).causes[fault.code] !== undefined)),
  );
  for (let set = 0; set < made; set++) {
    const share = (shares[set] as number) / total;
    if (share < 1e-12) continue;
    const from = set * largestExplanation;
    for (let d = 0; d < largestExplanation; d++) {
      const n = sets[from + d] as number;
      if (n < 0) break;
      weights[n] = (weights[n] as number) + share;
      let isFirst = true;
      for (let e = 0; e < largestExplanation && isFirst; e++) {
        const by = sets[from + e] as number;
        if (by < 0) break;
        isFirst = (isCausedBy[n] as Uint8Array)[by] === 0;
      }
      if (isFirst) firsts[n] = (firsts[n] as number) + share;
    }
  }
  return {
    explanations: largestOf(shares, keptExplanations).map((set) =>
      explanationOf(
        membersOf(set).map((n) => knowledge[n] as Fault),
        (shares[set] as number) / total,
        findings,
      ),
    ),
    probabilities: new Map(knowledge.map((fault, n) => [fault.code, weights[n] as number])),
    firstProbabilities: new Map(knowledge.map((fault, n) => [fault.code, firsts[n] as number])),
    noneProbability: (shares[0] as number) / total,
  };
}

/** How many sets there are of one fault up to the largest, of so many faults. */
function setCount(count: number, largestExplanation: number): number {
  let [sum, choose] = [0, 1];
  for (let size = 1; size <= largestExplanation; size++) {
    choose = (choose * (count - size + 1)) / size;
    sum += Math.max(choose, 0);
  }
  return sum;
}

/** Indices of the largest values, largest first. */
function largestOf(values: Float64Array, count: number): readonly number[] {
  const top: number[] = [];
  for (let n = 0; n < values.length; n++) {
    const last = top[top.length - 1];
    if (top.length === count && last !== undefined && (values[n] as number) <= (values[last] as number)) continue;
    const at = top.findIndex((one) => (values[one] as number) < (values[n] as number));
    top.splice(at < 0 ? top.length : at, 0, n);
    if (top.length > count) top.pop();
  }
  return top;
}

function explanationOf(
  faults: readonly Fault[],
  probability: number,
  findings: readonly (readonly [Finding, boolean])[],
): Explanation {
  const shown = (finding: Finding) => 1 - faults.reduce((miss, fault) => miss * (1 - (fault.shows[finding] ?? 0)), 1);
  const isFirst = (fault: Fault) => !faults.some((other) => other.causes[fault.code] !== undefined);
  // What runs, and what was tried at the counter, speaks against faults and wants no explanation.
  const seen = findings
    .filter(([finding, isSeen]) => isSeen && findingLeakRatio(finding) < 0.5)
    .map(([finding]) => finding);
  const isExplained = (finding: Finding) =>
    shown(finding) >= Math.min(explainedFactor * findingLeakRatio(finding), explainedFrom);
  const missed = findings.filter(([, isSeen]) => !isSeen).map(([finding]) => finding);
  return {
    // What began it stands before what it took along.
    faults: [...faults].sort((a, b) => Number(isFirst(b)) - Number(isFirst(a))).map((fault) => fault.code),
    probability,
    explained: seen.filter(isExplained),
    unexplained: seen.filter((finding) => !isExplained(finding)),
    contradicted: missed.filter((finding) => shown(finding) >= contradictedFrom),
    first: faults.filter(isFirst).map((fault) => fault.code),
  };
}

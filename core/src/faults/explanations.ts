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

/** Fewer faults allow larger sets in the same time: a chain with two independent faults has six. */
const largestOfCount = (count: number) => (count <= 16 ? 6 : count <= 22 ? 5 : 4);
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
 * Exact over all sets of up to four faults (five or six where few take part) that show something seen or are linked to one
 * that does. A fault that stands
 * apart from all of these is independent of them: its chance follows by itself, odds = prior odds x product over findings
 * not seen of (1 - shows). Larger sets are left out; cascades of more are found by their check list.
 * Where nothing was seen, all faults take part. Priors and likelihoods are rough.
 *
 * @throws {OutOfRangeError} no faults
 */
export function rankExplanations(knowledge: FaultKnowledge, evidence: FaultEvidence): FaultRanking {
  if (knowledge.length === 0) throw new OutOfRangeError("knowledge", 0, "at least one fault");
  const relevant = relevantFaults(knowledge, evidence);
  const ranking = rankAll(relevant, evidence);
  const apart = knowledge
    .filter((fault) => !relevant.includes(fault))
    .map((fault) => {
      let odds = fault.prior / (1 - fault.prior);
      for (const [finding, isSeen] of evidence) if (!isSeen) odds *= 1 - (fault.shows[finding] ?? 0);
      return [fault.code, odds / (1 + odds)] as const;
    });
  return { ...ranking, probabilities: new Map([...ranking.probabilities, ...apart]) };
}

/** Faults that show something seen, and what these take along or come from. */
function relevantFaults(knowledge: FaultKnowledge, evidence: FaultEvidence): FaultKnowledge {
  const seen = [...evidence].filter(([, isSeen]) => isSeen).map(([finding]) => finding);
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

function rankAll(knowledge: FaultKnowledge, evidence: FaultEvidence): FaultRanking {
  const count = knowledge.length;
  const largestExplanation = largestOfCount(count);
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
  const isSeen = findings.map(([, seen]) => seen);
  const stack = new Int32Array(largestExplanation);
  const logOf = (depth: number): number => {
    let log = noneSum;
    for (let d = 0; d < depth; d++) {
      const own = none[stack[d] as number] as number;
      log += Math.log(-Math.expm1(own)) - own;
    }
    for (let k = 0; k < isSeen.length; k++) {
      const miss = unseen[k] as number;
      log += isSeen[k] ? Math.log(-Math.expm1(miss)) : miss;
    }
    return log;
  };

  // Sets lie flat, so many places each and -1 behind the last fault: some ten thousand are made at every reading.
  const most = setCount(count, largestExplanation);
  const sets = new Int32Array(most * largestExplanation).fill(-1);
  const logs = new Float64Array(most);
  let made = 0;
  const grow = (depth: number, from: number): void => {
    if (depth > 0) {
      for (let d = 0; d < depth; d++) sets[made * largestExplanation + d] = stack[d] as number;
      logs[made++] = logOf(depth);
    }
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
  for (let set = 0; set < made; set++) {
    for (let d = 0; d < largestExplanation; d++) {
      const n = sets[set * largestExplanation + d] as number;
      if (n >= 0) weights[n] = (weights[n] as number) + (shares[set] as number) / total;
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

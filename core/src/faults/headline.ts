import type { Explanation, FaultRanking } from "./explanations";
import { isTestFinding } from "./findings";

/** In which words a chance may be told; plain only where a test shows it. */
export type Sureness = "so_far" | "probably" | "very_likely" | "plain";

export interface FaultChance {
  readonly code: string;
  readonly chance: number;
}

/** What a job's story leads with. */
export interface Headline {
  /** What most likely began it; null: nothing in the supply. */
  readonly lead: FaultChance | null;
  readonly sureness: Sureness;
  /** Began something of their own, beside the lead. */
  readonly beside: readonly string[];
  /** What it took along, as likely as not or more. */
  readonly followed: readonly string[];
  /** Instead of the lead. */
  readonly others: readonly FaultChance[];
  /** The likeliest set that the lead began. */
  readonly explanation: Explanation | null;
}

const [evenFrom, likelyFrom, sureFrom] = [0.5, 0.8, 0.95];
const otherFrom = 0.15;
const mostOthers = 2;

/**
 * The story of a ranking: the likeliest first cause by its chance over all sets, never a set by itself, in words that fit its
 * chance. Null where nothing is ranked.
 */
export function headlineOf(ranking: FaultRanking): Headline | null {
  const firsts = [...ranking.firstProbabilities]
    .map(([code, chance]) => ({ code, chance }))
    .sort((a, b) => b.chance - a.chance);
  const [lead] = firsts;
  if (!lead || ranking.explanations.length === 0) return null;
  if (ranking.noneProbability > lead.chance) {
    const chance = ranking.noneProbability;
    const others = firsts.slice(0, mostOthers).filter((one) => one.chance >= otherFrom);
    const none = ranking.explanations.find((one) => one.faults.length === 0) ?? null;
    return { lead: null, sureness: surenessOf(chance, false), beside: [], followed: [], others, explanation: none };
  }
  const explanation = ranking.explanations.find((one) => one.first.includes(lead.code)) ?? null;
  const isShown = explanation?.explained.some(isTestFinding) ?? false;
  const isThere = (code: string) => (ranking.probabilities.get(code) ?? 0) >= evenFrom;
  const beside = explanation?.first.filter((code) => code !== lead.code && isThere(code)) ?? [];
  const followed = explanation?.faults.filter((code) => !explanation.first.includes(code) && isThere(code)) ?? [];
  const told = new Set([lead.code, ...beside, ...followed]);
  return {
    ...{ lead, sureness: surenessOf(lead.chance, isShown), beside, followed, explanation },
    others: firsts.filter((one) => one.chance >= otherFrom && !told.has(one.code)).slice(0, mostOthers),
  };
}

function surenessOf(chance: number, isShown: boolean): Sureness {
  if (chance < evenFrom) return "so_far";
  if (chance < likelyFrom) return "probably";
  return chance > sureFrom && isShown ? "plain" : "very_likely";
}

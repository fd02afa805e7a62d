import { anyFault, type FaultTally, type ShopRecord } from "../facts/shopRecord";
import { posteriorMeanProbability } from "../judgement/posteriorMean";
import { clamp } from "../numerics/clamp";
import { surestTestOf } from "./cascadeChecks";
import type { Fault, FaultKnowledge } from "./faultKnowledge";

/** One chance of the fault knowledge that the shop's closed jobs have moved. */
export interface RecordedChange {
  readonly kind: FaultTally["kind"];
  readonly fault: string;
  readonly other: string | null;
  readonly of: FaultTally["of"];
  readonly defaultProbability: number;
  readonly probability: number;
  readonly count: number;
  readonly total: number;
}

/** A chance of the knowledge is never certain, whatever was counted. */
const [least, most] = [0.0005, 0.995];

/**
 * The fault knowledge as closed jobs move it whose cause was shown: priors, what a fault shows, what it takes along.
 *
 *     p = (k + n0 p0) / (n + n0),   first by supplies built alike, then, with that as the default, by the same model
 *
 * Only what was seen often enough counts. Solid; the weight of the default is rough.
 *
 * @see posteriorMeanProbability
 */
export function recordedKnowledge(
  knowledge: FaultKnowledge,
  record: ShopRecord | null,
): { readonly knowledge: FaultKnowledge; readonly changes: readonly RecordedChange[] } {
  if (!record || record.faults.length === 0) return { knowledge, changes: [] };
  const changes: RecordedChange[] = [];
  const moved = (kind: FaultTally["kind"], fault: string, other: string | null, before: number): number => {
    let probability = before;
    for (const of of ["topology", "model"] as const) {
      const ofFault = (code: string) =>
        record.faults.find((one) => one.kind === kind && one.fault === code && one.other === other && one.of === of);
      const tally = ofFault(fault);
      const shown = kind === "prior" && tally?.total !== 0 ? ofFault(anyFault) : tally;
      if (!shown || shown.total < record.fewestCount) continue;
      const { count, total } = { count: tally?.count ?? 0, total: shown.total };
      const defaultProbability = probability;
      probability = clamp(
        posteriorMeanProbability(probability, { events: count, trials: total }, record.defaultWeight),
        least,
        most,
      );
      changes.push({ kind, fault, other, of, defaultProbability, probability, count, total });
    }
    return probability;
  };
  const each = (kind: "shows" | "causes", fault: Fault) =>
    Object.fromEntries(
      Object.entries(fault[kind]).map(([other, chance]) => [other, moved(kind, fault.code, other, chance)]),
    );
  return {
    knowledge: knowledge.map((fault) => ({
      ...fault,
      // What no test alone shows is the shown cause of no job: that says nothing of how common it is.
      prior: surestTestOf(fault) === null ? fault.prior : moved("prior", fault.code, null, fault.prior),
      shows: each("shows", fault),
      causes: each("causes", fault),
    })),
    changes,
  };
}

import {
  type CascadeCheck,
  cascadeChecks,
  type FaultRanking,
  faultKnowledge,
  rankExplanations,
  type Topology,
} from "@pale-cap/core";
import { expose } from "comlink";

export interface FaultAnswer extends FaultRanking {
  readonly checks: readonly CascadeCheck[];
}

const worker = {
  explain(topology: Topology | null, seen: readonly (readonly [string, boolean])[]): FaultAnswer {
    const knowledge = faultKnowledge(topology);
    const evidence = new Map(seen);
    const ranking = rankExplanations(knowledge, evidence);
    return { ...ranking, checks: cascadeChecks(knowledge, evidence, ranking) };
  },
};

export type FaultWorker = typeof worker;
expose(worker);

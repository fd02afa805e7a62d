import { foldHouseRules, jobRules } from "@pale-cap/contract";
import {
  areTipsFirst,
  type CircuitState,
  expectedEsrOfPart,
  type JobFacts,
  judgeBoard,
  needsReplacement,
  nextTargets,
  type PartJudgement,
  type QuantityKind,
} from "@pale-cap/core";

/** A board on some bench, as a way of working sees it. */
export interface PolicyBench {
  readonly facts: JobFacts;
  readonly places: readonly string[];
  readonly readingCount: number;
  readonly lifted: ReadonlySet<string>;
  isDomed(at: string): boolean;
  /** The tips together: what the leads add is read too. */
  shortTips(): void;
  /** null: it reads open, or nothing. */
  read(at: string, quantity: QuantityKind, circuitState: CircuitState): number | null;
}

/** What one way of working came to on one board. */
export interface Outcome {
  readonly condemned: ReadonlySet<string>;
  /** Chance of "failed" of each part that has one. */
  readonly probabilities: ReadonlyMap<string, number>;
}

export type PolicyName = "next_best" | "fixed_order" | "plain_rule";

const rules = jobRules(foldHouseRules([])).judgement;
/** Nobody lifts a lead for less than this: bits of expected information in a minute. */
const leastBitsPerMinute = 0.07;
const mostReadings = 80;

/** Three ways through the same board. */
export const policies: Readonly<Record<PolicyName, (bench: PolicyBench) => Outcome>> = {
  /** The application's own: what it proposes, until nothing is worth it. */
  next_best: (bench) => {
    for (let n = 0; n < mostReadings; n++) {
      const judgements = judgeBoard(bench.facts, rules);
      if (areTipsFirst(judgements)) {
        bench.shortTips();
        continue;
      }
      const [best] = nextTargets({
        facts: bench.facts,
        judgements,
        deviceKind: "monitor",
        strategy: "failed_only",
        isChargeVerified: true,
      });
      if (!best || best.gainBits / best.minutes < leastBitsPerMinute) break;
      bench.read(best.positionId, best.quantity, best.circuitState);
    }
    return outcomeOf(judgeBoard(bench.facts, rules));
  },
  /** Every part, one lead lifted: ESR, capacitance, voltage loss. */
  fixed_order: (bench) => {
    for (const at of bench.places) {
      for (const quantity of ["esr", "capacitance", "voltage_loss"] as const) bench.read(at, quantity, "lead_lifted");
    }
    return outcomeOf(judgeBoard(bench.facts, rules));
  },
  /** As on a tester's lid: in circuit, above three times the chart, or domed. */
  plain_rule: (bench) => {
    const condemned = new Set<string>();
    for (const at of bench.places) {
      const fitted = bench.facts.fittedParts.find((one) => one.positionId === at);
      const expected = fitted && expectedEsrOfPart(fitted, 100e3, 20);
      const value = bench.read(at, "esr", "in_circuit");
      const isHigh = expected !== undefined && expected !== null && value !== null && value > 3 * expected.typicalOhms;
      if (bench.isDomed(at) || isHigh) condemned.add(at);
    }
    return { condemned, probabilities: new Map() };
  },
};

function outcomeOf(judgements: ReadonlyMap<string, PartJudgement>): Outcome {
  const parts = [...judgements.values()];
  return {
    condemned: new Set(parts.filter(needsReplacement).map((one) => one.positionId)),
    probabilities: new Map(
      parts.flatMap((one) =>
        one.failedProbability === null ? [] : [[one.positionId, one.failedProbability] as const],
      ),
    ),
  };
}

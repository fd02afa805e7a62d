import { currentPart } from "../board/board";
import type { JobFacts } from "../facts/jobFacts";
import { needsReplacement } from "./needsReplacement";
import type { PartJudgement } from "./verdict";

/** What a supply that starts badly is told by. */
const badStarts = ["repeated_attempts", "cold_start_fails", "ticking", "indicator_pulses", "dead"];

/** How many parts go when some are bad. */
export type ReplacementStrategy = "failed_only" | "same_group" | "all_electrolytics" | "whole_supply";

/**
 * Positions that go out under a strategy, beyond those that are bad by themselves: `same_group` takes every part of the
 * same value, voltage and net as a bad one (parts of one batch die together), `all_electrolytics` everything as soon as
 * one is bad. With `whole_supply` no part is replaced at all: the supply is. A worn part of the control or standby supply goes
 * out of a unit that starts badly whatever the strategy: it is what will not let it start next winter.
 *
 * @returns ids of positions that only the strategy takes out
 */
export function replacementSet(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  strategy: ReplacementStrategy,
): readonly string[] {
  const capacitors = facts.positions.flatMap((position) => {
    const part = currentPart(facts.fittedParts, position.id);
    return position.kind === "electrolytic" && part?.origin === "found" ? [{ position, part }] : [];
  });
  const isBad = (id: string) => {
    const judgement = judgements.get(id);
    return judgement !== undefined && needsReplacement(judgement);
  };
  const bad = capacitors.filter((one) => isBad(one.position.id));
  if (strategy === "whole_supply") return [];
  const startsBadly = badStarts.some((one) => facts.symptoms.includes(one));
  const sectionOf = new Map(facts.nets.map((net) => [net.id, net.section]));
  const startsIt = ({ position }: (typeof capacitors)[number]) => {
    const section = sectionOf.get(position.netId ?? "");
    const isWorn = judgements.get(position.id)?.verdict === "worn";
    return startsBadly && isWorn && (section === "vcc" || section === "standby");
  };
  const goes = (one: (typeof capacitors)[number]) =>
    startsIt(one) ||
    (strategy === "all_electrolytics" && bad.length > 0) ||
    (strategy === "same_group" &&
      bad.some(
        (other) =>
          other.position.netId !== null &&
          other.position.netId === one.position.netId &&
          other.part.capacitanceFarads === one.part.capacitanceFarads &&
          other.part.ratedVolts === one.part.ratedVolts,
      ));
  return capacitors.filter((one) => !isBad(one.position.id) && goes(one)).map((one) => one.position.id);
}

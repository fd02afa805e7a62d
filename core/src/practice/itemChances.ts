import type { BoardPosition } from "../board/board";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import { latestSigns } from "../facts/visualSigns";
import { testOf } from "../faults/cascadeChecks";
import { faultKnowledge } from "../faults/faultKnowledge";
import { findingsOfPart } from "../faults/findingsOfPart";
import type { JobJudgement } from "../job/jobJudge";

const { shownRatio, clearedRatio, unreadRatio, crackedRatio } = tradeConstants.practice;

/** Stands for everything around a supply: lead, load, lamps. */
export const outsideItem = "outside";
/** Faults that lie outside the supply. */
const outsideFaults: readonly string[] = [
  ...["load_faulty", "host_overvolted", "lead_or_inlet_open", "light_strip_open", "light_driver_faulty"],
  ...["range_switch_wrong"],
];

/**
 * The chance that each place of a board is bad as a job stands, and that it is something around the supply. Capacitors as they are
 * judged; other parts by their own tests, and where none was done by the chance of the faults that such a test would show, shared
 * among the parts that could show it. A joint that was seen to be cracked, and glue that was seen to be brown, count by the look.
 * Convention, for the end of a practice job: none of it is a verdict.
 */
export function itemChances(facts: JobFacts, judged: JobJudgement): ReadonlyMap<string, number> {
  const { kind, topology } = facts.device;
  const chances = judged.explanation?.ranking.probabilities ?? new Map<string, number>();
  const shownBy = new Map<string, number>();
  for (const fault of faultKnowledge(topology, kind)) {
    const finding = testOf(fault);
    if (finding) shownBy.set(finding, Math.max(shownBy.get(finding) ?? 0, chances.get(fault.code) ?? 0));
  }
  const findings = new Map(
    facts.positions.map((one) => {
      const section = facts.nets.find((net) => net.id === one.netId)?.section;
      return [one.id, findingsOfPart(one, section)] as const;
    }),
  );
  const sharers = (finding: string) =>
    Math.max(1, [...findings.values()].filter((one) => (one as readonly string[]).includes(finding)).length);
  const bySight = (position: BoardPosition) => {
    const part = facts.fittedParts.find((one) => one.positionId === position.id && one.origin === "found");
    const seen = latestSigns(facts.signs, part?.id ?? position.id);
    const other = latestSigns(facts.signs, position.id);
    return [seen, other].some((one) => one.cracked_joint === "seen" || one.adhesive_brown === "seen");
  };
  const items = facts.positions.map((position): readonly [string, number] => {
    if (bySight(position)) return [position.id, crackedRatio];
    if (position.kind === "electrolytic") {
      return [position.id, judged.judgements.get(position.id)?.failedProbability ?? judgementConstants.B.prior_fail];
    }
    const verdict = judged.devices.get(position.id)?.verdict;
    if (verdict === "failed") return [position.id, shownRatio];
    if (verdict === "sound") return [position.id, clearedRatio];
    const most = Math.max(
      0,
      ...(findings.get(position.id) ?? []).map((finding) => (shownBy.get(finding) ?? 0) / sharers(finding)),
    );
    return [position.id, Math.max(most, unreadRatio)];
  });
  const around = outsideFaults.reduce((none, code) => none * (1 - (chances.get(code) ?? 0)), 1);
  return new Map([...items, [outsideItem, judged.explanation ? 1 - around : unreadRatio]]);
}

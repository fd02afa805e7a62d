import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import type { VerdictWord } from "../facts/overrules";
import { drainClues } from "../faults/drainClues";
import { needsReplacement } from "../judgement/needsReplacement";
import type { PartJudgement } from "../judgement/verdict";
import { type CheckState, railProof } from "../proof/railProof";
import { standingReadings } from "../readings/reading";
import { powerGate } from "../safety/powerGate";

/** One unit of a family, judged. */
export interface FamilyUnit {
  readonly jobId: string;
  readonly number: number;
  readonly facts: JobFacts;
  readonly judgements: ReadonlyMap<string, PartJudgement>;
  /** The same place over all units; a position that was entered by hand has only its own. */
  readonly lineageOf: (rowId: string) => string;
}

export type FindingCode = "part_bad" | "rail_bad" | "fuse_blown" | "bulk_stays_full" | "bulk_zero";

/** How the same thing stands on the unit that reads the list. */
export type OwnStanding = "not_on_board" | "not_checked" | "the_same_here" | "not_here";

/** Something that was found on other units of the family, and what this unit knows of it. */
export interface FamilyFinding {
  readonly code: FindingCode;
  /** Designator, rail or store. */
  readonly subject: string;
  readonly unitNumbers: readonly number[];
  readonly verdict: VerdictWord | null;
  readonly own: OwnStanding;
  readonly ownPositionId: string | null;
  readonly ownNetId: string | null;
}

interface Found {
  readonly code: FindingCode;
  readonly key: string;
  readonly subject: string;
  readonly verdict: VerdictWord | null;
}

/**
 * What the other units of a family mean for this one: every part that was condemned there, every rail outside its
 * limits, blown fuses and what the drain told. Units that agree are one line; open checks come first, then by how many
 * units agree.
 */
export function familyFindings(
  own: FamilyUnit,
  others: readonly FamilyUnit[],
  rules: JobRules,
): readonly FamilyFinding[] {
  const lines = new Map<string, FamilyFinding>();
  for (const unit of others) {
    for (const found of findingsOf(unit, rules)) {
      const key = `${found.code}:${found.key}`;
      const before = lines.get(key);
      const unitNumbers = [...(before?.unitNumbers ?? []), unit.number].sort((a, b) => a - b);
      lines.set(key, { ...(before ?? lineFor(own, found, rules)), unitNumbers });
    }
  }
  const rank: Readonly<Record<OwnStanding, number>> = {
    not_checked: 0,
    not_on_board: 1,
    the_same_here: 2,
    not_here: 3,
  };
  return [...lines.values()].sort(
    (a, b) =>
      rank[a.own] - rank[b.own] ||
      b.unitNumbers.length - a.unitNumbers.length ||
      a.subject.localeCompare(b.subject, "en", { numeric: true }),
  );
}

function findingsOf(unit: FamilyUnit, rules: JobRules): readonly Found[] {
  const { facts, judgements, lineageOf } = unit;
  const parts = facts.positions.flatMap((position): Found[] => {
    const judgement = judgements.get(position.id);
    if (!judgement || !needsReplacement(judgement)) return [];
    const { verdict } = judgement;
    return [{ code: "part_bad", key: lineageOf(position.id), subject: position.designator, verdict }];
  });
  const rails = facts.nets.flatMap((net): Found[] =>
    isRailBad(unit, net.id, rules)
      ? [{ code: "rail_bad", key: lineageOf(net.id), subject: net.name, verdict: null }]
      : [],
  );
  const fuse: Found[] = powerGate(facts, facts.symptoms, facts.powerEvents).cause
    ? [{ code: "fuse_blown", key: "fuse", subject: "fuse", verdict: null }]
    : [];
  return [...parts, ...rails, ...fuse, ...drainFindings(facts, rules)];
}

function drainFindings(facts: JobFacts, rules: JobRules): readonly Found[] {
  return facts.energyStores.flatMap((store): Found[] => {
    const codes = drainClues(store, facts.chargeEvents, rules.charge.workingVolts).map((clue) => clue.code);
    const found = (code: FindingCode): Found => ({ code, key: store.name, subject: store.name, verdict: null });
    return [
      ...(codes.includes("stays_full") ? [found("bulk_stays_full")] : []),
      ...(codes.includes("zero_from_start") ? [found("bulk_zero")] : []),
    ];
  });
}

/** What was wrong with a rail at any time tells of its brothers, mended here or not. */
const badStates: readonly CheckState[] = ["failed", "wrong_sign", "unexplained"];

function isRailBad({ facts }: FamilyUnit, netId: string, rules: JobRules): boolean {
  const net = facts.nets.find((one) => one.id === netId);
  if (!net) return false;
  const { unloaded, loaded, ripple } = railProof(net, facts, rules.rail, { isOfAnyTime: true });
  return [unloaded, loaded, ripple].some(({ state }) => badStates.includes(state));
}

function lineFor(own: FamilyUnit, found: Found, rules: JobRules): FamilyFinding {
  const { facts, judgements, lineageOf } = own;
  const position = facts.positions.find(
    (one) => found.code === "part_bad" && (lineageOf(one.id) === found.key || one.designator === found.subject),
  );
  const net = facts.nets.find(
    (one) => found.code === "rail_bad" && (lineageOf(one.id) === found.key || one.name === found.subject),
  );
  return {
    code: found.code,
    subject: found.subject,
    unitNumbers: [],
    verdict: found.verdict,
    own: standing(),
    ownPositionId: position?.id ?? null,
    ownNetId: net?.id ?? null,
  };

  function standing(): OwnStanding {
    switch (found.code) {
      case "part_bad": {
        const judgement = position && judgements.get(position.id);
        if (!judgement) return "not_on_board";
        if (needsReplacement(judgement)) return "the_same_here";
        return judgement.verdict === "sound" || judgement.verdict === "worn" ? "not_here" : "not_checked";
      }
      case "rail_bad": {
        if (!net) return "not_on_board";
        if (isRailBad(own, net.id, rules)) return "the_same_here";
        const isRead = standingReadings(facts.readings).some((one) => one.targetId === net.id && one.isPowered);
        return isRead ? "not_here" : "not_checked";
      }
      case "fuse_blown":
        return powerGate(facts, facts.symptoms, facts.powerEvents).cause ? "the_same_here" : "not_checked";
      default: {
        const store = facts.energyStores.find((one) => one.name === found.subject);
        if (!store) return "not_on_board";
        if (drainFindings(facts, rules).some((one) => one.code === found.code && one.subject === found.subject)) {
          return "the_same_here";
        }
        const isRead = facts.chargeEvents.some((one) => one.storeId === store.id && one.kind === "voltage_measured");
        return isRead ? "not_here" : "not_checked";
      }
    }
  }
}

import type { BoardNet, BoardPosition, PartKind } from "../board/board";
import { sectionFacts } from "../board/sections";
import { outcomeOf } from "../facts/jobActs";
import type { JobFacts, ReworkTick } from "../facts/jobFacts";
import type { ChargeRules } from "../facts/jobRules";
import { type LoggedFact, serverMilliseconds } from "../readings/factMoment";
import { loggedReading } from "../readings/reading";
import type { ChargeStateName } from "../safety/chargeWatch";
import { unnamedHolders } from "../safety/storeCoverage";
import { jobChargeState } from "./jobCharge";

/** Parts that stand on the output side of every supply, where their net does not say. */
const outputKinds: readonly PartKind[] = ["electrolytic", "fan", "regulator", "connector"];

/** Whether hands at a part are at the mains side; what no net places is taken for it, unless its kind never stands there. */
export function isMainsSidePart(nets: readonly BoardNet[], { netId, kind }: BoardPosition): boolean {
  const net = nets.find((one) => one.id === netId);
  return net ? sectionFacts[net.section].isMainsSide : !outputKinds.includes(kind);
}

/**
 * Whether work was done on the mains side while stored charge was not verified: a part was taken out or fitted there, and
 * at that moment the watch said anything else, also because nothing was named. Work on the output side asks for nothing.
 */
function wasMainsWorkUnverified(facts: JobFacts, rules: ChargeRules): boolean {
  const acts = facts.ticks.filter((tick) => {
    const position = facts.positions.find((one) => one.id === tick.positionId);
    const isAct = tick.isDone && (tick.step === "removed" || tick.step === "fitted");
    return isAct && position !== undefined && isMainsSidePart(facts.nets, position);
  });
  return acts.some((act) => chargeAt(facts, rules, act) !== "verified");
}

/**
 * Whether stored charge is an open point. A repair is asked whether it was verified when hands were at the mains side. A
 * unit that goes back as it is, or goes nowhere, is asked how it stands now, where it can hold anything: nobody knows who
 * opens it next.
 */
export function isChargeOpen(facts: JobFacts, rules: ChargeRules, nowMilliseconds: number): boolean {
  if (wasMainsWorkUnverified(facts, rules)) return true;
  if (outcomeOf(facts.acts) === "repaired") return false;
  const wasPowered = facts.readings.some((one) => one.isPowered) || facts.chargeEvents.length > 0;
  const canHold = wasPowered || facts.energyStores.length > 0 || unnamedHolders(facts).length > 0;
  return canHold && jobChargeState(facts, rules, nowMilliseconds).name !== "verified";
}

/** What the watch said when something was done: only what was stored before it counts, and the part was still there. */
function chargeAt(facts: JobFacts, rules: ChargeRules, act: ReworkTick): ChargeStateName {
  const fittedParts = facts.fittedParts.map((part) =>
    part.positionId === act.positionId && part.origin === "found" ? { ...part, removedAt: null } : part,
  );
  const chargeEvents = facts.chargeEvents.filter((event) => isBefore(event, act));
  const readings = facts.readings.filter((reading) => isBefore(loggedReading(reading), act));
  const now = serverMilliseconds(act) ?? Date.parse(act.at);
  return jobChargeState({ ...facts, fittedParts, chargeEvents, readings }, rules, now).name;
}

/** By the order of storing; of two that wait on this client by its own clock. */
function isBefore(fact: LoggedFact, act: LoggedFact): boolean {
  if (fact.sequence === null && act.sequence === null) return Date.parse(fact.at) <= Date.parse(act.at);
  return (fact.sequence ?? Number.POSITIVE_INFINITY) < (act.sequence ?? Number.POSITIVE_INFINITY);
}

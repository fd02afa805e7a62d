import { factsBefore } from "../facts/factsBefore";
import { outcomeOf } from "../facts/jobActs";
import type { JobFacts, ReworkTick } from "../facts/jobFacts";
import type { ChargeRules } from "../facts/jobRules";
import { serverMilliseconds } from "../readings/factMoment";
import type { ChargeStateName } from "../safety/chargeWatch";
import { isOnMainsSide } from "../safety/gateChecks";
import { unnamedHolders } from "../safety/storeCoverage";
import { jobChargeState } from "./jobCharge";

/**
 * Whether work was done on the mains side while stored charge was not verified: a part was taken out or fitted there, and
 * at that moment the watch said anything else, also because nothing was named. Work on the output side asks for nothing.
 */
function wasMainsWorkUnverified(facts: JobFacts, rules: ChargeRules): boolean {
  return mainsActs(facts).some((act) => chargeAt(facts, rules, act) !== "verified");
}

/** Whether anything was taken out or fitted on the mains side. */
export const wasMainsWorked = (facts: JobFacts): boolean => mainsActs(facts).length > 0;

function mainsActs(facts: JobFacts): readonly ReworkTick[] {
  return facts.ticks.filter((tick) => {
    const position = facts.positions.find((one) => one.id === tick.positionId);
    const isAct = tick.isDone && (tick.step === "removed" || tick.step === "fitted");
    return isAct && position !== undefined && isOnMainsSide(facts, position);
  });
}

/**
 * Whether stored charge is an open point. A repair is asked whether it was verified when hands were at the mains side. A
 * unit that goes back as it is, or goes nowhere, is asked how it stands now, where it can hold anything: nobody knows who
 * opens it next.
 *
 * @returns since when it is open: from the work, or now; null where it is not
 */
export function openCharge(facts: JobFacts, rules: ChargeRules, nowMilliseconds: number): "work" | "now" | null {
  if (wasMainsWorkUnverified(facts, rules)) return "work";
  if (outcomeOf(facts.acts) === "repaired") return null;
  const wasPowered = facts.readings.some((one) => one.isPowered) || facts.chargeEvents.length > 0;
  const canHold = wasPowered || facts.energyStores.length > 0 || unnamedHolders(facts).length > 0;
  return canHold && jobChargeState(facts, rules, nowMilliseconds).name !== "verified" ? "now" : null;
}

/** What the watch said when something was done: only what was stored before it counts, and the part was still there. */
function chargeAt(facts: JobFacts, rules: ChargeRules, act: ReworkTick): ChargeStateName {
  const fittedParts = facts.fittedParts.map((part) =>
    part.positionId === act.positionId && part.origin === "found" ? { ...part, removedAt: null } : part,
  );
  const now = serverMilliseconds(act) ?? Date.parse(act.at);
  return jobChargeState({ ...factsBefore(facts, act), fittedParts }, rules, now).name;
}

import { sectionFacts } from "../board/sections";
import { type JobAct, lastActOf, type ProofStepCode, proofStepCodes } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { isChange, lastAct } from "../facts/reworkTicks";
import { coldStarts, startsToShow } from "../proof/coldStarts";
import { hostLimitVolts } from "../proof/hostLimit";
import { loadedRails } from "../proof/loadPlan";
import type { CheckState } from "../proof/railProof";
import { inOrder, isBefore, type PlacedFact } from "../readings/factMoment";
import { loggedReading, standingReadings } from "../readings/reading";
import { wasMainsWorked } from "./chargeAtWork";
import { earthFaults, isEarthBonded } from "./earthBond";
import { proofOf } from "./railPoints";

/** Why a step is asked for. */
export type ProofReason =
  | "parts_changed"
  | "promised"
  | "control_or_feedback_work"
  | "bulk_work"
  | "fails_with_heat"
  | "comes_and_goes"
  | "complaint"
  | "mains_side_work";

/** `blocked`: something before it stands against it. */
export type ProofStepState = "done" | "failed" | "open" | "blocked" | "not_done";

export interface ProofStep {
  readonly code: ProofStepCode;
  readonly reason: ProofReason;
  readonly state: ProofStepState;
  /** Why it is not done, in the words of who said so. */
  readonly note: string | null;
  /** How far, where it is counted: starts. */
  readonly count: { readonly done: number; readonly wanted: number } | null;
}

const warm = new Set(["fails_when_warm", "cold_start_fails"]);
const wandering = new Set(["intermittent", "cold_start_fails", "fails_when_warm"]);

/**
 * The steps that show a repair, derived from what was promised, found and changed; nobody picks them. Each stands as what was
 * logged since the last part came out or went in says; a reason why one is not done stands until it is done all the same.
 */
export function proofPlan(facts: JobFacts, rules: JobRules): readonly ProofStep[] {
  const change = lastAct(facts.ticks);
  const isSince = (fact: PlacedFact) => change === null || isBefore(change, fact);
  const acts = facts.acts.filter(isSince);
  const rails = loadedRails(facts.nets);
  const changed = new Set(facts.ticks.filter(isChange).map((one) => one.positionId));
  const sectionsChanged = new Set(
    facts.positions
      .filter((one) => changed.has(one.id))
      .flatMap((one) => facts.nets.find((net) => net.id === one.netId)?.section ?? []),
  );
  const chips = facts.positions.filter(
    (one) => changed.has(one.id) && ["ic", "optocoupler", "regulator"].includes(one.kind),
  );
  const isControlWorked =
    chips.length > 0 || ["vcc", "standby", "feedback"].some((one) => sectionsChanged.has(one as "vcc"));
  const isBulkWorked = sectionsChanged.has("bulk") || sectionsChanged.has("pfc");
  const wanders = facts.symptoms.some((one) => wandering.has(one));
  const hot = hotRails(facts);
  const proofs = rails.map((net) => proofOf(net, facts, rules));
  const states = (of: "unloaded" | "loaded" | "ripple") => proofs.map((one) => one[of].state);
  const read = standingReadings(facts.readings).filter((one) => isSince(loggedReading(one)));
  const starts = startsSince(acts, startCondition(facts.acts));
  const [failedBefore, startsBefore] = lastActOf(facts.acts, "starts_before", null)?.numbers ?? [];
  const wanted = startsToShow(failedBefore ?? null, startsBefore ?? null);
  const last = (kind: JobAct["kind"]) => lastActOf(acts, kind, null);
  const step = (
    code: ProofStepCode,
    reason: ProofReason,
    isAsked: boolean,
    state: ProofStepState,
    count: ProofStep["count"] = null,
  ): readonly ProofStep[] => {
    if (!isAsked) return [];
    const said = lastActOf(
      facts.acts.filter((one) => one.word === code || (one.word === "taken_back" && one.note === code)),
      "step_not_done",
      null,
    );
    const note = said && said.word === code ? said.note : null;
    return [{ code, reason, state: state === "open" && note !== null ? "not_done" : state, note, count }];
  };
  const hasWork = change !== null;
  const isMainsWorked = wasMainsWorked(facts);
  const hasColdRails = read.some((one) => one.targetKind === "rail" && one.quantity === "resistance" && !one.isPowered);
  const hasFirstPower = facts.powerEvents.some((one) => one.kind === "first_power" && isSince(one));
  const isRefused =
    hot.length > 0 || states("unloaded").includes("failed") || states("unloaded").includes("wrong_sign");
  const lightRead = rails.length > 0 && rails.every((net) => read.some((one) => isLight(one, net.id)));
  return [
    ...step("cold_checks", "parts_changed", hasWork, hasColdRails ? "done" : "open"),
    ...step("first_power", "parts_changed", hasWork, hasFirstPower ? "done" : "open"),
    ...step(
      "over_voltage",
      "control_or_feedback_work",
      isControlWorked && rails.length > 0,
      hot.length > 0 ? "failed" : lightRead ? "done" : "open",
    ),
    ...step("unloaded", "promised", rails.length > 0, together(states("unloaded"))),
    ...step("loaded", "promised", rails.length > 0, together(states("loaded"))),
    ...step("ripple", "promised", rails.length > 0, together(states("ripple"))),
    ...step("hold_up", "bulk_work", isBulkWorked, last("hold_up") ? "done" : "open"),
    ...step(
      "heat",
      facts.symptoms.some((one) => warm.has(one)) ? "fails_with_heat" : "parts_changed",
      hasWork && rails.length > 0,
      read.some((one) => one.quantity === "temperature" && one.isPowered) ? "done" : "open",
    ),
    ...step("burn_in", wanders ? "comes_and_goes" : "parts_changed", hasWork, last("burn_in") ? "done" : "open"),
    ...step(
      "cold_starts",
      "comes_and_goes",
      wanders,
      starts.failed > 0 ? "failed" : starts.good >= wanted ? "done" : "open",
      { done: starts.good, wanted },
    ),
    ...step(
      "in_device",
      "complaint",
      facts.complaint !== "" && facts.complaint !== null && hasWork,
      inDevice(last("tried_in_device"), isRefused),
    ),
    ...step(
      "earth_insulation",
      "mains_side_work",
      isMainsWorked,
      earthFaults(facts, rules).length > 0
        ? "failed"
        : isEarthBonded(facts, rules) || last("insulation_read")
          ? "done"
          : "open",
    ),
  ].sort((a, b) => proofStepCodes.indexOf(a.code) - proofStepCodes.indexOf(b.code));

  function isLight(one: (typeof read)[number], netId: string): boolean {
    const full = facts.nets.find((net) => net.id === netId)?.fullLoadAmps ?? 0;
    return (
      one.targetKind === "rail" &&
      one.targetId === netId &&
      one.quantity === "dc_voltage" &&
      one.isPowered &&
      (one.loadAmps ?? 0) <= lightShare * full
    );
  }
}
const lightShare = 0.15;

function inDevice(tried: JobAct | null, isRefused: boolean): ProofStepState {
  if (isRefused) return "blocked";
  if (tried === null) return "open";
  return tried.word === "good" ? "done" : "failed";
}

/** Rails that were read above what their host bears since the last work: it stays unplugged. */
export function hotRails(facts: JobFacts): readonly string[] {
  const change = lastAct(facts.ticks);
  const isSince = (fact: PlacedFact) => change === null || isBefore(change, fact);
  return facts.nets
    .filter((net) => net.nominalVolts !== null && net.nominalVolts !== 0 && !sectionFacts[net.section].isMainsSide)
    .filter((net) =>
      standingReadings(facts.readings).some(
        (one) =>
          one.targetKind === "rail" &&
          one.targetId === net.id &&
          one.quantity === "dc_voltage" &&
          one.isPowered &&
          isSince(loggedReading(one)) &&
          Math.abs(one.value ?? 0) > hostLimitVolts(net.nominalVolts ?? 0),
      ),
    )
    .map((net) => net.id);
}

/** How it was when it failed: off for at least so long, no warmer than this; what nobody told is not asked. */
export interface StartCondition {
  readonly offSeconds?: number | null;
  readonly celsius?: number | null;
}

/** As it was told with the starts that failed before. */
export function startCondition(acts: readonly JobAct[]): StartCondition {
  const [, , offSeconds = null, celsius = null] = lastActOf(acts, "starts_before", null)?.numbers ?? [];
  return { offSeconds, celsius };
}

/** Off for nearly as long, and nearly as cold. A failure counts however it came. */
const [offShare, warmerKelvin] = [0.9, 3] as const;
function doesStartCount({ word, value, numbers }: JobAct, { offSeconds, celsius }: StartCondition): boolean {
  if (word === "failed") return true;
  const isLongEnough = offSeconds == null || (value ?? 0) >= offShare * offSeconds;
  const [warmth = null] = numbers ?? [];
  return isLongEnough && (celsius == null || (warmth !== null && warmth <= celsius + warmerKelvin));
}

/** Starts that were logged and count, good since the last that failed. */
export function startsSince(
  acts: readonly JobAct[],
  as: StartCondition = {},
): {
  readonly good: number;
  readonly failed: number;
  readonly all: number;
} {
  const starts = inOrder(acts.filter((one) => one.kind === "cold_start" && doesStartCount(one, as)));
  const failed = starts.filter((one) => one.word === "failed").length;
  return { good: starts.length - failed, failed, all: starts.length };
}

/** What the starts since the last work show of an intermittent fault. */
export function startsShown(facts: JobFacts) {
  const change = lastAct(facts.ticks);
  const since = facts.acts.filter((one) => change === null || isBefore(change, one));
  const starts = startsSince(since, startCondition(facts.acts));
  return { ...starts, shown: starts.all === 0 ? null : coldStarts(starts.all, starts.failed) };
}

/** The worst of several checks: one that fails, then one that is open. */
function together(states: readonly CheckState[]): ProofStepState {
  const bad: readonly CheckState[] = ["failed", "wrong_sign"];
  const good: readonly CheckState[] = ["passed", "as_new"];
  if (states.some((one) => bad.includes(one))) return "failed";
  return states.every((one) => good.includes(one)) ? "done" : "open";
}

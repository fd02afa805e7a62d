import { outcomeOf } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { lastAct } from "../facts/reworkTicks";
import { roundView } from "../facts/rounds";
import { closingList } from "../facts/teardown";
import { explainJob, type JobExplanation } from "../faults/explainJob";
import { judgeBoard } from "../judgement/judgeBoard";
import { isTipsTogether } from "../judgement/leadOffset";
import type { PartJudgement } from "../judgement/verdict";
import { isBefore } from "../readings/factMoment";
import { loggedReading, standingReadings } from "../readings/reading";
import { unnamedHolders } from "../safety/storeCoverage";
import { type RailRippleFinding, rippleFindings } from "../waveform/rippleFindings";
import { openCharge, wasMainsWorked } from "./chargeAtWork";
import { earthFaults, isEarthBonded } from "./earthBond";
import { connectedAgainstGate, firstPower } from "./firstPower";
import { jobChargeStates } from "./jobCharge";
import { type OpenPoint, openPoint } from "./openPoint";
import { partPoints } from "./partPoints";
import { capturePoints, railPoints } from "./railPoints";
import { workPoints } from "./workPoints";

/**
 * What a job must not be closed over in silence, collected from what was logged and never typed. A unit that goes back as it
 * is, or goes nowhere, is asked for its charge and its earth alone.
 */
export function openPoints(
  facts: JobFacts,
  rules: JobRules,
  nowMilliseconds: number,
  judgements: ReadonlyMap<string, PartJudgement> = judgeBoard(roundView(facts), rules.judgement),
  explanation: JobExplanation | null = explainJob(roundView(facts), judgements, rules),
  ripple: readonly RailRippleFinding[] = rippleFindings(roundView(facts)),
): readonly OpenPoint[] {
  const charge = openCharge(facts, rules.charge, nowMilliseconds);
  const always = [
    ...(charge === null ? [] : [openPoint("charge_not_verified", charge)]),
    ...earthPoints(facts, rules),
    ...earthFaults(facts, rules).map((code) => openPoint(code)),
  ];
  if (outcomeOf(facts.acts) !== "repaired") return always;
  return [
    ...partPoints(facts, rules, judgements),
    ...workPoints(facts, nowMilliseconds),
    ...explanationPoints(explanation),
    ...railPoints(facts, rules),
    ...capturePoints(facts, ripple),
    ...unitPoints(facts, judgements),
    ...powerPoints(facts, rules, nowMilliseconds),
    ...always,
    ...notPutBack(facts),
  ];
}

/** Whether anything was read under power since the last part went in or came out. */
export function isRunSinceLastAct(facts: Pick<JobFacts, "readings" | "ticks">): boolean {
  const act = lastAct(facts.ticks);
  return standingReadings(facts.readings).some(
    (one) => one.isPowered && (act === null || isBefore(act, loggedReading(one))),
  );
}

/** Without any promise: nothing read at all, never powered since the work, and whether it was the supply at all. */
function unitPoints(facts: JobFacts, judgements: ReadonlyMap<string, PartJudgement>): readonly OpenPoint[] {
  const standing = standingReadings(facts.readings);
  const points: OpenPoint[] = [];
  if (standing.every(isTipsTogether) && facts.captures.length === 0) points.push(openPoint("nothing_measured"));
  const act = lastAct(facts.ticks);
  if (!isRunSinceLastAct(facts)) points.push(openPoint("never_powered"));
  const isSupplyBlamed = act !== null || [...judgements.values()].some((one) => one.verdict === "failed");
  const isLoadElsewhere = facts.device.kind !== "adapter" && facts.device.kind !== "computer-supply";
  if (isSupplyBlamed && isLoadElsewhere && !facts.isSupplyChecked && !standing.some((one) => one.isPowered)) {
    points.push(openPoint("supply_not_checked"));
  }
  if (wasMainsWorked(facts)) {
    const names = unnamedHolders(facts).map((one) => one.designator);
    if (names.length > 0) points.push(openPoint("bulk_not_named", names.join(", ")));
  }
  return points;
}

function powerPoints(facts: JobFacts, rules: JobRules, nowMilliseconds: number): readonly OpenPoint[] {
  const { gate } = firstPower(facts, jobChargeStates(facts, rules.charge, nowMilliseconds));
  const against = connectedAgainstGate(facts, rules.charge).length;
  return [
    ...(gate.isShut ? [openPoint("power_gate_shut")] : []),
    ...(against > 0 ? [openPoint("powered_against_gate", String(against))] : []),
  ];
}

/** A life hangs on an earth: it closes by the screw, by a corrected count, or by a bond measured on the closed case. */
function earthPoints(facts: JobFacts, rules: JobRules): readonly OpenPoint[] {
  const missing = closingList(facts.teardownSteps, facts.teardownReturns)
    .filter(({ step }) => step.kind === "earth_screws")
    .reduce((sum, line) => sum + line.missingCount, 0);
  if (missing === 0 || isEarthBonded(facts, rules)) return [];
  return [openPoint("earth_screws_missing", String(missing))];
}

function notPutBack(facts: JobFacts): readonly OpenPoint[] {
  const missing = closingList(facts.teardownSteps, facts.teardownReturns).filter(
    ({ step, missingCount }) => missingCount > 0 && step.kind !== "earth_screws",
  );
  return missing.length > 0 ? [openPoint("not_put_back", String(missing.length))] : [];
}

/** What no fault of the best explanation brings about, and what a found fault may have taken along and nobody tested. */
function explanationPoints(explanation: JobExplanation | null): readonly OpenPoint[] {
  const best = explanation?.ranking.explanations[0];
  if (!explanation || !best) return [];
  const open = explanation.checks.filter((one) => one.state === "open");
  return [
    ...best.unexplained.map((finding) => ({
      ...openPoint("finding_unexplained", finding),
      key: `finding_unexplained:${finding}`,
    })),
    ...open.map(({ code }) => ({ ...openPoint("check_open", code), key: `check_open:${code}` })),
  ];
}

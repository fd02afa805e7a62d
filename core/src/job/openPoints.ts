import { currentPart, foundPart } from "../board/board";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts, Lens } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { closingList } from "../facts/teardown";
import { explainJob, type JobExplanation } from "../faults/explainJob";
import { judgeBoard } from "../judgement/judgeBoard";
import { judgeDevices } from "../judgement/judgeDevice";
import { needsReplacement } from "../judgement/needsReplacement";
import type { PartJudgement } from "../judgement/verdict";
import { railProof } from "../proof/railProof";
import { doPolaritiesAgree } from "../replacement/polarityCheck";
import { powerGate } from "../safety/powerGate";
import { type RailRippleFinding, rippleFindings } from "../waveform/rippleFindings";
import { openCharge } from "./chargeAtWork";
import { connectedAgainstGate } from "./firstPower";
import { doneSteps } from "./rework";

const { toldUnexplainedRatio } = tradeConstants.job;

export type OpenPointCode =
  | "part_not_replaced"
  | "part_not_refitted"
  | "part_undecided"
  | "polarity_unconfirmed"
  | "polarity_conflict"
  | "rail_not_loaded"
  | "rail_outside_limits"
  | "ripple_not_measured"
  | "ripple_above_limit"
  | "charge_not_verified"
  | "power_gate_shut"
  | "powered_against_gate"
  | "earth_screws_missing"
  | "not_put_back"
  | "device_bad"
  | "finding_unexplained"
  | "check_open"
  | "ripple_unexplained";

/** In which lens a point is settled. */
export const settledIn: Readonly<Record<OpenPointCode, Lens>> = {
  part_not_replaced: "rework",
  part_not_refitted: "rework",
  part_undecided: "measure",
  polarity_unconfirmed: "rework",
  polarity_conflict: "rework",
  rail_not_loaded: "prove",
  rail_outside_limits: "prove",
  ripple_not_measured: "prove",
  ripple_above_limit: "prove",
  charge_not_verified: "make-safe",
  power_gate_shut: "make-safe",
  powered_against_gate: "make-safe",
  earth_screws_missing: "rework",
  not_put_back: "rework",
  device_bad: "rework",
  finding_unexplained: "judge",
  check_open: "judge",
  ripple_unexplained: "prove",
};

/** Something that was logged or left out and that a job must not be closed over in silence. */
export interface OpenPoint {
  /** Stable over recomputation, so that an acceptance keeps hold of it. */
  readonly key: string;
  readonly code: OpenPointCode;
  /** Designator or rail name, or the code of a finding or fault, as the sentence needs it. */
  readonly subject: string;
  readonly positionId: string | null;
  readonly netId: string | null;
}

/** Collected from what was logged, never typed: parts, polarity, promised rails, stored charge. */
export function openPoints(
  facts: JobFacts,
  rules: JobRules,
  nowMilliseconds: number,
  judgements: ReadonlyMap<string, PartJudgement> = judgeBoard(facts, rules.judgement),
  explanation: JobExplanation | null = explainJob(facts, judgements, rules),
  ripple: readonly RailRippleFinding[] = rippleFindings(facts),
): readonly OpenPoint[] {
  const points = [
    ...partPoints(facts, judgements),
    ...devicePoints(facts),
    ...explanationPoints(explanation),
    ...railPoints(facts, rules),
    ...ripplePoints(facts, ripple),
  ];
  const charge = openCharge(facts, rules.charge, nowMilliseconds);
  if (charge !== null) {
    points.push({ key: "charge", code: "charge_not_verified", subject: charge, positionId: null, netId: null });
  }
  if (powerGate(facts, facts.symptoms, facts.powerEvents).isShut) {
    points.push({ key: "power_gate", code: "power_gate_shut", subject: "", positionId: null, netId: null });
  }
  const against = connectedAgainstGate(facts, rules.charge).length;
  if (against > 0) {
    const subject = String(against);
    points.push({ key: "against_gate", code: "powered_against_gate", subject, positionId: null, netId: null });
  }
  return [...points, ...teardownPoints(facts)];
}

/** What came out and has not gone back; earth screws by themselves, because a life hangs on them. */
function teardownPoints(facts: JobFacts): OpenPoint[] {
  const missing = closingList(facts.teardownSteps, facts.teardownReturns).filter((line) => line.missingCount > 0);
  const point = (code: OpenPointCode, count: number): OpenPoint[] =>
    count > 0 ? [{ key: code, code, subject: String(count), positionId: null, netId: null }] : [];
  const [earth, rest] = [
    missing.filter((line) => line.step.kind === "earth_screws"),
    missing.filter((line) => line.step.kind !== "earth_screws"),
  ];
  return [
    ...point(
      "earth_screws_missing",
      earth.reduce((sum, line) => sum + line.missingCount, 0),
    ),
    ...point("not_put_back", rest.length),
  ];
}

function partPoints(facts: JobFacts, judgements: ReadonlyMap<string, PartJudgement>): OpenPoint[] {
  const points: OpenPoint[] = [];
  for (const position of facts.positions) {
    const judgement = judgements.get(position.id);
    const steps = doneSteps(facts.ticks, position.id);
    const add = (code: OpenPointCode) =>
      points.push({
        key: `${code}:${position.id}`,
        code,
        subject: position.designator,
        positionId: position.id,
        netId: position.netId,
      });
    if (steps.has("removed") && !steps.has("fitted")) add("part_not_refitted");
    if (!steps.has("fitted")) {
      if (!steps.has("removed") && judgement && needsReplacement(judgement)) add("part_not_replaced");
      else if (judgement?.verdict === "cannot_tell") add("part_undecided");
      continue;
    }
    if (!steps.has("polarity_board_mark") || !steps.has("polarity_part_mark")) add("polarity_unconfirmed");
    const stripe = (currentPart(facts.fittedParts, position.id) ?? foundPart(facts.fittedParts, position.id))
      ?.stripeDegrees;
    if (doPolaritiesAgree(position.boardNegativeDegrees, stripe ?? null) === false) add("polarity_conflict");
  }
  return points;
}

/** A part that is no capacitor and reads bad, until a later reading says otherwise. */
function devicePoints(facts: JobFacts): OpenPoint[] {
  return [...judgeDevices(facts).values()].flatMap(({ positionId, verdict }) => {
    const position = facts.positions.find((one) => one.id === positionId);
    if (verdict !== "failed" || !position) return [];
    const { designator: subject, netId } = position;
    return [{ key: `device_bad:${positionId}`, code: "device_bad" as const, subject, positionId, netId }];
  });
}

/** What no fault of the best explanation brings about, and what a found fault may have taken along and nobody tested. */
function explanationPoints(explanation: JobExplanation | null): OpenPoint[] {
  const best = explanation?.ranking.explanations[0];
  if (!explanation || !best) return [];
  const point = (code: OpenPointCode, subject: string): OpenPoint => ({
    key: `${code}:${subject}`,
    code,
    subject,
    positionId: null,
    netId: null,
  });
  return [
    ...best.unexplained.map((finding) => point("finding_unexplained", finding)),
    ...explanation.checks.filter((one) => one.state === "open").map((one) => point("check_open", one.code)),
  ];
}

/** Captured ripple that the read capacitors do not bring about, beyond what was assumed. */
function ripplePoints(facts: JobFacts, ripple: readonly RailRippleFinding[]): OpenPoint[] {
  return ripple.flatMap(({ netId, attribution }) => {
    const { unexplainedVolts, switchingVolts } = attribution;
    if (
      unexplainedVolts === null ||
      switchingVolts === null ||
      unexplainedVolts < toldUnexplainedRatio * switchingVolts
    )
      return [];
    const subject = facts.nets.find((one) => one.id === netId)?.name ?? "";
    return [
      { key: `ripple_unexplained:${netId}`, code: "ripple_unexplained" as const, subject, positionId: null, netId },
    ];
  });
}

function railPoints(facts: JobFacts, rules: JobRules): OpenPoint[] {
  const points: OpenPoint[] = [];
  for (const net of facts.nets) {
    if (net.fullLoadAmps === null) continue;
    const proof = railProof(net, facts.readings, rules.rail);
    const add = (code: OpenPointCode) =>
      points.push({ key: `${code}:${net.id}`, code, subject: net.name, positionId: null, netId: net.id });
    if (proof.loaded === "not_measured") add("rail_not_loaded");
    if (proof.loaded === "failed" || proof.unloaded === "failed") add("rail_outside_limits");
    if (proof.ripple === "not_measured") add("ripple_not_measured");
    if (proof.ripple === "failed") add("ripple_above_limit");
  }
  return points;
}

import type { BoardNet } from "../board/board";
import { sectionFacts } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import { loggedCapture } from "../facts/captures";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { asNewRippleVolts } from "../proof/asNewRipple";
import { lastChange } from "../proof/lastChange";
import { type CheckState, type RailProof, railProof } from "../proof/railProof";
import { isBefore } from "../readings/factMoment";
import type { RailRippleFinding } from "../waveform/rippleFindings";
import { type OpenPoint, type OpenPointCode, openPoint } from "./openPoint";

const { toldUnexplainedRatio } = tradeConstants.job;

/** The proof of a rail by all that is known of the job. */
export function proofOf(net: BoardNet, facts: JobFacts, rules: JobRules): RailProof {
  return railProof(net, facts, rules.rail, { asNewVolts: (amps) => asNewRippleVolts(facts, net.id, amps) });
}

/**
 * What the rails leave open. A promised one wants its load and its ripple; any other output wants to be read at all. What
 * reads wrong is open whatever was promised.
 */
export function railPoints(facts: JobFacts, rules: JobRules): readonly OpenPoint[] {
  const outputs = facts.nets.filter((net) => isOutput(facts, net));
  return facts.nets.flatMap((net) => {
    const proof = proofOf(net, facts, rules);
    const isPromised = net.fullLoadAmps !== null;
    const isRead = proof.unloaded.reading !== null || proof.loaded.reading !== null;
    const codes = isPromised || isRead ? voltCodes(proof, isPromised) : [];
    if (isPromised || proof.ripple.reading !== null) codes.push(...rippleCodes(proof, isPromised));
    if (!isPromised && !isRead && outputs.includes(net) && !isNodeRead(facts, rules, net))
      codes.push("output_not_read");
    return [...new Set(codes)].map((code) => openPoint(code, net.name, { netId: net.id }));
  });
}

function voltCodes({ unloaded, loaded }: RailProof, isPromised: boolean): OpenPointCode[] {
  const states = [unloaded.state, loaded.state];
  const codes: OpenPointCode[] = [];
  if (states.includes("wrong_sign")) codes.push("rail_wrong_sign");
  else if (states.includes("failed")) codes.push("rail_outside_limits");
  else if (states.includes("unexplained")) codes.push("rail_unexplained");
  if (isPromised && loaded.state === "not_measured") codes.push("rail_not_loaded");
  if (isPromised && loaded.state === "part_load") codes.push("rail_part_load");
  return codes;
}

function rippleCodes({ ripple }: RailProof, isPromised: boolean): OpenPointCode[] {
  const open: readonly CheckState[] = ["not_measured", "part_load"];
  if (ripple.state === "failed") return ["ripple_above_limit"];
  if (ripple.state === "unexplained") return ["rail_unexplained"];
  return isPromised && open.includes(ripple.state) ? ["ripple_not_measured"] : [];
}

/** A net behind the barrier that feeds something: a node behind a choke is the same output as the one before it. */
function isOutput(facts: JobFacts, net: BoardNet): boolean {
  const { isMainsSide } = sectionFacts[net.section];
  const isFed = net.section === "output" || net.section === "output-post" || net.section === "standby";
  return !isMainsSide && isFed && facts.positions.some((one) => one.netId === net.id);
}

/** Whether the same output was read, or is promised, at the other side of its choke. */
function isNodeRead(facts: JobFacts, rules: JobRules, net: BoardNet): boolean {
  const nodes = facts.nets.filter((one) => one.network?.behindNetId === net.id || net.network?.behindNetId === one.id);
  return nodes.some((node) => {
    const { unloaded, loaded } = railProof(node, facts, rules.rail);
    return node.fullLoadAmps !== null || unloaded.reading !== null || loaded.reading !== null;
  });
}

/** Ripple captured since the last work or the rail's trim that the read capacitors do not bring about, beyond what was assumed. */
export function capturePoints(facts: JobFacts, ripple: readonly RailRippleFinding[]): readonly OpenPoint[] {
  return ripple.flatMap(({ netId, capture, attribution }) => {
    const change = lastChange(netId, facts);
    const { unexplainedVolts, switchingVolts } = attribution;
    if (change !== null && isBefore(loggedCapture(capture), change)) return [];
    if (unexplainedVolts === null || switchingVolts === null) return [];
    if (unexplainedVolts < toldUnexplainedRatio * switchingVolts) return [];
    const subject = facts.nets.find((one) => one.id === netId)?.name ?? "";
    return [openPoint("ripple_unexplained", subject, { netId })];
  });
}

import type { Topology } from "../facts/deviceProfiles";
import { type Finding, isFinding, isStage, isTestFinding } from "./findings";
import type { Stage } from "./firstSuspects";
import buck from "./knowledge/buck.json";
import flyback from "./knowledge/flyback.json";
import forward from "./knowledge/forward.json";
import pfc from "./knowledge/pfc.json";
import shared from "./knowledge/shared.json";

/** One way in which a supply fails. */
export interface Fault {
  readonly code: string;
  readonly stage: Stage;
  /** Chance that a unit which came in has it, before anything is known. */
  readonly prior: number;
  /** Findings with the chance that the fault alone brings them about. */
  readonly shows: Readonly<Record<Finding, number>>;
  /** Faults that it takes along, with the chance of each. */
  readonly causes: Readonly<Record<string, number>>;
}

export type FaultKnowledge = readonly Fault[];

const filesOf: Readonly<Record<Topology, readonly unknown[]>> = {
  flyback: [shared, flyback],
  flyback_with_standby: [shared, flyback],
  pfc_resonant_with_standby: [shared, forward, pfc],
  forward_or_half_bridge: [shared, forward],
  pfc_forward_with_standby: [shared, forward, pfc],
  buck_board: [shared, buck],
};

const loaded = new Map<Topology, FaultKnowledge>();

/** The faults of a kind of supply; an unknown topology takes the commonest. Checked when first asked for. */
export function faultKnowledge(topology: Topology | null): FaultKnowledge {
  const wanted = topology ?? "flyback";
  const before = loaded.get(wanted);
  if (before) return before;
  const faults = filesOf[wanted].flatMap((file) => (file as { readonly faults: FaultKnowledge }).faults);
  const problems = knowledgeProblems(faults);
  if (problems.length > 0) throw new Error(`Fault knowledge of ${wanted}: ${problems.join("; ")}`);
  loaded.set(wanted, faults);
  return faults;
}

/**
 * What is wrong with a set of faults, in words; empty where it holds together: codes stand once, findings are of the
 * vocabulary, probabilities lie within 0 and 1, cascades lead to faults that are there and never in a circle, and every
 * fault can be confirmed by a test that it nearly always shows.
 */
export function knowledgeProblems(faults: FaultKnowledge): readonly string[] {
  const problems: string[] = [];
  const codes = new Set<string>();
  for (const fault of faults) {
    if (codes.has(fault.code)) problems.push(`${fault.code} stands twice`);
    codes.add(fault.code);
    if (!isStage(fault.stage)) problems.push(`${fault.code} is at no stage of a supply`);
    if (!(fault.prior > 0 && fault.prior < 1)) problems.push(`${fault.code} has a prior of ${fault.prior}`);
    for (const [finding, chance] of Object.entries(fault.shows)) {
      if (!isFinding(finding)) problems.push(`${fault.code} shows ${finding}, which is no finding`);
      if (!(chance > 0 && chance < 1)) problems.push(`${fault.code} shows ${finding} with ${chance}`);
    }
    if (!Object.entries(fault.shows).some(([finding, chance]) => isTestFinding(finding) && chance >= 0.7)) {
      problems.push(`${fault.code} is confirmed by no test`);
    }
  }
  for (const fault of faults) {
    for (const [caused, chance] of Object.entries(fault.causes)) {
      // What a topology does not have cannot be taken along there.
      if (!(chance > 0 && chance < 1)) problems.push(`${fault.code} causes ${caused} with ${chance}`);
      if (caused === fault.code) problems.push(`${fault.code} causes itself`);
    }
  }
  if (!hasOrder(faults)) problems.push("cascades run in a circle");
  return problems;
}

/** Whether the cascades can be put in an order (Kahn's algorithm). */
function hasOrder(faults: FaultKnowledge): boolean {
  const left = new Map(faults.map((fault) => [fault.code, fault]));
  for (;;) {
    const caused = new Set([...left.values()].flatMap((fault) => Object.keys(fault.causes)));
    const free = [...left.keys()].filter((code) => !caused.has(code));
    if (free.length === 0) return left.size === 0;
    for (const code of free) left.delete(code);
  }
}

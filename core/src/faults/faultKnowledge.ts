import type { BoardNet, BoardPosition, PartKind } from "../board/board";
import type { Section } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { DeviceKind } from "../facts/deviceKinds";
import type { Topology } from "../facts/deviceProfiles";
import { type Finding, isFinding, isStage, isTestFinding } from "./findings";
import type { Stage } from "./firstSuspects";
import backlight from "./knowledge/backlight.json";
import buck from "./knowledge/buck.json";
import dropper from "./knowledge/dropper.json";
import flyback from "./knowledge/flyback.json";
import forward from "./knowledge/forward.json";
import general from "./knowledge/general.json";
import pfc from "./knowledge/pfc.json";
import resonant from "./knowledge/resonant.json";
import selfOscillating from "./knowledge/selfOscillating.json";
import shared from "./knowledge/shared.json";
import standby from "./knowledge/standby.json";
import { symptomCodes } from "./symptoms";

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
  /** Findings that can hardly be while it is there: factors on the chance of seeing them. */
  readonly excludes?: Readonly<Record<Finding, number>>;
  /** Parts without which a board cannot have it. */
  readonly needs?: { readonly kinds: readonly PartKind[]; readonly sections?: readonly Section[] };
}

const { enteredCapacitors, enteredParts, absentFactor } = tradeConstants.faults;

export type FaultKnowledge = readonly Fault[];

const filesOf: Readonly<Record<Topology, readonly unknown[]>> = {
  flyback: [general, shared, flyback],
  flyback_with_standby: [general, shared, flyback, standby],
  pfc_resonant_with_standby: [general, shared, forward, resonant, pfc, standby],
  forward_or_half_bridge: [general, shared, forward],
  pfc_forward_with_standby: [general, shared, forward, pfc, standby],
  self_oscillating: [general, shared, flyback, selfOscillating],
  push_pull: [general, shared, forward],
  series_dropper: [general, dropper],
  buck_board: [general, buck],
};
/** Devices whose load is lamps behind a picture. */
const litKinds: readonly DeviceKind[] = ["monitor", "television"];

const loaded = new Map<string, FaultKnowledge>();

/**
 * The faults of a kind of supply, with those of its device's lamps; an unknown topology takes the commonest. Checked when
 * first asked for.
 */
export function faultKnowledge(topology: Topology | null, kind: DeviceKind | null = null): FaultKnowledge {
  const wanted = topology ?? "flyback";
  const isLit = kind !== null && litKinds.includes(kind);
  const key = isLit ? `${wanted} lit` : wanted;
  const before = loaded.get(key);
  if (before) return before;
  const faults = [...filesOf[wanted], ...(isLit ? [backlight] : [])]
    .flatMap((file) => (file as { readonly faults: FaultKnowledge }).faults)
    .map(withRunning);
  const problems = knowledgeProblems(faults);
  if (problems.length > 0) throw new Error(`Fault knowledge of ${wanted}: ${problems.join("; ")}`);
  loaded.set(key, faults);
  return faults;
}

/** A fault that nearly always leaves a unit dead can hardly be there while its output stands; its input can not while the standby does. */
const [killsFrom, whileRunning] = [0.9, 0.01];
const [commonFrom, foreignFactor] = [0.05, 0.35];

function withRunning(fault: Fault): Fault {
  const kills = (fault.shows.dead ?? 0) >= killsFrom;
  // The commonest faults are common because units come for what they show: where something else is told, they are rarer.
  const isCommon = fault.prior >= commonFrom;
  const foreign = isCommon
    ? Object.fromEntries(symptomCodes.filter((one) => !fault.shows[one]).map((one) => [one, foreignFactor]))
    : {};
  if (!kills) return isCommon ? { ...fault, excludes: { ...foreign, ...fault.excludes } } : fault;
  const isBeforeAll =
    fault.stage === "input" || fault.stage === "bridge" || fault.stage === "pfc" || fault.stage === "bulk";
  return {
    ...fault,
    excludes: {
      ...foreign,
      supply_runs: whileRunning,
      ...(isBeforeAll && { standby_runs: whileRunning }),
      ...fault.excludes,
    },
  };
}

/**
 * The knowledge of a board: what it has no part for is hardly there. A board of which only some parts were entered keeps such
 * faults, weaker.
 */
export function knowledgeOfBoard(
  knowledge: FaultKnowledge,
  board: { readonly positions: readonly BoardPosition[]; readonly nets: readonly BoardNet[] },
): FaultKnowledge {
  const sectionOf = new Map(board.nets.map((net) => [net.id, net.section]));
  const { positions } = board;
  const has = ({ kinds, sections }: NonNullable<Fault["needs"]>) =>
    positions.some((one) => {
      const section = one.netId === null ? undefined : sectionOf.get(one.netId);
      return kinds.includes(one.kind) && (!sections || section === undefined || sections.includes(section));
    });
  const isEntered = (kinds: readonly PartKind[]) =>
    kinds.includes("electrolytic")
      ? positions.filter((one) => one.kind === "electrolytic" && one.netId !== null).length >= enteredCapacitors
      : positions.length >= enteredParts;
  return knowledge.map((fault) => {
    if (!fault.needs || has(fault.needs) || !isEntered(fault.needs.kinds)) return fault;
    const odds = (fault.prior / (1 - fault.prior)) * absentFactor;
    return { ...fault, prior: odds / (1 + odds) };
  });
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
    for (const [finding, factor] of Object.entries(fault.excludes ?? {})) {
      if (!isFinding(finding)) problems.push(`${fault.code} excludes ${finding}, which is no finding`);
      if (!(factor > 0 && factor < 1)) problems.push(`${fault.code} excludes ${finding} with ${factor}`);
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

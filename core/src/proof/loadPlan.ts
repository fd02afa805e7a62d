import type { BoardNet } from "../board/board";
import { sectionFacts } from "../board/sections";
import { type LabelLimits, labelShare } from "./labelLimits";

/** One state of all promised rails at once: one at its share, the others light; or all together. */
export interface LoadStep {
  readonly key: string;
  /** null: all together. */
  readonly netId: string | null;
  /** Of its own promise. */
  readonly ratio: number;
  /** Amperes by rail. */
  readonly loads: ReadonlyMap<string, number>;
}

/** Shares of a promise, and what the others carry meanwhile. */
const ratios = [0, 0.25, 0.5, 0.75, 1] as const;
const otherRatio = 0.1;

/** Rails that a load is put on: promised, on the secondary, and not a node behind the choke of another promised one. */
export function loadedRails(nets: readonly BoardNet[]): readonly BoardNet[] {
  return nets.filter(
    (net) =>
      net.fullLoadAmps !== null &&
      net.fullLoadAmps > 0 &&
      net.nominalVolts !== null &&
      net.nominalVolts !== 0 &&
      !sectionFacts[net.section].isMainsSide,
  );
}

/**
 * The steps of load that show a promise: each rail at 0, 25, 50, 75 and 100 % of it with the others at a tenth, then all together
 * as far as the label's watts reach, of all and of those that it counts together. A rail with a least load is never below it; a current output is loaded by volts and never
 * left open: it has no step of its own here and keeps its full load.
 *
 * @param label of the type plate: of all outputs, and of some together
 */
export function loadPlan(nets: readonly BoardNet[], label: LabelLimits): readonly LoadStep[] {
  const rails = loadedRails(nets);
  const full = (net: BoardNet) => net.fullLoadAmps ?? 0;
  const light = (net: BoardNet, ratio: number) =>
    Math.max(ratio * full(net), Math.min(net.leastLoadAmps ?? 0, full(net)));
  const ampsOf = (net: BoardNet, ratio: number) => (net.isCurrentOutput ? full(net) : light(net, ratio));
  const steps = rails
    .filter((net) => !net.isCurrentOutput)
    .flatMap((net) => {
      const shares = ratios.filter((ratio) => ratio > 0 || !(net.leastLoadAmps != null && net.leastLoadAmps > 0));
      return shares.map((ratio): LoadStep => {
        const loads = new Map(rails.map((one) => [one.id, ampsOf(one, one === net ? ratio : otherRatio)]));
        return { key: `${net.id} ${ratio}`, netId: net.id, ratio, loads };
      });
    });
  if (rails.length < 2) return steps;
  const share = labelShare(wattsByRail(rails), label);
  const together = new Map(rails.map((net) => [net.id, ampsOf(net, share)]));
  return [...steps, { key: "together", netId: null, ratio: share, loads: together }];
}

/** Watts of each rail at its promise. */
const wattsByRail = (rails: readonly BoardNet[]): ReadonlyMap<string, number> =>
  new Map(rails.map((net) => [net.id, Math.abs(net.nominalVolts ?? 0) * (net.fullLoadAmps ?? 0)]));

export type LoadFault = "above_promise" | "below_zero" | "not_a_rail" | "above_label" | "above_combined";

/** What is wrong with a set of loads before anything is switched; null: nothing. Overload is its own choice. */
export function loadFault(
  nets: readonly BoardNet[],
  loads: ReadonlyMap<string, number>,
  label: LabelLimits,
  isOverloadMeant = false,
): { readonly code: LoadFault; readonly netId: string | null } | null {
  const rails = loadedRails(nets);
  const drawn = new Map<string, number>();
  for (const [netId, amps] of loads) {
    const net = rails.find((one) => one.id === netId);
    if (!net) return { code: "not_a_rail", netId };
    if (!(amps >= 0)) return { code: "below_zero", netId };
    if (!isOverloadMeant && amps > (net.fullLoadAmps ?? 0) * (1 + 1e-9)) return { code: "above_promise", netId };
    drawn.set(netId, amps * Math.abs(net.nominalVolts ?? 0));
  }
  if (isOverloadMeant || labelShare(drawn, label) > 1 - 1e-9) return null;
  const isWhole = labelShare(drawn, { ...label, groups: [] }) < 1;
  return { code: isWhole ? "above_label" : "above_combined", netId: null };
}

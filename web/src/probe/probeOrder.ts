import type { FittedPartRow, Net, Position } from "@pale-cap/contract";
import { capacitorsInOrder, netsInOrder } from "@pale-cap/contract";
import { partInHand, probePoints, sectionFacts } from "@pale-cap/core";
import type { ProbeTarget } from "../job/workplaceSlice";

interface ProbedBoard {
  readonly nets: readonly Net[];
  readonly positions: readonly Position[];
  readonly fittedParts: readonly FittedPartRow[];
}

/**
 * Where the bar goes when it steps: from rail to rail, or over the capacitors that sit on the board, the new ones that lie
 * there ready, and then over the other
 * parts, test by test. A live test and one that only some parts have are not on the way, and no key leads to a live
 * reading on the mains side.
 */
export function probeOrder(board: ProbedBoard, kind: ProbeTarget["kind"] | undefined): readonly ProbeTarget[] {
  if (kind === "rail") {
    const outputs = netsInOrder(board).filter((net) => !sectionFacts[net.section].isMainsSide);
    return outputs.map((one) => ({ kind: "rail", id: one.id }));
  }
  const capacitors = capacitorsInOrder(board).flatMap(({ position, current }): readonly ProbeTarget[] => {
    const target = { kind: "part", id: position.id } as const;
    const hasNew = partInHand(board.fittedParts, position.id) !== undefined;
    return [...(current ? [target] : []), ...(hasNew ? [{ ...target, isNewPart: true }] : [])];
  });
  const tests = probePoints(board)
    .filter((one) => one.group === "device" && !one.isLive && !one.isOptional)
    .map(
      (one): ProbeTarget => ({ kind: "part", id: one.targetId, ...(one.terminals && { terminals: one.terminals }) }),
    );
  return [...capacitors, ...tests];
}

/** The target so many steps on, round the end; from a test that is not on the way, from its part's first. */
export function steppedTarget(
  order: readonly ProbeTarget[],
  target: ProbeTarget | undefined,
  by: number,
): ProbeTarget | undefined {
  if (order.length === 0) return undefined;
  const exact = order.findIndex(
    (one) =>
      one.id === target?.id &&
      one.terminals === target?.terminals &&
      Boolean(one.isNewPart) === Boolean(target?.isNewPart),
  );
  const at = exact < 0 ? order.findIndex((one) => one.id === target?.id) : exact;
  return order[(at + by + order.length) % order.length];
}

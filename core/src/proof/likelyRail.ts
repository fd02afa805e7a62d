import type { BoardNet } from "../board/board";
import { sectionFacts } from "../board/sections";

/** Within this share of its volts a rail is taken for itself; another has to be this near to be taken for that one. */
const [ownRatio, otherRatio] = [0.2, 0.04] as const;

/**
 * The rail that was probably probed instead of the one that was meant: what was read is far from its own volts and near those of one
 * other. null: it may be itself, or nobody can tell. Rough.
 */
export function likelyRail(net: BoardNet, volts: number, nets: readonly BoardNet[]): BoardNet | null {
  const nominal = net.nominalVolts;
  if (nominal === null || nominal === 0 || Math.abs(volts - nominal) <= ownRatio * Math.abs(nominal)) return null;
  const near = nets.filter(
    (one) =>
      one.id !== net.id &&
      one.nominalVolts !== null &&
      one.nominalVolts !== 0 &&
      !sectionFacts[one.section].isMainsSide &&
      Math.abs(volts - one.nominalVolts) <= otherRatio * Math.abs(one.nominalVolts),
  );
  return near.length === 1 ? (near[0] ?? null) : null;
}

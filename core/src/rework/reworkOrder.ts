import { type BoardPosition, currentPart, type FittedPart, foundPart } from "../board/board";
import { type Section, sectionFacts, sections } from "../board/sections";
import { type JobAct, lastActOf } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";

/** Why a place comes when it does. */
export type OrderReason = "fixed_first" | "small_beside_tall" | "mains_last" | "by_hand";

export interface WorkStep {
  readonly positionId: string;
  readonly section: Section | null;
  readonly reasons: readonly OrderReason[];
  /** No photo and no drawing shows its place: it goes out and its new one in before the next. */
  readonly isOneAtATime: boolean;
  /** The mains side begins here: its charge is asked again. */
  readonly asksCharge: boolean;
}

type Facts = Pick<JobFacts, "positions" | "fittedParts" | "nets" | "acts">;

/** Bodies nearer than this are in each other's way, and one must be so much taller to hide another. Rough. */
const [nearMetres, tallerRatio] = [5e-3, 1.4] as const;

/**
 * The places of a round in the order in which hands reach them: section by section from the outputs, the mains side last; within
 * one what is glued or clamped before what it blocks, a small one beside a tall one before that, then by name. What a person moved
 * stands where it was put.
 *
 * @param hasBoardPhoto a picture of the board is there: then every place is shown
 */
export function reworkOrder(facts: Facts, positionIds: readonly string[], hasBoardPhoto: boolean): readonly WorkStep[] {
  const places = positionIds.flatMap((id) => facts.positions.find((one) => one.id === id) ?? []);
  const sectionOf = ({ netId }: BoardPosition) => facts.nets.find((one) => one.id === netId)?.section ?? null;
  const isMains = (one: BoardPosition) => {
    const section = sectionOf(one);
    return section !== null && sectionFacts[section].isMainsSide;
  };
  const rank = (one: BoardPosition) => {
    const section = sectionOf(one);
    const place = section === null ? sections.length : sections.indexOf(section);
    return (isMains(one) ? 100 : 0) + place;
  };
  const sorted = [...places].sort(
    (a, b) =>
      rank(a) - rank(b) || a.designator.localeCompare(b.designator, "en", { numeric: true }) || (a.id < b.id ? -1 : 1),
  );
  const reasons = new Map<string, OrderReason[]>(places.map((one) => [one.id, []]));
  const ordered: BoardPosition[] = [];
  for (const group of grouped(sorted, rank)) ordered.push(...unblocked(group, facts, reasons));
  const placed = movedByHand(ordered, facts.acts, reasons);
  let wasMains = false;
  return placed.map((one) => {
    const mains = isMains(one);
    const asksCharge = mains && !wasMains;
    wasMains = mains;
    const own = reasons.get(one.id) ?? [];
    return {
      positionId: one.id,
      section: sectionOf(one),
      reasons: asksCharge && placed.some((other) => !isMains(other)) ? [...own, "mains_last" as const] : own,
      isOneAtATime: !hasBoardPhoto && one.xMetres === null,
      asksCharge,
    };
  });
}

function grouped(sorted: readonly BoardPosition[], rank: (one: BoardPosition) => number): BoardPosition[][] {
  const groups: BoardPosition[][] = [];
  for (const one of sorted) {
    const last = groups.at(-1);
    if (last?.[0] && rank(last[0]) === rank(one)) last.push(one);
    else groups.push([one]);
  }
  return groups;
}

/** One section in an order in which nothing waits behind what blocks it; where all block each other, by name. */
function unblocked(
  group: readonly BoardPosition[],
  facts: Facts,
  reasons: ReadonlyMap<string, OrderReason[]>,
): readonly BoardPosition[] {
  const before = new Map<string, Set<string>>(group.map((one) => [one.id, new Set()]));
  for (const one of group) {
    for (const other of group) {
      if (one === other || !areNear(one, other, facts.fittedParts)) continue;
      const isFixed = one.fixing === "glued" || one.fixing === "clamped";
      const isOtherFixed = other.fixing === "glued" || other.fixing === "clamped";
      const isSmaller = heightOf(other, facts) > tallerRatio * heightOf(one, facts);
      if (isFixed && !isOtherFixed) {
        before.get(other.id)?.add(one.id);
        reasons.get(one.id)?.push("fixed_first");
      } else if (isFixed === isOtherFixed && isSmaller) {
        before.get(other.id)?.add(one.id);
        reasons.get(one.id)?.push("small_beside_tall");
      }
    }
  }
  for (const [id, list] of reasons) if (list.length > 1) reasons.get(id)?.splice(0, list.length, ...new Set(list));
  const left = [...group];
  const out: BoardPosition[] = [];
  while (left.length > 0) {
    const free = left.findIndex((one) => [...(before.get(one.id) ?? [])].every((id) => !left.some((l) => l.id === id)));
    out.push(...left.splice(Math.max(free, 0), 1));
  }
  return out;
}

function areNear(a: BoardPosition, b: BoardPosition, parts: readonly FittedPart[]): boolean {
  if (a.xMetres === null || a.yMetres === null || b.xMetres === null || b.yMetres === null) return false;
  const gap = Math.hypot(a.xMetres - b.xMetres, a.yMetres - b.yMetres) - radiusOf(a, parts) - radiusOf(b, parts);
  return gap < nearMetres;
}

const partOf = (position: BoardPosition, parts: readonly FittedPart[]) =>
  currentPart(parts, position.id) ?? foundPart(parts, position.id);

function radiusOf(position: BoardPosition, parts: readonly FittedPart[]): number {
  const diameter = partOf(position, parts)?.diameterMetres;
  return (diameter ?? Math.max(position.outlineWidthMetres ?? 0, position.outlineDepthMetres ?? 0)) / 2;
}

function heightOf(position: BoardPosition, facts: Facts): number {
  return partOf(position, facts.fittedParts)?.heightMetres ?? position.outlineHeightMetres ?? 0;
}

/** Each move, in the order in which it was made: a place directly before another. */
function movedByHand(
  ordered: readonly BoardPosition[],
  acts: readonly JobAct[],
  reasons: ReadonlyMap<string, OrderReason[]>,
): readonly BoardPosition[] {
  const list = [...ordered];
  const moves = [...new Set(acts.flatMap((act) => (act.kind === "work_before" ? [act.subjectId] : [])))]
    .flatMap((id) => lastActOf(acts, "work_before", id) ?? [])
    .sort((a, b) => (a.sequence ?? Infinity) - (b.sequence ?? Infinity));
  for (const { subjectId, note } of moves) {
    const from = list.findIndex((one) => one.id === subjectId);
    const moved = list[from];
    if (!moved || !list.some((one) => one.id === note)) continue;
    list.splice(from, 1);
    list.splice(
      list.findIndex((one) => one.id === note),
      0,
      moved,
    );
    reasons.get(moved.id)?.push("by_hand");
  }
  return list;
}

import type { PartKind } from "../board/board";
import { currentPart, isInHand } from "../board/board";
import type { Section } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { VerdictWord } from "../facts/overrules";
import { doneSteps } from "../facts/reworkTicks";
import { judgeDevices } from "../judgement/judgeDevice";
import { median } from "../numerics/median";
import { isInCircuit, type QuantityKind, type Reading, tellingReadings } from "../readings/reading";
import type { FamilyUnit } from "./familyFindings";

const { apartFactor, fewestAlike } = tradeConstants.job;

/** What was read last of a part, as far as units can be held against one another by it. */
export interface CellReading {
  readonly quantity: QuantityKind;
  readonly value: number | null;
  readonly isInCircuit: boolean;
}

/** How a place stands on one unit. */
export interface FamilyCell {
  readonly positionId: string;
  readonly verdict: VerdictWord | null;
  readonly reading: CellReading | null;
  /** The part that stands there now; null where none does. */
  readonly partId: string | null;
  /** What was found there is out. */
  readonly isRemoved: boolean;
  /** A new part stands there. */
  readonly isFitted: boolean;
  /** How many times the middle of all units it reads, in the same state; null where too few were read so. */
  readonly brothersRatio: number | null;
  /** It reads so far from its brothers that something is other there. */
  readonly isApart: boolean;
  /** Not as on the first unit. */
  readonly differs: boolean;
}

export interface FamilyPlace {
  readonly designator: string;
  readonly kind: PartKind;
  readonly section: Section | null;
  /** In the order of the units; null where its board has no such place. */
  readonly cells: readonly (FamilyCell | null)[];
}

/**
 * Identical units side by side: every capacitor and every other part of which a unit says something, place by place over all units.
 * The first unit is what the others are held against.
 *
 * A reading lies apart where it is so many times above or below the middle of all units at the same place, read in the same
 * state: parts of one batch and age wear alike, and one that does not has a reason. That says nothing of which of them is right.
 * Rough.
 *
 * @param units judged, the first first
 */
export function familyGrid(units: readonly FamilyUnit[]): readonly FamilyPlace[] {
  const keys: string[] = [];
  const byKey = units.map((unit) => new Map(unit.facts.positions.map((one) => [unit.lineageOf(one.id), one])));
  for (const places of byKey) for (const key of places.keys()) if (!keys.includes(key)) keys.push(key);
  const devices = units.map((unit) => judgeDevices(unit.facts, "found"));
  const standing = units.map((unit) => tellingReadings(unit.facts.readings));
  return keys
    .flatMap((key): FamilyPlace[] => {
      const at = byKey.map((places) => places.get(key));
      const known = at.find((one) => one !== undefined);
      if (!known) return [];
      const own = at.map((position, n) => {
        const unit = units[n] as FamilyUnit;
        if (!position) return null;
        const verdict = unit.judgements.get(position.id)?.verdict ?? devices[n]?.get(position.id)?.verdict ?? null;
        const part = unit.facts.fittedParts.find((one) => one.positionId === position.id && one.origin === "found");
        const now = currentPart(unit.facts.fittedParts, position.id);
        const isFitted = now?.origin === "replacement" && !isInHand(now);
        const isRemoved = doneSteps(unit.facts.ticks, position.id).has("removed");
        return {
          position,
          verdict,
          isFitted,
          isRemoved,
          partId: now?.id ?? null,
          reading: lastReading(standing[n] ?? [], position.id, part?.id ?? null),
        };
      });
      const isTold = own.some((one) => one && (one.reading !== null || one.isFitted));
      if (known.kind !== "electrolytic" && !isTold) return [];
      const first = own[0];
      const readings = own.map((one) => one?.reading ?? null);
      const cells = own.map((one, n): FamilyCell | null => {
        if (!one) return null;
        const ratio = brothersRatio(one.reading, readings);
        const { position, ...rest } = one;
        return {
          ...{ ...rest, positionId: position.id, brothersRatio: ratio },
          isApart: ratio !== null && (ratio >= apartFactor || ratio <= 1 / apartFactor),
          differs: n > 0 && isSaid(first?.verdict) && isSaid(one.verdict) && first?.verdict !== one.verdict,
        };
      });
      const unit = units[at.indexOf(known)] as FamilyUnit;
      const section = unit.facts.nets.find((net) => net.id === known.netId)?.section ?? null;
      return [{ designator: known.designator, kind: known.kind, section, cells }];
    })
    .sort((a, b) => a.designator.localeCompare(b.designator, "en", { numeric: true }));
}

/** ESR by itself before ESR in circuit, before anything else that was read of it. */
function lastReading(standing: readonly Reading[], positionId: string, foundId: string | null): CellReading | null {
  const own = standing.filter(
    (one) => one.targetId === positionId && (one.fittedPartId === null || one.fittedPartId === foundId),
  );
  const esr = own.filter((one) => one.quantity === "esr");
  const found = esr.filter((one) => !isInCircuit(one)).at(-1) ?? esr.at(-1) ?? own.at(-1);
  return found ? { quantity: found.quantity, value: found.value, isInCircuit: isInCircuit(found) } : null;
}

/** A verdict that says what the part is. */
const isSaid = (verdict: VerdictWord | null | undefined) =>
  verdict === "sound" || verdict === "worn" || verdict === "failed";

/** Against the middle of all units that were read so, its own among them: half of them may be bad before good ones seem apart. */
function brothersRatio(own: CellReading | null, all: readonly (CellReading | null)[]): number | null {
  if (own?.value == null || own.value <= 0) return null;
  const alike = all.flatMap((one) =>
    one?.value && one.value > 0 && one.quantity === own.quantity && one.isInCircuit === own.isInCircuit
      ? [one.value]
      : [],
  );
  return alike.length < fewestAlike ? null : own.value / median(alike);
}

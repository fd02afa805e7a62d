import type { BoardPosition, FittedPart } from "../board/board";
import type { ReworkTick } from "../facts/jobFacts";
import { isChange, standingPart } from "../facts/reworkTicks";
import { inOrder, isBefore } from "../readings/factMoment";
import { isInCircuit, loggedReading, type Reading } from "../readings/reading";
import type { PlacedPart } from "./verdict";

/** A stretch of time in which the same parts stood in a bank. */
export interface BankEpoch {
  readonly number: number;
  /** What stood in the bank then. */
  readonly members: readonly PlacedPart[];
  /** Whether a reading was taken then. */
  readonly holds: (reading: Reading) => boolean;
}

/**
 * Which stretch of time a part is judged by in its bank: what is read in circuit is read of all that stand there, so it counts
 * with the parts that stood there then, and never after its own part left. Of several stretches the last in which the
 * part itself was read in circuit; else the last in which its bank was; else the last in which it stood there.
 *
 * @param bank the electrolytics of its net
 * @param standing readings that stand, in their order
 * @returns null where nothing was ever taken out or put in: then there is one stretch, and nothing to tell apart
 */
export function bankEpoch(
  subject: PlacedPart,
  bank: readonly BoardPosition[],
  parts: readonly FittedPart[],
  ticks: readonly ReworkTick[],
  standing: readonly Reading[],
): BankEpoch | null {
  const places = new Set(bank.map((one) => one.id));
  const changes = inOrder(ticks.filter((tick) => isChange(tick) && places.has(tick.positionId)));
  if (changes.length === 0) return null;
  const epochOf = (reading: Reading) => changes.filter((one) => isBefore(one, loggedReading(reading))).length;
  const stoodIn = (number: number) =>
    standingPart(parts, ticks, subject.position.id, changes[number] ?? null)?.id === subject.part.id;
  const epochs = changes.map((_, index) => index).concat(changes.length);
  const own = new Set(standing.filter((one) => isInCircuit(one) && one.fittedPartId === subject.part.id).map(epochOf));
  const ofBank = new Set(standing.filter((one) => isOfBank(one, subject.position.netId, places)).map(epochOf));
  const stood = epochs.filter(stoodIn);
  const number =
    stood.filter((one) => own.has(one)).at(-1) ?? stood.filter((one) => ofBank.has(one)).at(-1) ?? stood.at(-1);
  if (number === undefined) return { number: -1, members: [subject], holds: () => false };
  const members = bank.flatMap((position): readonly PlacedPart[] => {
    const part = standingPart(parts, ticks, position.id, changes[number] ?? null);
    return part ? [{ position, part }] : [];
  });
  return { number, members, holds: (reading) => epochOf(reading) === number };
}

/** Whether a reading was taken of a bank as it hangs together. */
function isOfBank(reading: Reading, netId: string | null, places: ReadonlySet<string>): boolean {
  if (reading.targetKind === "bank") return reading.targetId === netId;
  return reading.targetKind === "part" && places.has(reading.targetId) && isInCircuit(reading);
}

import { planningConstants } from "../constants/planningConstants";
import { percentile } from "../numerics/percentile";
import { requirePositive } from "../numerics/requireRange";
import { seededRandom } from "../numerics/seededRandom";

/** A part that somebody looked at once: it had failed by then, or it had not. When it failed nobody saw. */
export interface InspectedPart {
  readonly hours: number;
  readonly hasFailed: boolean;
}

export interface InspectedPoint {
  readonly hours: number;
  readonly survivalRatio: number;
  readonly lowRatio: number;
  readonly highRatio: number;
}

const resamples = 200;

/**
 * Survival of parts that were looked at once each: the share that had not failed by an age, falling with age (Turnbull's
 * estimate; where every part was looked at once it is the isotonic regression of "had failed" on age, by pooling adjacent
 * violators). A part found failed failed some time before; a sound one counts for all ages up to its own.
 *
 *     S(t) = 1 - F(t),   F = the rising function nearest to the shares that were found failed
 *
 * The band by resampling the parts (seeded, 200 times), at each age. Solid where ages spread; says nothing beyond the oldest
 * part.
 *
 * @returns a point for each age at which one was looked at; empty without any
 * @throws {OutOfRangeError} an age that is not above 0
 */
export function inspectedSurvival(parts: readonly InspectedPart[], seed = 1): readonly InspectedPoint[] {
  for (const { hours } of parts) requirePositive("hours", hours);
  if (parts.length === 0) return [];
  const ages = [...new Set(parts.map((one) => one.hours))].sort((a, b) => a - b);
  const failed = risingShares(parts, ages);
  const random = seededRandom(seed);
  const again = Array.from({ length: resamples }, () =>
    risingShares(
      parts.map(() => parts[Math.floor(random() * parts.length)] as InspectedPart),
      ages,
    ),
  );
  const tail = (1 - planningConstants.I.conf) / 2;
  return ages.map((hours, n) => {
    const values = again.map((one) => 1 - (one[n] as number));
    return {
      hours,
      survivalRatio: 1 - (failed[n] as number),
      lowRatio: percentile(values, tail),
      highRatio: percentile(values, 1 - tail),
    };
  });
}

/** The share that had failed, by age, never falling; at an age nobody was looked at it is that of the age before. */
function risingShares(parts: readonly InspectedPart[], ages: readonly number[]): readonly number[] {
  const indexOf = new Map(ages.map((age, n) => [age, n]));
  const seen = ages.map(() => 0);
  const failed = ages.map(() => 0);
  for (const { hours, hasFailed } of parts) {
    const n = indexOf.get(hours) as number;
    seen[n] = (seen[n] as number) + 1;
    if (hasFailed) failed[n] = (failed[n] as number) + 1;
  }
  const blocks: { count: number; failed: number; ages: number }[] = [];
  ages.forEach((_, n) => {
    let block = { count: seen[n] as number, failed: failed[n] as number, ages: 1 };
    const share = (one: { count: number; failed: number }) => (one.count === 0 ? -1 : one.failed / one.count);
    let before = blocks.at(-1);
    while (before && (block.count === 0 || share(before) >= share(block))) {
      block = {
        count: before.count + block.count,
        failed: before.failed + block.failed,
        ages: before.ages + block.ages,
      };
      blocks.pop();
      before = blocks.at(-1);
    }
    blocks.push(block);
  });
  return blocks.flatMap((block) =>
    Array.from({ length: block.ages }, () => (block.count === 0 ? 0 : block.failed / block.count)),
  );
}

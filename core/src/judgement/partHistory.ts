import type { Section } from "../board/sections";
import { type MadePart, makerSubject, type RecordLevel, type ShopRecord, seriesSubject } from "../facts/shopRecord";
import type { PartHistory } from "./verdict";

/**
 * What the shop's record says of parts like one: of the nearest kind of which enough were seen. Those at the same place of the
 * same model tell most, then those of its series at its section and age, then those of its series there, then those of its maker.
 *
 * @returns null where too few of any kind were seen
 */
export function partHistory(
  record: ShopRecord,
  designator: string,
  part: MadePart,
  section: Section | null,
): PartHistory | null {
  const asked: readonly (readonly [RecordLevel, string | null])[] = [
    ["place", designator],
    ["series_age", record.ageBand === null ? null : seriesSubject(part, section, record.ageBand)],
    ["series", seriesSubject(part, section)],
    ["maker", makerSubject(part.maker, section)],
  ];
  for (const [level, subject] of asked) {
    const tally = record.parts.find((one) => one.level === level && one.subject === subject);
    if (!tally || tally.seenCount < record.fewestCount) continue;
    const { subject: counted, failedCount, seenCount } = tally;
    return { level, subject: counted, failedCount, seenCount, defaultWeight: record.defaultWeight };
  }
  return null;
}

import type { NewReading, ReadingRow } from "@pale-cap/contract";
import { newId } from "../api/newId";

/** Takes a reading back: a further row that supersedes it; the reading itself stays in the record. */
export function withdrawalOf(reading: ReadingRow, personId: string | null): NewReading {
  const { receivedAt: _, ...row } = reading;
  return {
    ...row,
    id: newId(),
    value: null,
    coarseCode: null,
    isWithdrawn: true,
    supersedesId: reading.id,
    rawText: null,
    personId,
    measuredAt: new Date().toISOString(),
  };
}

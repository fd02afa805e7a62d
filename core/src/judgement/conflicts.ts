import { tradeConstants } from "../constants/tradeConstants";
import { secondsBetween } from "../readings/factMoment";
import type { ReadingGroup } from "../readings/groupReadings";
import { isInCircuit, loggedReading, type Reading } from "../readings/reading";

const { conflictFactor, restHours } = tradeConstants.readings;

/** Whether repeats under one condition lie further apart than their meter explains. */
export function doRepeatsConflict(group: ReadingGroup, uncertaintyRatio: number): boolean {
  return group.count > 1 && group.spreadRatio > conflictFactor * uncertaintyRatio;
}

/**
 * Whether a part read bad in circuit, good once a lead was up, and has not rested since: the heat of the iron can re-form
 * the oxide for a while. It counts as settled when a later reading, half a day after the first good one, is good too.
 *
 * @param isBad whether a reading by itself speaks against the part
 */
export function isReadBadThenGood(readings: readonly Reading[], isBad: (reading: Reading) => boolean): boolean {
  const asked = readings.filter((one) => one.quantity === "esr" || one.quantity === "tester_band");
  const firstUp = asked.findIndex((one) => !isInCircuit(one));
  if (firstUp < 0 || !asked.slice(0, firstUp).some(isBad)) return false;
  const up = asked.slice(firstUp).filter((one) => !isInCircuit(one));
  const [first, last] = [up[0], up.at(-1)];
  if (!first || !last || isBad(last)) return false;
  const restSeconds = secondsBetween(loggedReading(first), loggedReading(last)) ?? receivedSeconds(first, last);
  return restSeconds < restHours * 3600;
}

/** Between the server's receipts, where two clocks took the readings; 0 where that is not known either. */
function receivedSeconds(first: Reading, last: Reading): number {
  const seconds = (Date.parse(last.receivedAt ?? "") - Date.parse(first.receivedAt ?? "")) / 1000;
  return Number.isFinite(seconds) ? seconds : 0;
}

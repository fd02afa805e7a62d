import { OutOfRangeError } from "../errors";

/** A day of the calendar, as `2026-12-01`: no clock, no zone. */
export type Day = string;

const dayMilliseconds = 86_400_000;

function partsOf(day: Day): readonly [year: number, month: number, date: number] {
  const [year = Number.NaN, month = Number.NaN, date = Number.NaN] = day.split("-").map(Number);
  const isDay = new Date(Date.UTC(year, month - 1, date)).toISOString().startsWith(day);
  if (!isDay) throw new OutOfRangeError("day", Number.NaN, "a day of the calendar");
  return [year, month, date];
}

const millisecondsOf = (day: Day): number => {
  const [year, month, date] = partsOf(day);
  return Date.UTC(year, month - 1, date);
};
/**
 * The day of the shop's own calendar in which a moment falls.
 *
 * @param instant a moment: ISO 8601 text, a Date, or milliseconds since 1970 UTC
 * @param timeZone IANA name, as `Europe/Berlin`
 * @throws {RangeError} where one of them is none such
 * @example shopDayOf("2026-12-31T23:30:00Z", "Europe/Berlin") // "2027-01-01"
 */
export function shopDayOf(instant: string | number | Date, timeZone: string): Day {
  return new Intl.DateTimeFormat("en-CA", { timeZone, year: "numeric", month: "2-digit", day: "2-digit" }).format(
    new Date(instant),
  );
}

const dayOf = (milliseconds: number): Day => new Date(milliseconds).toISOString().slice(0, 10);

/** Whole days from one day to another; negative where the other is earlier. */
export const daysBetween = (from: Day, to: Day): number =>
  Math.round((millisecondsOf(to) - millisecondsOf(from)) / dayMilliseconds);

/**
 * The same date so many months later; the last of its month where that has no such date.
 *
 * @example monthsLater("2026-08-31", 6) // "2027-02-28"
 */
export function monthsLater(day: Day, months: number): Day {
  const [year, month, date] = partsOf(day);
  const last = new Date(Date.UTC(year, month - 1 + months + 1, 0)).getUTCDate();
  return dayOf(Date.UTC(year, month - 1 + months, Math.min(date, last)));
}

/** A warranty that was running when the unit came back. */
export interface FormerWarranty {
  readonly until: Day;
  readonly cameInOn: Day;
}

/**
 * When a warranty ends: so many months after the unit went out; where it came back within an earlier one, not before that one, whose
 * clock stood while the unit was in the shop.
 *
 *     end = max(out + months, former end + (out - in))
 *
 * Bench practice, house rule for the months; statutory rights are another matter.
 *
 * @param former null: it came for the first time, or after the warranty was over
 * @throws {OutOfRangeError} for what is no day
 */
export function warrantyEnd(handedOverOn: Day, months: number, former: FormerWarranty | null): Day {
  const own = monthsLater(handedOverOn, months);
  if (former === null || daysBetween(former.cameInOn, former.until) < 0) return own;
  const inShop = Math.max(daysBetween(former.cameInOn, handedOverOn), 0);
  const extended = dayOf(millisecondsOf(former.until) + inShop * dayMilliseconds);
  return extended > own ? extended : own;
}

/** Why a unit is back. `unknown`: nobody said yet. */
export type ReturnKind = "same_fault" | "another_fault" | "handling" | "no_fault_found" | "unknown";

/**
 * What a warranty does for a unit that came back. `covers`: the same fault, in time; `over`: too late; `other`: in time, and another
 * fault or handling, which it does not reach; `open`: in time, and nobody said yet what it is; `none`: nothing was promised.
 */
export type WarrantyState = "covers" | "over" | "other" | "open" | "none";

/** @param until last day of the promise; null: there was none */
export function warrantyState(until: Day | null, cameInOn: Day, kind: ReturnKind): WarrantyState {
  if (until === null) return "none";
  if (daysBetween(cameInOn, until) < 0) return "over";
  if (kind === "same_fault") return "covers";
  return kind === "unknown" ? "open" : "other";
}

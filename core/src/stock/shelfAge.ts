import { type CapacitorClass, hasPolymer } from "../capacitors/capacitorClass";
import { tradeConstants } from "../constants/tradeConstants";
import { requireNonNegative } from "../numerics/requireRange";

const { highVolts } = tradeConstants.stock;

/** What a part asks for before it goes in, by how long it lay. */
export type ShelfNeed = "nothing" | "not_known" | "leakage_test" | "reform";

/**
 * What old stock needs: within the shelf time nothing; beyond it a leakage test; long beyond it, or with high rated volts,
 * re-forming. Solid polymer has no oxide that fades in store. Bench practice, rough.
 *
 * @param ageYears since it was made; null: no date is known
 * @throws {OutOfRangeError} years negative
 */
export function shelfNeed(
  part: { readonly capacitorClass: CapacitorClass | null; readonly ratedVolts: number | null },
  ageYears: number | null,
  rules: { readonly shelfYears: number; readonly reformYears: number },
): ShelfNeed {
  if (part.capacitorClass !== null && hasPolymer(part.capacitorClass)) return "nothing";
  if (ageYears === null) return "not_known";
  requireNonNegative("ageYears", ageYears);
  if (ageYears <= rules.shelfYears) return "nothing";
  return ageYears > rules.reformYears || (part.ratedVolts ?? 0) >= highVolts ? "reform" : "leakage_test";
}

const weekMilliseconds = 7 * 86_400_000;
const yearMilliseconds = 365.25 * 86_400_000;

/**
 * The moment that a date code names: `2431` and `24W31` are week 31 of 2024, `2024-31` too. Other codes are a maker's own.
 *
 * @returns milliseconds of the Monday of that week (ISO 8601); null where the code is none of these, or lies ahead
 */
export function dateCodeMoment(code: string, nowMilliseconds: number): number | null {
  const match = /^(?:20)?(\d{2})[-/ ]?[Ww]?(\d{2})$/.exec(code.trim());
  if (!match) return null;
  const [year, week] = [2000 + Number(match[1]), Number(match[2])];
  if (week < 1 || week > 53) return null;
  // The week with the fourth of January is the first.
  const fourth = Date.UTC(year, 0, 4);
  const monday = fourth - ((new Date(fourth).getUTCDay() + 6) % 7) * 86_400_000;
  const moment = monday + (week - 1) * weekMilliseconds;
  return moment > nowMilliseconds ? null : moment;
}

/** Years since a part was made, by its date code, else since it came; null where neither is known. */
export function stockAgeYears(
  item: { readonly dateCode: string | null; readonly receivedOn: string | null },
  nowMilliseconds: number,
): number | null {
  const made = item.dateCode === null ? null : dateCodeMoment(item.dateCode, nowMilliseconds);
  const came = item.receivedOn === null ? Number.NaN : Date.parse(`${item.receivedOn}T00:00:00Z`);
  const since = made ?? (Number.isFinite(came) ? came : null);
  return since === null ? null : Math.max(0, (nowMilliseconds - since) / yearMilliseconds);
}

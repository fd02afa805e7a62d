import type { CapacitorClass } from "../capacitors/capacitorClass";
import { expectedEsr } from "../capacitors/expectedEsr";
import { tradeConstants } from "../constants/tradeConstants";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

const { salvage, usualHoursPerDay } = tradeConstants.stock;

export interface SalvagedPart {
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  readonly capacitorClass: CapacitorClass | null;
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  readonly datasheetEsrOhms: number | null;
  /** Hours it worked before; null: not known. */
  readonly usedHours: number | null;
  /** Since it was made; null: not known. */
  readonly ageYears: number | null;
}

/** The last own reading of each kind, off any board; null: not read. */
export interface LooseReadings {
  readonly capacitanceFarads: number | null;
  readonly esrOhms: number | null;
  readonly esrHertz: number | null;
  readonly voltageLossRatio: number | null;
}

export type SalvageDoubt =
  | "capacitance_not_read"
  | "esr_not_read"
  | "capacitance_low"
  | "esr_high"
  | "voltage_loss_high"
  | "age_not_known"
  | "life_used_up";

export interface SalvageVerdict {
  readonly doubts: readonly SalvageDoubt[];
  /** Hours at its class that are left; null where its age says nothing. */
  readonly hoursLeft: number | null;
  readonly mostEsrOhms: number;
  readonly leastFarads: number;
}

/**
 * Whether a part that comes out of another unit is offered, by its own readings alone, and how long it has left.
 *
 *     ESR <= 1.2 x typical of a new one, C >= 0.9 of its marking, voltage loss < 3 %; hours left = rated life - hours used
 *
 * Hours that nobody knows are taken from the age, eight a day, and only up to three years. Usual; the hours are rough.
 *
 * @throws {OutOfRangeError} C, volts or rated life not above 0, hours or age negative
 */
export function salvageVerdict(part: SalvagedPart, read: LooseReadings, ratedLifeHours: number): SalvageVerdict {
  const life = requirePositive("ratedLifeHours", ratedLifeHours);
  const frequencyHertz = read.esrHertz ?? tradeConstants.stock.sheetHertz;
  const typical = expectedEsr({
    ...{ ...part, capacitorClass: part.capacitorClass ?? "lowz", frequencyHertz, temperatureCelsius: 20 },
  }).typicalOhms;
  const mostEsrOhms = salvage.mostEsrRatio * typical;
  const leastFarads = salvage.leastCapacitanceRatio * part.capacitanceFarads;
  const used = usedHours(part);
  const hoursLeft = used === null ? null : Math.max(0, life - used);
  const doubts: SalvageDoubt[] = [];
  if (read.capacitanceFarads === null) doubts.push("capacitance_not_read");
  else if (read.capacitanceFarads < leastFarads) doubts.push("capacitance_low");
  if (read.esrOhms === null) doubts.push("esr_not_read");
  else if (read.esrOhms > mostEsrOhms) doubts.push("esr_high");
  if (read.voltageLossRatio !== null && read.voltageLossRatio >= salvage.mostVoltageLossRatio) {
    doubts.push("voltage_loss_high");
  }
  if (used === null) doubts.push("age_not_known");
  else if (used >= life) doubts.push("life_used_up");
  return { doubts, hoursLeft, mostEsrOhms, leastFarads };
}

function usedHours({ usedHours: known, ageYears }: SalvagedPart): number | null {
  if (known !== null) return requireNonNegative("usedHours", known);
  if (ageYears === null || requireNonNegative("ageYears", ageYears) > salvage.unknownHoursYears) return null;
  return ageYears * 365 * usualHoursPerDay;
}

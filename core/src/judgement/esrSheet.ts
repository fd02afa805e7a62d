import type { CapacitorClass } from "../capacitors/capacitorClass";
import { expectedEsrOfPart, type PartExpectation } from "../capacitors/expectedEsrOfPart";
import { judgementConstants, type SchoolName } from "../constants/judgementConstants";
import { esrLimitOhms } from "./esrLimit";

/** Markings as boards have them; the rows and columns of the sheet. */
export const sheetMicrofarads = [
  1, 2.2, 4.7, 10, 22, 47, 100, 220, 330, 470, 680, 1000, 1500, 2200, 3300, 4700,
] as const;
export const sheetVolts = [6.3, 10, 16, 25, 35, 50, 63, 100, 200, 400, 450] as const;

export interface SheetCell {
  readonly expected: PartExpectation;
  /** From here the school calls such a part failed. */
  readonly failedOhms: number;
}

/**
 * Expected ESR over capacitance and rated voltage for one class, at a tester's frequency and a temperature: what a new
 * part typically reads, what the best do, and from where the school calls one failed. Sizes are not known on a sheet, so
 * everything comes from tan delta (rough); polymer parts end at 100 V.
 *
 * @returns rows by capacitance, columns by voltage; null where such parts are not made
 */
export function esrSheet(question: {
  readonly capacitorClass: CapacitorClass;
  readonly frequencyHertz: number;
  readonly temperatureCelsius: number;
  readonly school: SchoolName;
}): readonly (readonly (SheetCell | null)[])[] {
  const school = judgementConstants.B.schools[question.school];
  return sheetMicrofarads.map((microfarads) =>
    sheetVolts.map((ratedVolts): SheetCell | null => {
      if (!isMade(microfarads, ratedVolts, question.capacitorClass)) return null;
      const expected = expectedEsrOfPart(
        {
          capacitanceFarads: microfarads / 1e6,
          ratedVolts,
          capacitorClass: question.capacitorClass,
          diameterMetres: null,
          heightMetres: null,
          datasheetEsrOhms: null,
        },
        question.frequencyHertz,
        question.temperatureCelsius,
      );
      if (!expected) return null;
      return { expected, failedOhms: esrLimitOhms(school, expected, "failed") };
    }),
  );
}

/** Energy a radial can of this trade holds at most, about 60 J; polymer stays low in voltage. */
function isMade(microfarads: number, volts: number, capacitorClass: CapacitorClass): boolean {
  if (capacitorClass === "polymer" && (volts > 35 || microfarads < 10)) return false;
  if (microfarads < 10 && volts < 16) return false;
  return (microfarads / 1e6) * volts * volts <= 120;
}

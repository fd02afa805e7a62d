import { requireNonNegative } from "../numerics/requireRange";
import { type TesterSituation, testerReactanceOhms } from "./testerReading";

export interface CompensatedEsr {
  /** null where the magnitude lies below the reactance alone. */
  readonly esrOhms: number | null;
  readonly standardUncertaintyOhms: number | null;
  /** Whether the result stands clear of its own uncertainty. */
  readonly isValid: boolean;
}

/**
 * ESR of the part from a meter's reading: reactance and lead resistance taken off, with uncertainty.
 *
 * Magnitude meters: r = sqrt(reading^2 - X^2), and the meter's error grows by reading / r. Capacitance and inductance
 * are taken as exact. Solid.
 *
 * @param uncertainties one standard deviation each, in ohms
 * @throws {OutOfRangeError} for negative readings or uncertainties
 */
export function compensatedEsr(
  readingOhms: number,
  situation: TesterSituation,
  uncertainties: { readonly meterOhms: number; readonly leadOhms: number; readonly contactOhms: number },
): CompensatedEsr {
  requireNonNegative("readingOhms", readingOhms);
  const meter = requireNonNegative("meterOhms", uncertainties.meterOhms);
  const lead = requireNonNegative("leadOhms", uncertainties.leadOhms);
  const contact = requireNonNegative("contactOhms", uncertainties.contactOhms);
  const reactance = testerReactanceOhms(situation);
  let r = readingOhms;
  let gain = 1;
  if (situation.mode === "magnitude") {
    if (readingOhms <= Math.abs(reactance)) return { esrOhms: null, standardUncertaintyOhms: null, isValid: false };
    r = Math.sqrt(readingOhms * readingOhms - reactance * reactance);
    gain = readingOhms / r;
  }
  const esr = r - situation.leadOhms;
  const u = Math.hypot(gain * meter, lead, contact);
  return { esrOhms: Math.max(esr, 0), standardUncertaintyOhms: u, isValid: esr > 2 * u };
}

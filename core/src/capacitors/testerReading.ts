import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/** Whether a meter shows the resistive part or the magnitude of the impedance. */
export type TesterMode = "real" | "magnitude";

export interface TesterSituation {
  readonly capacitanceFarads: number;
  readonly frequencyHertz: number;
  readonly eslHenrys: number;
  readonly leadOhms: number;
  readonly leadHenrys: number;
  readonly mode: TesterMode;
}

/**
 * What a meter shows for a part of known ESR.
 *
 *     X = w (ESL + Llead) - 1/(w C),  r = ESR + Rlead,  reading = r or sqrt(r^2 + X^2)
 *
 * Solid.
 *
 * @throws {OutOfRangeError} negative resistance or inductance, capacitance or frequency not above 0
 */
export function testerReading(
  esrOhms: number,
  situation: TesterSituation,
): { readonly readingOhms: number; readonly reactanceOhms: number } {
  requireNonNegative("esrOhms", esrOhms);
  const reactanceOhms = testerReactanceOhms(situation);
  const r = esrOhms + situation.leadOhms;
  return { readingOhms: situation.mode === "real" ? r : Math.hypot(r, reactanceOhms), reactanceOhms };
}

/** Reactance seen by the meter, leads included; negative where the capacitance dominates. */
export function testerReactanceOhms(situation: TesterSituation): number {
  requireNonNegative("leadOhms", situation.leadOhms);
  const henrys =
    requireNonNegative("eslHenrys", situation.eslHenrys) + requireNonNegative("leadHenrys", situation.leadHenrys);
  const omega = 2 * Math.PI * requirePositive("frequencyHertz", situation.frequencyHertz);
  return omega * henrys - 1 / (omega * requirePositive("capacitanceFarads", situation.capacitanceFarads));
}

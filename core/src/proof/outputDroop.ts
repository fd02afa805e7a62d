import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/** Where the volts were read. Only at the end of a lead does the lead stand among what is measured. */
export const droopPoints = ["terminals", "lead_end", "four_wire"] as const;
export type DroopPoint = (typeof droopPoints)[number];

export interface DroopQuestion {
  readonly lightAmps: number;
  readonly lightVolts: number;
  readonly heavyAmps: number;
  readonly heavyVolts: number;
  readonly point: DroopPoint;
  readonly nominalVolts: number;
  /** One standard deviation of each reading, and of the gain of each meter as a share. */
  readonly voltsDeviation: number;
  readonly ampsDeviation: number;
  readonly voltsGainDeviation?: number;
  readonly ampsGainDeviation?: number;
  /** There and back. */
  readonly leadOhms?: number | null;
  readonly leadDeviationOhms?: number;
  readonly limitOhms?: number | null;
}

export interface OutputDroop {
  readonly outputOhms: number;
  readonly deviationOhms: number;
  /** Of the nominal volts, over the step. */
  readonly regulationRatio: number;
  readonly regulationDeviationRatio: number;
  /** More than twice its deviation. */
  readonly isTelling: boolean;
  /** The volts rise with the load, beyond what the meters could do. */
  readonly isNegative: boolean;
  readonly verdict: "pass" | "fail" | "unclear" | null;
}

/**
 * Output resistance of a rail from two loads.
 *
 *     R = (V1 - V2)/(I2 - I1), less the lead at the end of a lead
 *     u^2 = (2 u_V^2 + 2 (R u_I)^2)/(I2 - I1)^2 + R^2 (g_V^2 + g_I^2) [+ u_lead^2]
 *     pass R + 2u <= limit, fail R - 2u > limit
 *
 * Solid.
 *
 * @throws {OutOfRangeError} I2 not above I1, I1 below 0, no lead at a lead's end, negative deviations, volts of 0
 * @example outputDroop({ lightAmps: 0, lightVolts: 12.18, heavyAmps: 8, heavyVolts: 12.02, ... }).outputOhms // 0.02
 */
export function outputDroop(question: DroopQuestion): OutputDroop {
  const { lightAmps, heavyAmps, lightVolts, heavyVolts, point, nominalVolts } = question;
  const { voltsDeviation, ampsDeviation, voltsGainDeviation = 0, ampsGainDeviation = 0 } = question;
  requireNonNegative("lightAmps", lightAmps);
  if (!(heavyAmps > lightAmps)) throw new OutOfRangeError("heavyAmps", heavyAmps, `above ${lightAmps}`);
  requirePositive("nominalVolts", nominalVolts);
  for (const [name, value] of Object.entries({
    voltsDeviation,
    ampsDeviation,
    voltsGainDeviation,
    ampsGainDeviation,
  })) {
    requireNonNegative(name, value);
  }
  const isLeadIn = point === "lead_end";
  const { leadOhms = null, leadDeviationOhms = 0, limitOhms = null } = question;
  if (isLeadIn && leadOhms === null) throw new OutOfRangeError("leadOhms", leadOhms, "known at the end of a lead");
  if (leadOhms !== null) requireNonNegative("leadOhms", leadOhms);
  requireNonNegative("leadDeviationOhms", leadDeviationOhms);
  if (limitOhms !== null) requirePositive("limitOhms", limitOhms);
  const amps = heavyAmps - lightAmps;
  const seen = (lightVolts - heavyVolts) / amps;
  const outputOhms = isLeadIn ? seen - (leadOhms ?? 0) : seen;
  const squared =
    (2 * voltsDeviation ** 2 + 2 * (seen * ampsDeviation) ** 2) / amps ** 2 +
    seen ** 2 * (voltsGainDeviation ** 2 + ampsGainDeviation ** 2) +
    (isLeadIn ? leadDeviationOhms ** 2 : 0);
  const deviationOhms = Math.sqrt(squared);
  const perOhm = amps / nominalVolts;
  return {
    ...{ outputOhms, deviationOhms },
    regulationRatio: outputOhms * perOhm,
    regulationDeviationRatio: deviationOhms * perOhm,
    isTelling: outputOhms > 2 * deviationOhms,
    isNegative: outputOhms < -2 * deviationOhms,
    verdict: limitOhms === null ? null : verdictOf(outputOhms, deviationOhms, limitOhms),
  };
}

function verdictOf(ohms: number, deviation: number, limit: number): "pass" | "fail" | "unclear" {
  if (ohms + 2 * deviation <= limit) return "pass";
  return ohms - 2 * deviation > limit ? "fail" : "unclear";
}

import { tradeConstants } from "../constants/tradeConstants";
import { type CoarseCode, isInCircuit, type Reading } from "../readings/reading";

const { hotCanCelsius, hotCanRiseKelvin, hotCanWeight, hotWithoutAirWeight } = tradeConstants.judgement;

/** One thing a coarse tester, a finger or a thermometer said of a part. */
export interface CoarseFinding {
  readonly kind: "tester" | "touch";
  readonly code: CoarseCode | "temperature_high" | "temperature_without_air" | "temperature_usual";
  readonly value: number | null;
  /** Log-likelihood ratio of failed against sound. */
  readonly weight: number;
  readonly readingIds: readonly string[];
}

/**
 * Log-likelihood ratio of failed against sound for what a coarse tester shows: out of circuit, in circuit alone on the
 * net, in circuit with neighbours, who can make it look good. A band stays a band: no ohms are made of it. Rough.
 */
const bandWeights: Readonly<Partial<Record<CoarseCode, readonly [out: number, alone: number, banked: number]>>> = {
  band_good: [-1.5, -0.8, -0.2],
  band_doubtful: [0.8, 0.6, 0.6],
  band_poor: [1.5, 1.2, 1.2],
  band_bad: [2.2, 1.8, 1.8],
  leaky_or_in_circuit: [2, 0.3, 0.1],
  no_reading: [1.2, 0.3, 0.1],
};
/** A capacitor that is hot to the finger while its neighbours are not heats itself, or is being heated. Rough. */
const touchWeights: Readonly<Partial<Record<CoarseCode, number>>> = { hot: 1.2, warm: 0.3, cold: -0.1 };
/** Where numbers are known too, the coarse word mostly repeats them. */
export const besideNumbersShare = 0.3;

/** What coarse testers, fingers and thermometers said of one part, the latest word of each kind. */
export function coarseFindings(readings: readonly Reading[], hasNeighbours: boolean): readonly CoarseFinding[] {
  const findings: CoarseFinding[] = [];
  const band = readings.filter((one) => one.quantity === "tester_band" && one.coarseCode !== null).at(-1);
  const weights = band?.coarseCode ? bandWeights[band.coarseCode] : undefined;
  if (band?.coarseCode && weights) {
    const weight = !isInCircuit(band) ? weights[0] : hasNeighbours ? weights[2] : weights[1];
    findings.push({ kind: "tester", code: band.coarseCode, value: null, weight, readingIds: [band.id] });
  }
  const touch = readings
    .filter((one) => one.quantity === "observation" && one.coarseCode !== null && one.coarseCode in touchWeights)
    .at(-1);
  if (touch?.coarseCode) {
    const weight = touchWeights[touch.coarseCode] ?? 0;
    findings.push({ kind: "touch", code: touch.coarseCode, value: null, weight, readingIds: [touch.id] });
  }
  const heat = readings.filter((one) => one.quantity === "temperature" && one.value !== null).at(-1);
  if (heat?.value != null) {
    const air = heat.temperatureCelsius;
    const isHot = heat.value >= hotCanCelsius && (air === null || heat.value - air >= hotCanRiseKelvin);
    findings.push({
      kind: "touch",
      code: !isHot ? "temperature_usual" : air === null ? "temperature_without_air" : "temperature_high",
      value: heat.value,
      // Without the air beside it a hot room would condemn a cool part.
      weight: !isHot ? 0 : air === null ? hotWithoutAirWeight : hotCanWeight,
      readingIds: [heat.id],
    });
  }
  return findings;
}

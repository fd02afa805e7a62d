import { OutOfRangeError } from "../errors";
import { lifeWithRippleHeating, type RippleHeatingSchool } from "../life/lifeWithRipple";
import { requirePositive } from "../numerics/requireRange";

/** One of several parts that share a place. */
export interface ParallelPart {
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly eslHenrys?: number;
  readonly ratedRippleAmpsRms: number;
  readonly ratedLifeHours: number;
}

/**
 * How parts in parallel share a ripple current, and which of them wears out first.
 *
 *     share_k = |Z| / |z_k|,  Z = 1 / sum(1 / z_k)
 *
 * Magnitudes: with different phases they may add to more than 1. Solid; the resistance of the traces is left out.
 *
 * @throws {OutOfRangeError} no part, values not above 0
 */
export function parallelParts(
  parts: readonly ParallelPart[],
  question: {
    readonly frequencyHertz: number;
    readonly rippleAmpsRms: number;
    readonly ratedTemperatureCelsius: number;
    readonly ambientCelsius: number;
    readonly ratedCoreRiseKelvin: number;
    readonly school: RippleHeatingSchool;
  },
) {
  if (parts.length === 0) throw new OutOfRangeError("parts", 0, "at least one part");
  const omega = 2 * Math.PI * requirePositive("frequencyHertz", question.frequencyHertz);
  const amps = requirePositive("rippleAmpsRms", question.rippleAmpsRms);
  const impedances = parts.map((part) => {
    const esl = part.eslHenrys ?? 0;
    if (!(esl >= 0)) throw new OutOfRangeError("eslHenrys", esl, "at least 0");
    const re = requirePositive("esrOhms", part.esrOhms);
    const im = omega * esl - 1 / (omega * requirePositive("capacitanceFarads", part.capacitanceFarads));
    return { re, im, magnitude: Math.hypot(re, im) };
  });
  let [g, b] = [0, 0];
  for (const { re, im, magnitude } of impedances) {
    g += re / magnitude ** 2;
    b -= im / magnitude ** 2;
  }
  const squared = g * g + b * b;
  const magnitudeOhms = 1 / Math.sqrt(squared);
  const each = parts.map((part, n) => {
    const shareRatio = magnitudeOhms / (impedances[n]?.magnitude ?? Infinity);
    const ampsRms = shareRatio * amps;
    const { lifeHours } = lifeWithRippleHeating({
      ratedLifeHours: part.ratedLifeHours,
      ratedTemperatureCelsius: question.ratedTemperatureCelsius,
      ambientCelsius: question.ambientCelsius,
      rippleAmpsRms: ampsRms,
      ratedRippleAmpsRms: part.ratedRippleAmpsRms,
      ratedCoreRiseKelvin: question.ratedCoreRiseKelvin,
      school: question.school,
    });
    return { shareRatio, ampsRms, lifeHours, loadRatio: ampsRms / part.ratedRippleAmpsRms };
  });
  const worstIndex = each.reduce(
    (worst, one, n) => (one.lifeHours < (each[worst]?.lifeHours ?? Infinity) ? n : worst),
    0,
  );
  return {
    capacitanceFarads: parts.reduce((sum, part) => sum + part.capacitanceFarads, 0),
    resistanceOhms: g / squared,
    magnitudeOhms,
    parts: each,
    worstIndex,
    mostLoadRatio: Math.max(...each.map((one) => one.loadRatio)),
  };
}

import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { storedEnergyJoules } from "../discharge/discharge";
import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";

export interface DischargeResistor {
  /** How many equal bodies in series. */
  readonly count: number;
  readonly bodyName: string;
  readonly eachOhms: number;
  readonly totalOhms: number;
  readonly durationSeconds: number;
  readonly peakPowerEachWatts: number;
  readonly voltsEach: number;
  readonly energyEachJoules: number;
}

/**
 * Fewest and smallest E12 resistors that drain a capacitor in time and stay within the voltage rating (with margin) and
 * the single-pulse power of each body. The pulse factor assumes one discharge, never a live supply. Usual and cautious.
 *
 * @returns null when no chain of up to four bodies will do
 * @throws {OutOfRangeError} unless start volts > target volts > 0, C and time above 0
 */
export function dischargeResistor(
  drain: {
    readonly capacitanceFarads: number;
    readonly startVolts: number;
    readonly targetVolts: number;
    readonly longestSeconds: number;
  },
  constants: JudgementConstants["F"] = judgementConstants.F,
): DischargeResistor | null {
  const C = requirePositive("capacitanceFarads", drain.capacitanceFarads);
  const Vt = requirePositive("targetVolts", drain.targetVolts);
  const V0 = requirePositive("startVolts", drain.startVolts);
  if (!(V0 > Vt)) throw new OutOfRangeError("startVolts", V0, "above the target voltage");
  const longest = requirePositive("longestSeconds", drain.longestSeconds);
  const highestOhms = longest / (C * Math.log(V0 / Vt));
  const values = seriesValues(constants.e12);
  for (let count = 1; count <= constants.n_max; count++) {
    for (const [bodyName, watts, volts, pulseFactor] of constants.parts) {
      const eachOhms = values.filter((r) => count * r <= highestOhms * (1 + 1e-12)).at(-1);
      if (eachOhms === undefined) continue;
      const voltsEach = V0 / count;
      const peakPowerEachWatts = V0 ** 2 / (count ** 2 * eachOhms);
      if (voltsEach > constants.v_margin * volts + 1e-9) continue;
      if (peakPowerEachWatts > pulseFactor * watts + 1e-12) continue;
      return {
        count,
        bodyName,
        eachOhms,
        totalOhms: count * eachOhms,
        durationSeconds: count * eachOhms * C * Math.log(V0 / Vt),
        peakPowerEachWatts,
        voltsEach,
        energyEachJoules: storedEnergyJoules(C, V0) / count,
      };
    }
  }
  return null;
}

/** 1 ohm to 820 kilohms. */
function seriesValues(mantissas: readonly number[]): number[] {
  return [0, 1, 2, 3, 4, 5].flatMap((decade) =>
    mantissas.map((mantissa) => Number((mantissa * 10 ** decade).toPrecision(6))),
  );
}

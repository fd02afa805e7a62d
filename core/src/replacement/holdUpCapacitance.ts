import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";

/**
 * Bulk capacitance that holds the output up through a gap of the mains.
 *
 *     C = 2 P t / (eta (V1^2 - V2^2))
 *
 * Solid; choose with ageing and tolerance on top.
 *
 * @param gap output watts, seconds, volts at the start and where the converter gives up; efficiency in (0, 1]
 * @throws {OutOfRangeError} values out of range, or volts that do not fall
 */
export function holdUpCapacitanceFarads(gap: {
  readonly outputWatts: number;
  readonly efficiencyRatio: number;
  readonly seconds: number;
  readonly startVolts: number;
  readonly endVolts: number;
}): number {
  const efficiency = requirePositive("efficiencyRatio", gap.efficiencyRatio);
  if (efficiency > 1) throw new OutOfRangeError("efficiencyRatio", efficiency, "at most 1");
  const [from, to] = [requirePositive("startVolts", gap.startVolts), requirePositive("endVolts", gap.endVolts)];
  if (!(from > to)) throw new OutOfRangeError("startVolts", from, "above the end");
  const joules =
    (requirePositive("outputWatts", gap.outputWatts) * requirePositive("seconds", gap.seconds)) / efficiency;
  return (2 * joules) / (from ** 2 - to ** 2);
}

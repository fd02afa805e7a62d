import type { JobFacts } from "../facts/jobFacts";
import { ImpossibleConverterError } from "../ripple/converter";
import { predictRipple } from "../ripple/ripplePrediction";
import { converterOf } from "../ripple/usualConverter";
import { fedRail, usualCapacitorCelsius } from "../waveform/rippleFindings";

/**
 * Ripple of a rail with every capacitor new as marked, at the load at which it was read: what no repair with the same parts
 * undercuts.
 *
 * @param loadAmps above 0
 * @returns volts peak to peak; null where it cannot be predicted
 */
export function asNewRippleVolts(
  facts: Pick<JobFacts, "nets" | "positions" | "fittedParts" | "device">,
  netId: string,
  loadAmps: number,
): number | null {
  const net = facts.nets.find((one) => one.id === netId);
  if (!net) return null;
  const first = fedRail(facts.nets, net);
  const board = { ...facts, readings: [], chosen: new Map() };
  const question = {
    ...{ board, netId: first.id, converter: converterOf(first, facts), railVolts: first.nominalVolts },
    ...{ loadAmps, temperatureCelsius: usualCapacitorCelsius },
  };
  try {
    return predictRipple(question)?.states.healthy.loadPeakToPeakVolts ?? null;
  } catch (error) {
    if (error instanceof ImpossibleConverterError) return null;
    throw error;
  }
}

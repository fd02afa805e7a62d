import type { JobFacts } from "../facts/jobFacts";
import { ImpossibleConverterError } from "../ripple/converter";
import type { ChosenPart, RippleBoard } from "../ripple/railRipple";
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
  return predictedVolts({ ...facts, readings: [], chosen: new Map() }, facts, netId, loadAmps, "healthy");
}

/**
 * Ripple of a rail with what the plan put in, the other parts as they were read, at one load: what a reading of the repaired rail is
 * held against.
 *
 * @param loadAmps above 0
 * @returns volts peak to peak; null where it cannot be predicted
 */
export function fittedRippleVolts(
  facts: Pick<JobFacts, "nets" | "positions" | "fittedParts" | "device" | "readings">,
  chosen: ReadonlyMap<string, ChosenPart>,
  netId: string,
  loadAmps: number,
): number | null {
  return predictedVolts({ ...facts, chosen }, facts, netId, loadAmps, "replaced");
}

function predictedVolts(
  board: RippleBoard,
  facts: Pick<JobFacts, "nets" | "positions" | "fittedParts" | "device">,
  netId: string,
  loadAmps: number,
  state: "healthy" | "replaced",
): number | null {
  const net = facts.nets.find((one) => one.id === netId);
  if (!net) return null;
  const first = fedRail(facts.nets, net);
  const question = {
    ...{ board, netId: first.id, converter: converterOf(first, facts), railVolts: first.nominalVolts },
    ...{ loadAmps, temperatureCelsius: usualCapacitorCelsius },
  };
  try {
    return predictRipple(question)?.states[state].loadPeakToPeakVolts ?? null;
  } catch (error) {
    if (error instanceof ImpossibleConverterError) return null;
    throw error;
  }
}

import { currentPart, foundPart } from "../board/board";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import type { JobFacts } from "../facts/jobFacts";
import { loadStepResponse } from "./loadStep";

/** A loop of which nothing is known. Rough. */
const [crossoverHertz, integratorHertz, slewAmpsPerSecond] = [3e3, 300, 1e6] as const;
const recoveredRatio = 0.01;

/**
 * How far a rail may dip after a step of its load, by the capacitors that stand on it as new and a loop of 3 kHz.
 *
 * @returns volts; null where none of them has a value, or the step is none
 */
export function railStepBound(
  facts: Pick<JobFacts, "nets" | "positions" | "fittedParts">,
  netId: string,
  stepAmps: number,
): number | null {
  const net = facts.nets.find((one) => one.id === netId);
  const volts = Math.abs(net?.nominalVolts ?? 0);
  let [farads, siemens] = [0, 0];
  for (const position of facts.positions) {
    if (position.kind !== "electrolytic" || position.netId !== netId) continue;
    const part = currentPart(facts.fittedParts, position.id) ?? foundPart(facts.fittedParts, position.id);
    const esr = part && expectedEsrOfPart(part, 100e3, 20);
    if (!part?.capacitanceFarads || !esr) continue;
    farads += part.capacitanceFarads;
    siemens += 1 / esr.typicalOhms;
  }
  if (farads === 0 || siemens === 0 || !(stepAmps > 0) || volts === 0) return null;
  return loadStepResponse({
    ...{ capacitanceFarads: farads, esrOhms: 1 / siemens, stepAmps, crossoverHertz, integratorHertz },
    ...{ slewAmpsPerSecond, bandVolts: recoveredRatio * volts },
  }).boundVolts;
}

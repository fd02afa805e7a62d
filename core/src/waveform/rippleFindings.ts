import type { BoardNet } from "../board/board";
import { type ConverterDescription, isFullWave } from "../board/converterDescription";
import type { CaptureAnalysis, CaptureFact } from "../facts/captures";
import type { JobFacts } from "../facts/jobFacts";
import { inOrder } from "../readings/factMoment";
import { ImpossibleConverterError } from "../ripple/converter";
import { predictRipple } from "../ripple/ripplePrediction";
import { converterOf } from "../ripple/usualConverter";
import { type RippleAttribution, rippleAttribution } from "./rippleAttribution";

/** Air around the capacitors of a supply that runs, where nobody measured. */
export const usualCapacitorCelsius = 45;

/** The last capture of each rail with what it points to, and how much of it the read values explain. */
export interface RailRippleFinding {
  readonly netId: string;
  readonly capture: CaptureFact;
  readonly attribution: RippleAttribution;
}

/** Questions that were answered before: captures change seldom, and every fold of a job asks again. */
const answered = new Map<string, { readonly volts: number; readonly highVolts: number } | null>();
const mostAnswered = 64;

/** The captured ripple of every rail, attributed. A rail behind a choke is predicted with the one before it. */
export function rippleFindings(facts: JobFacts): readonly RailRippleFinding[] {
  const latest = new Map<string, CaptureFact>();
  for (const one of inOrder(facts.captures)) {
    latest.set(one.netId, one);
  }
  return [...latest.values()].flatMap((capture) => {
    const net = facts.nets.find((one) => one.id === capture.netId);
    if (!net) return [];
    const attribution = rippleAttribution(capture.analysis, predictedOf(facts, net, capture));
    return [{ netId: net.id, capture, attribution }];
  });
}

function predictedOf(facts: JobFacts, net: BoardNet, capture: CaptureFact) {
  if (!capture.analysis.switching) return null;
  const first = fedRail(facts.nets, net);
  const converter = converterOf(first, facts);
  const places = facts.positions.filter((one) => one.netId === first.id || one.netId === net.id);
  const parts = facts.fittedParts.filter((one) => places.some((place) => place.id === one.positionId));
  const ids = new Set(parts.map((part) => part.id));
  const readings = facts.readings.filter((one) => one.fittedPartId !== null && ids.has(one.fittedPartId));
  const loadAmps = capture.loadAmps ?? first.fullLoadAmps;
  const known = withCapturedFrequency(converter, capture.analysis);
  const key = JSON.stringify([first, known, loadAmps, parts, readings, facts.nets.map((one) => one.network)]);
  const before = answered.get(key);
  if (before !== undefined) return before;
  const board = { ...facts, positions: places, fittedParts: parts, readings, chosen: new Map() };
  const found = predicted(board, first, known, loadAmps);
  if (answered.size >= mostAnswered) answered.delete(answered.keys().next().value as string);
  answered.set(key, found);
  return found;
}

/** A description with what a capture tells of its frequency; rectified over both halves it is twice that of the switches. */
export function withCapturedFrequency(
  converter: ConverterDescription,
  analysis: CaptureAnalysis | undefined,
): ConverterDescription {
  const seen = analysis?.switching?.frequencyHertz;
  if (converter.switchingHertz !== null || seen === undefined) return converter;
  return { ...converter, switchingHertz: isFullWave(converter.kind) ? seen / 2 : seen };
}

/** The rail that a converter feeds: of one behind a choke, that before it. */
export function fedRail<T extends BoardNet>(nets: readonly T[], net: T): T {
  return nets.find((one) => one.id === net.network?.behindNetId) ?? net;
}

function predicted(
  board: Parameters<typeof predictRipple>[0]["board"],
  net: BoardNet,
  converter: ConverterDescription,
  loadAmps: number | null,
) {
  try {
    const question = {
      board,
      netId: net.id,
      converter,
      railVolts: net.nominalVolts,
      loadAmps,
      temperatureCelsius: usualCapacitorCelsius,
    };
    const found = predictRipple(question);
    return found && { volts: found.states.measured.loadPeakToPeakVolts, highVolts: found.highVolts };
  } catch (error) {
    // A description that cannot be predicts nothing; the lens says why.
    if (error instanceof ImpossibleConverterError) return null;
    throw error;
  }
}

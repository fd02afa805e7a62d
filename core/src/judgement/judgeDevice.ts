import type { BoardNet, BoardPosition, PartKind } from "../board/board";
import { type DeviceTest, deviceTests } from "../board/deviceTests";
import { tradeConstants } from "../constants/tradeConstants";
import type { ReworkTick } from "../facts/jobFacts";
import type { VerdictWord } from "../facts/overrules";
import { latestSigns, type SignObservation, type VisualSign, visualSigns } from "../facts/visualSigns";
import { type FactMoment, inOrder as factsInOrder } from "../readings/factMoment";
import { isInCircuit, overRangeCode, type Reading, tellingReadings } from "../readings/reading";

const { shortVolts, shortOhms } = tradeConstants.board;
const { thermistorLowRatio, thermistorHighRatio, openIsSoundFromOhms } = tradeConstants.judgement;
const { resistorToleranceRatio, regulatorToleranceRatio, pulsingRatio } = tradeConstants.judgement;

/** What one test of a part says; `doubtful`: neither, mostly a neighbour or a capacitor that charges. */
export type TestOutcome = "in_order" | "bad" | "doubtful" | "not_done";

/** A trap in a test's outcome, worded by the interface. */
export type DeviceTrap =
  | "fuse_clears_nothing"
  | "charging_capacitor"
  | "short_may_be_parallel"
  | "needs_least_and_most"
  | "needs_marking"
  | "across_points_downstream"
  | "pulses";

export interface DeviceLine {
  readonly test: DeviceTest;
  readonly outcome: TestOutcome;
  readonly reading: Reading | null;
  /** What a sound part shows, where it is a number; the marking's band for resistors, the rail's for regulators. */
  readonly band: { readonly low: number; readonly high: number } | null;
  readonly trap: DeviceTrap | null;
}

export interface DeviceJudgement {
  readonly positionId: string;
  readonly verdict: VerdictWord;
  readonly lines: readonly DeviceLine[];
  /** What can be seen on it. */
  readonly seen: readonly VisualSign[];
  readonly traps: readonly DeviceTrap[];
}

interface Board {
  readonly positions: readonly BoardPosition[];
  readonly nets: readonly BoardNet[];
  readonly readings: readonly Reading[];
  readonly signs?: readonly SignObservation[];
  /** Absent: nothing was taken out or put in. */
  readonly ticks?: readonly ReworkTick[];
}

/** Which part of a place is asked about: the one that was found, or the one that stands there now. */
export type DeviceAsked = "found" | "now";

/**
 * Verdict on a part that is no capacitor, from its standard tests and its looks: failed where one test is bad or its body
 * burst, sound where all tests that are not optional were done and are in order, cannot tell between. A part with no
 * standard test, or none done, is not measured; other signs are told and condemn nothing.
 *
 * Shorts in circuit may be a parallel neighbour's: of two such parts on one net neither is condemned until a lead is up.
 * A supply is judged by least and most together, because a mean hides pulses. Rough: bands of usual silicon.
 */
export function judgeDevice(position: BoardPosition, board: Board, asked: DeviceAsked = "now"): DeviceJudgement | null {
  const counts = countsFor(position.id, board.ticks ?? [], asked);
  const signs = latestSigns((board.signs ?? []).filter(counts), position.id);
  const seen = visualSigns.filter((sign) => signs[sign] === "seen");
  const tests = deviceTests[position.kind];
  if (position.kind === "electrolytic" || (!tests && seen.length === 0)) return null;
  const own = tellingReadings(board.readings).filter((one) => one.targetId === position.id && counts(one));
  const net = board.nets.find((one) => one.id === position.netId);
  const hasTwin =
    position.netId !== null &&
    board.positions.some((one) => one.id !== position.id && one.kind === position.kind && one.netId === position.netId);
  const lines = withPair(
    (tests ?? []).map((test) => {
      const reading =
        own.filter((one) => (one.terminals ?? "") === test.terminals && one.quantity === test.quantity).at(-1) ??
        // Whoever names no pins means the first test.
        (test === tests?.[0]
          ? own.filter((one) => one.terminals === null && one.quantity === test.quantity).at(-1)
          : undefined) ??
        null;
      const band = bandOf(test, position, net);
      return { test, reading, band, ...outcomeOf(test, reading, band, position.kind, hasTwin) };
    }),
    position.kind,
  );
  const counted = lines.filter((one) => !one.test.isOptional || one.reading !== null);
  const cold = counted.filter((one) => !one.test.isLive);
  const outcomes = new Set(counted.map((one) => one.outcome));
  const verdict: VerdictWord =
    outcomes.has("bad") || seen.includes("burst")
      ? "failed"
      : counted.every((one) => one.reading === null)
        ? "not_measured"
        : cold.every((one) => one.outcome === "in_order") && !outcomes.has("doubtful")
          ? "sound"
          : "cannot_tell";
  const traps = new Set(lines.flatMap((one) => (one.trap ? [one.trap] : [])));
  if (position.kind === "fuse" && verdict === "sound") traps.add("fuse_clears_nothing");
  return { positionId: position.id, verdict, lines, seen, traps: [...traps] };
}

/** What was read before a new part went in is of the old one; what came after is of the new. */
function countsFor(positionId: string, ticks: readonly ReworkTick[], asked: DeviceAsked) {
  const fits = factsInOrder(ticks.filter((one) => one.positionId === positionId && one.step === "fitted"));
  const standing = fits.at(-1)?.isDone ? fits.at(-1) : undefined;
  const change = asked === "now" ? standing : fits.find((one) => one.isDone);
  return (fact: Pick<FactMoment, "sequence">): boolean => {
    if (!change) return true;
    const isAfter = (fact.sequence ?? Number.POSITIVE_INFINITY) > (change.sequence ?? Number.POSITIVE_INFINITY);
    return asked === "now" ? isAfter : !isAfter;
  };
}

/** Every part that has standard tests, by position. */
export function judgeDevices(board: Board, asked: DeviceAsked = "now"): ReadonlyMap<string, DeviceJudgement> {
  const judged = new Map<string, DeviceJudgement>();
  for (const position of board.positions) {
    const judgement = judgeDevice(position, board, asked);
    if (judgement) judged.set(position.id, judgement);
  }
  return judged;
}

function bandOf(test: DeviceTest, position: BoardPosition, net: BoardNet | undefined): DeviceLine["band"] {
  const marked = position.markedOhms;
  if (test.code === "resistor_value") {
    return marked === null
      ? null
      : { low: marked * (1 - resistorToleranceRatio), high: marked * (1 + resistorToleranceRatio) };
  }
  if (test.code === "ntc_cold" && marked !== null)
    return { low: marked * thermistorLowRatio, high: marked * thermistorHighRatio };
  if (position.kind === "regulator" && test.isLive) {
    if (net?.nominalVolts == null) return null;
    const width = Math.abs(net.nominalVolts) * (net.toleranceRatio ?? regulatorToleranceRatio);
    return { low: Math.abs(net.nominalVolts) - width, high: Math.abs(net.nominalVolts) + width };
  }
  return test.band;
}

type Outcome = Pick<DeviceLine, "outcome" | "trap">;
const inOrder: Outcome = { outcome: "in_order", trap: null };
const bad: Outcome = { outcome: "bad", trap: null };

function outcomeOf(
  test: DeviceTest,
  reading: Reading | null,
  band: DeviceLine["band"],
  kind: PartKind,
  hasTwin: boolean,
): Outcome {
  if (!reading) return { outcome: "not_done", trap: null };
  const isLifted = !isInCircuit(reading);
  const isOpen = reading.coarseCode === overRangeCode;
  const value = reading.value ?? Number.POSITIVE_INFINITY;
  if (test.quantity === "observation") {
    if (reading.coarseCode === "turns_hard") return bad;
    return reading.coarseCode === "turns_freely" ? inOrder : { outcome: "doubtful", trap: null };
  }
  if (test.quantity === "tester_band") {
    if (reading.coarseCode === "band_good") return inOrder;
    return reading.coarseCode === "band_bad" && isLifted ? bad : { outcome: "doubtful", trap: null };
  }
  const isShort = !isOpen && value < (test.quantity === "diode_drop" ? shortVolts : shortOhms);
  if (isShort && hasTwin && !isLifted && kind !== "resistor" && band !== null) {
    const wantsLow = (test.band?.low ?? 0) < shortOhms && test.quantity === "resistance";
    if (!wantsLow) return { outcome: "doubtful", trap: "short_may_be_parallel" };
  }
  // A junction that must read open.
  if (test.quantity === "diode_drop" && test.band === null) {
    if (isOpen) return inOrder;
    if (test.code === "bridge_across")
      // With four good diodes it is what hangs behind the bridge.
      return { outcome: "doubtful", trap: "across_points_downstream" };
    if (isShort) return hasTwin && !isLifted ? { outcome: "doubtful", trap: "short_may_be_parallel" } : bad;
    return isLifted ? bad : { outcome: "doubtful", trap: "charging_capacitor" };
  }
  if (band === null) {
    if (test.isLive) return { outcome: "doubtful", trap: "needs_marking" };
    return isOpen ? bad : { outcome: "doubtful", trap: "needs_marking" };
  }
  if (isOpen) return band.high >= openIsSoundFromOhms ? inOrder : bad;
  if (value > band.high) return bad;
  if (value >= band.low) return inOrder;
  // In circuit, neighbours only make a resistance smaller.
  if (test.code === "resistor_value" && !isLifted) return { outcome: "doubtful", trap: null };
  if (test.quantity === "resistance" && !isShort && !isLifted) return { outcome: "doubtful", trap: null };
  if (test.quantity === "diode_drop" && !isShort && !isLifted)
    return { outcome: "doubtful", trap: "charging_capacitor" };
  return bad;
}

/** Least and most of a supply are one test: alone neither says anything, far apart they pulse. */
function withPair(lines: readonly DeviceLine[], kind: PartKind): readonly DeviceLine[] {
  const least = lines.find((one) => one.test.code === "supply_least")?.reading?.value ?? null;
  const most = lines.find((one) => one.test.code === "supply_most")?.reading?.value ?? null;
  const isPulsing = least !== null && most !== null && most > 0 && least < (1 - pulsingRatio) * most;
  return lines.map((line): DeviceLine => {
    if (!line.test.isLive || line.reading === null) return line;
    if (least === null || most === null) return { ...line, outcome: "doubtful", trap: "needs_least_and_most" };
    // A chip whose supply pulses tries to start: what feeds it is weak, or what it feeds is short.
    return isPulsing ? { ...line, outcome: kind === "ic" ? "doubtful" : "bad", trap: "pulses" } : line;
  });
}

import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";

const bulkTopologies = ["bridge", "doubler"] as const;
export type BulkTopology = (typeof bulkTopologies)[number];

/** A rectified mains with its bulk capacitor, or two as a doubler, under a load of constant power. */
export interface BulkCircuit {
  readonly topology: BulkTopology;
  readonly mainsVoltsRms: number;
  readonly mainsHertz: number;
  /** Mains, filter and thermistor in series. */
  readonly sourceOhms: number;
  /** Of the one capacitor, or of each of a doubler. */
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly loadWatts: number;
  /** Where the converter gives up. */
  readonly dropoutVolts: number;
}

export interface HoldUp {
  readonly seconds: number;
  /** Behind the ESR at the moment of the break; of a doubler both, larger first. */
  readonly capacitorVolts: readonly number[];
}

export interface BulkCourse {
  /** One mains cycle. */
  readonly seconds: Float64Array;
  readonly busVolts: Float64Array;
  readonly highestVolts: number;
  readonly lowestVolts: number;
  readonly peakToPeakVolts: number;
  readonly meanVolts: number;
  /** Rectified mains and load only: the converter's own ripple comes on top. */
  readonly capacitorAmpsRms: readonly number[];
  readonly capacitorPeakToPeakVolts: readonly number[];
  /** In each half cycle. */
  readonly conductionSeconds: number;
  readonly sourceAmpsRms: number;
  readonly sourcePeakAmps: number;
  readonly holdUpFromTrough: HoldUp;
  readonly holdUpFromPeak: HoldUp;
}

/** One silicon diode: forward drop and slope. */
const diodeVolts = 0.9;
const diodeOhms = 0.02;
const stepsPerCycle = 8000;
const conductingAmps = 1e-3;

/**
 * Steady state of a mains rectifier into its bulk capacitor.
 *
 *     bridge: i = max(0, (|vs| - 2 Vd - v) / (Rs + 2 Rd)),  C du/dt = i - P/v,  v = u + ESR (i - P/v)
 *     doubler: each half of the cycle charges one capacitor through one diode; v = v1 + v2
 *
 * The terminal voltage follows from the state by a quadratic (the load draws P/v). Runge-Kutta of fourth order, 8000
 * steps a cycle (wider ones while nothing charges), cycle after cycle until the state returns to itself within 1e-7 of the peak; the step over a cycle is
 * extrapolated (Aitken), at most 400 cycles. Hold-up is the closed form
 * t = (Ce/P) [(v0^2 - vd^2)/2 - Re P ln(v0/vd)]. The mains has no inductance: peak currents are upper bounds.
 *
 * @throws {OutOfRangeError} values not above 0; a load that this mains cannot feed
 */
export function mainsBulk(input: BulkCircuit): BulkCourse {
  const C = requirePositive("capacitanceFarads", input.capacitanceFarads);
  const esr = requirePositive("esrOhms", input.esrOhms);
  const Rs = requirePositive("sourceOhms", input.sourceOhms);
  const P = requirePositive("loadWatts", input.loadWatts);
  const dropout = requirePositive("dropoutVolts", input.dropoutVolts);
  const peak = Math.SQRT2 * requirePositive("mainsVoltsRms", input.mainsVoltsRms);
  const omega = 2 * Math.PI * requirePositive("mainsHertz", input.mainsHertz);
  const isDoubler = input.topology === "doubler";
  const circuit = { C, esr, Rs, P, peak };
  const flow = isDoubler ? doublerFlow(circuit) : bridgeFlow(circuit);
  const h = (2 * Math.PI) / omega / stepsPerCycle;
  // Behind a bridge each half cycle is like the one before; a doubler returns to itself after both.
  const settlingSteps = isDoubler ? stepsPerCycle : stepsPerCycle / 2;

  let state: BulkVolts = [peak - 2 * diodeVolts, isDoubler ? peak - 2 * diodeVolts : 0];
  let earlier: BulkVolts | null = null;
  let isSettled = false;
  for (let cycle = 0; cycle < 400 && !isSettled; cycle++) {
    const next = afterSteps(flow, C, state, settlingSteps, h);
    if (!(next[0] > 0 && (next[1] > 0 || !isDoubler))) throw starved(P);
    isSettled = next.every((volts, n) => Math.abs(volts - (state[n] as number)) < 1e-7 * peak);
    if (earlier && cycle % 3 === 2) {
      state = [
        extrapolated(earlier[0], state[0], next[0]),
        isDoubler ? extrapolated(earlier[1], state[1], next[1]) : 0,
      ];
      earlier = null;
    } else {
      earlier = state;
      state = next;
    }
  }
  if (!isSettled) throw starved(P);
  return courseOf(flow, state, h, { C, esr, P, dropout, isDoubler });
}

const starved = (watts: number) =>
  new OutOfRangeError("loadWatts", watts, "what this mains and source resistance can feed");

function extrapolated(a: number, b: number, c: number): number {
  const curvature = c - 2 * b + a;
  const jump = curvature === 0 ? 0 : -((c - b) ** 2) / curvature;
  // Far from settled the extrapolation can overshoot: it may not leave the neighbourhood.
  return Math.abs(jump) > 20 * Math.abs(c - b) + 1e-12 ? c : c + jump;
}

interface Circuit {
  readonly C: number;
  readonly esr: number;
  readonly Rs: number;
  readonly P: number;
  readonly peak: number;
}

/** Behind the ESR: of the one capacitor, or of both of a doubler; the second of a bridge stays 0. */
type BulkVolts = readonly [first: number, second: number];

/** What flows at one moment; one object is written over and over, as this runs a few hundred thousand times. */
interface Moment {
  busVolts: number;
  firstAmps: number;
  secondAmps: number;
  sourceAmps: number;
}

/** What flows where the mains stands at so much of its crest, -1 to 1. */
type Flow = (crestRatio: number, first: number, second: number) => Moment;

/** v = e - r P/v for the larger root; NaN where the load asks for more than there is. */
const underConstantPower = (e: number, r: number, P: number) => (e + Math.sqrt(e * e - 4 * r * P)) / 2;

function bridgeFlow({ esr, Rs, P, peak }: Circuit): Flow {
  const r = Rs + 2 * diodeOhms;
  const g = 1 / esr + 1 / r;
  const now: Moment = { busVolts: 0, firstAmps: 0, secondAmps: 0, sourceAmps: 0 };
  return (crestRatio, u) => {
    const drive = Math.abs(peak * crestRatio) - 2 * diodeVolts;
    let busVolts = underConstantPower(u, esr, P);
    let fed = 0;
    if (drive > busVolts) {
      // v (1/esr + 1/r) = u/esr + drive/r - P/v
      busVolts = underConstantPower((u / esr + drive / r) / g, 1 / g, P);
      fed = Math.max(0, (drive - busVolts) / r);
    }
    now.busVolts = busVolts;
    now.firstAmps = fed - P / busVolts;
    now.sourceAmps = fed;
    return now;
  };
}

function doublerFlow({ esr, Rs, P, peak }: Circuit): Flow {
  const r = Rs + diodeOhms;
  const g = 1 / esr + 1 / r;
  const now: Moment = { busVolts: 0, firstAmps: 0, secondAmps: 0, sourceAmps: 0 };
  return (crestRatio, first, second) => {
    const isFirst = crestRatio > 0;
    const drive = Math.abs(peak * crestRatio) - diodeVolts;
    const charged = isFirst ? first : second;
    const other = isFirst ? second : first;
    let busVolts = underConstantPower(charged + other, 2 * esr, P);
    let fed = 0;
    if (drive > charged - (esr * P) / busVolts) {
      // The fed one stands at w = (u/esr + drive/r - P/v) / g, the other at its own less the drop of the load.
      busVolts = underConstantPower((charged / esr + drive / r) / g + other, 1 / g + esr, P);
      fed = Math.max(0, (drive - (charged / esr + drive / r - P / busVolts) / g) / r);
    }
    const load = P / busVolts;
    now.busVolts = busVolts;
    now.firstAmps = isFirst ? fed - load : -load;
    now.secondAmps = isFirst ? -load : fed - load;
    now.sourceAmps = isFirst ? fed : -fed;
    return now;
  };
}

/** The mains over a cycle at every half step, as a share of its crest. */
const crestRatios = Float64Array.from({ length: 2 * stepsPerCycle + 1 }, (_, n) =>
  Math.sin((Math.PI * n) / stepsPerCycle),
);

/** Steps that are taken at once while nothing charges: the bus only falls there, and smoothly. */
const stride = 40;

function afterSteps(flow: Flow, C: number, from: BulkVolts, steps: number, h: number): BulkVolts {
  const state = { first: from[0], second: from[1] };
  const crestAt = stepsPerCycle / 4;
  for (let n = 0; n < steps; ) {
    const toCrest = (crestAt - (n % (2 * crestAt)) + 2 * crestAt) % (2 * crestAt);
    const isFree = n % stride === 0 && n + stride <= steps && toCrest >= stride;
    if (isFree && flow(crestRatios[2 * n] as number, state.first, state.second).sourceAmps === 0) {
      const { first, second } = state;
      step(flow, C, state, n, h, stride);
      if (flow(crestRatios[2 * (n + stride)] as number, state.first, state.second).sourceAmps === 0) {
        n += stride;
        continue;
      }
      Object.assign(state, { first, second });
    }
    step(flow, C, state, n, h);
    n += 1;
  }
  return [state.first, state.second];
}

/** One step of Runge-Kutta from sample n on, over one sample or several, in place. */
function step(
  flow: Flow,
  C: number,
  state: { first: number; second: number },
  n: number,
  h: number,
  samples = 1,
): void {
  const { first, second } = state;
  const middle = crestRatios[2 * n + samples] as number;
  const half = (samples * h) / 2 / C;
  const k1 = flow(crestRatios[2 * n] as number, first, second);
  const [a1, b1] = [k1.firstAmps, k1.secondAmps];
  const k2 = flow(middle, first + half * a1, second + half * b1);
  const [a2, b2] = [k2.firstAmps, k2.secondAmps];
  const k3 = flow(middle, first + half * a2, second + half * b2);
  const [a3, b3] = [k3.firstAmps, k3.secondAmps];
  const k4 = flow(crestRatios[2 * (n + samples)] as number, first + 2 * half * a3, second + 2 * half * b3);
  state.first = first + ((a1 + 2 * (a2 + a3) + k4.firstAmps) * half) / 3;
  state.second = second + ((b1 + 2 * (b2 + b3) + k4.secondAmps) * half) / 3;
}

function courseOf(
  flow: Flow,
  from: BulkVolts,
  h: number,
  of: {
    readonly C: number;
    readonly esr: number;
    readonly P: number;
    readonly dropout: number;
    readonly isDoubler: boolean;
  },
): BulkCourse {
  const seconds = new Float64Array(stepsPerCycle);
  const busVolts = new Float64Array(stepsPerCycle);
  const size = of.isDoubler ? 2 : 1;
  const start = from.slice(0, size);
  const squares = new Array<number>(size).fill(0);
  const sums = new Array<number>(size).fill(0);
  const lows = new Array<number>(size).fill(Infinity);
  const highs = new Array<number>(size).fill(-Infinity);
  let [sourceSquares, sourcePeak, conducting, sum] = [0, 0, 0, 0];
  let [trough, crest] = [
    { volts: Infinity, state: start },
    { volts: -Infinity, state: start },
  ];
  const state = { first: from[0], second: from[1] };
  for (let n = 0; n < stepsPerCycle; n++) {
    const now = flow(crestRatios[2 * n] as number, state.first, state.second);
    seconds[n] = n * h;
    busVolts[n] = now.busVolts;
    sum += now.busVolts;
    for (let k = 0; k < size; k++) {
      const amps = k === 0 ? now.firstAmps : now.secondAmps;
      squares[k] = (squares[k] as number) + amps * amps;
      sums[k] = (sums[k] as number) + amps;
      const terminal = (k === 0 ? state.first : state.second) + of.esr * amps;
      lows[k] = Math.min(lows[k] as number, terminal);
      highs[k] = Math.max(highs[k] as number, terminal);
    }
    sourceSquares += now.sourceAmps ** 2;
    sourcePeak = Math.max(sourcePeak, Math.abs(now.sourceAmps));
    if (Math.abs(now.sourceAmps) > conductingAmps) conducting += h;
    if (now.busVolts < trough.volts)
      trough = { volts: now.busVolts, state: [state.first, state.second].slice(0, size) };
    if (now.busVolts > crest.volts) crest = { volts: now.busVolts, state: [state.first, state.second].slice(0, size) };
    step(flow, of.C, state, n, h);
  }
  const holdUp = (capacitorVolts: readonly number[]) => heldUp(capacitorVolts, of);
  return {
    seconds,
    busVolts,
    highestVolts: crest.volts,
    lowestVolts: trough.volts,
    peakToPeakVolts: crest.volts - trough.volts,
    meanVolts: sum / stepsPerCycle,
    capacitorAmpsRms: squares.map((square, k) =>
      Math.sqrt(Math.max(square / stepsPerCycle - ((sums[k] as number) / stepsPerCycle) ** 2, 0)),
    ),
    capacitorPeakToPeakVolts: highs.map((high, k) => high - (lows[k] as number)),
    conductionSeconds: conducting / 2,
    sourceAmpsRms: Math.sqrt(sourceSquares / stepsPerCycle),
    sourcePeakAmps: sourcePeak,
    holdUpFromTrough: holdUp(trough.state),
    holdUpFromPeak: holdUp(crest.state),
  };
}

function heldUp(
  capacitorVolts: readonly number[],
  of: {
    readonly C: number;
    readonly esr: number;
    readonly P: number;
    readonly dropout: number;
    readonly isDoubler: boolean;
  },
): HoldUp {
  const Ce = of.isDoubler ? of.C / 2 : of.C;
  const Re = of.isDoubler ? 2 * of.esr : of.esr;
  const u0 = capacitorVolts.reduce((sum, volts) => sum + volts, 0);
  const v0 = underConstantPower(u0, Re, of.P);
  const seconds =
    v0 > of.dropout ? (Ce / of.P) * ((v0 ** 2 - of.dropout ** 2) / 2 - Re * of.P * Math.log(v0 / of.dropout)) : 0;
  return { seconds, capacitorVolts: [...capacitorVolts].sort((a, b) => b - a) };
}

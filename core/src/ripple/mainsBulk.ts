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
 * steps a cycle, cycle after cycle until the state returns to itself within 1e-7 of the peak; the step over a cycle is
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
  const circuit = { C, esr, Rs, P, peak, omega };
  const step = input.topology === "bridge" ? bridgeStep(circuit) : doublerStep(circuit);
  const start = Array.from({ length: input.topology === "bridge" ? 1 : 2 }, () => peak - 2 * diodeVolts);
  const period = (2 * Math.PI) / omega;
  const h = period / stepsPerCycle;

  let state = start;
  let earlier: readonly number[] | null = null;
  let isSettled = false;
  for (let cycle = 0; cycle < 400 && !isSettled; cycle++) {
    const next = overCycle(step, state, h);
    if (!next.every((volts) => volts > 0)) throw starved(P);
    isSettled = next.every((volts, n) => Math.abs(volts - (state[n] as number)) < 1e-7 * peak);
    if (earlier && cycle % 3 === 2) {
      const [a, b] = [earlier, state];
      state = next.map((volts, n) => extrapolated(a[n] as number, b[n] as number, volts));
      earlier = null;
    } else {
      earlier = state;
      state = [...next];
    }
  }
  if (!isSettled) throw starved(P);
  return courseOf(step, state, h, { C, esr, P, dropout, isDoubler: input.topology === "doubler" });
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
  readonly omega: number;
}

/** What flows at one moment. */
interface Moment {
  readonly busVolts: number;
  readonly capacitorAmps: readonly number[];
  readonly sourceAmps: number;
}
type Flow = (seconds: number, state: readonly number[]) => Moment;
interface Stepper {
  readonly flow: Flow;
  readonly C: number;
}

/** v = e - r P/v for the larger root; NaN where the load asks for more than there is. */
const underConstantPower = (e: number, r: number, P: number) => (e + Math.sqrt(e * e - 4 * r * P)) / 2;

function bridgeStep({ C, esr, Rs, P, peak, omega }: Circuit): Stepper {
  const r = Rs + 2 * diodeOhms;
  const flow: Flow = (seconds, [u = 0]) => {
    const drive = Math.abs(peak * Math.sin(omega * seconds)) - 2 * diodeVolts;
    let busVolts = underConstantPower(u, esr, P);
    let fed = 0;
    if (drive > busVolts) {
      // v (1/esr + 1/r) = u/esr + drive/r - P/v
      const g = 1 / esr + 1 / r;
      busVolts = underConstantPower((u / esr + drive / r) / g, 1 / g, P);
      fed = Math.max(0, (drive - busVolts) / r);
    }
    return { busVolts, capacitorAmps: [fed - P / busVolts], sourceAmps: fed };
  };
  return { flow, C };
}

function doublerStep({ C, esr, Rs, P, peak, omega }: Circuit): Stepper {
  const r = Rs + diodeOhms;
  const flow: Flow = (seconds, [upper = 0, lower = 0]) => {
    const vs = peak * Math.sin(omega * seconds);
    const isUpper = vs > 0;
    const drive = Math.abs(vs) - diodeVolts;
    const [charged, other] = isUpper ? [upper, lower] : [lower, upper];
    let busVolts = underConstantPower(charged + other, 2 * esr, P);
    let fed = 0;
    if (drive > charged - (esr * P) / busVolts) {
      // The fed one stands at w = (u/esr + drive/r - P/v) / g, the other at its own less the drop of the load.
      const g = 1 / esr + 1 / r;
      busVolts = underConstantPower((charged / esr + drive / r) / g + other, 1 / g + esr, P);
      fed = Math.max(0, (drive - (charged / esr + drive / r - P / busVolts) / g) / r);
    }
    const load = P / busVolts;
    const amps = isUpper ? [fed - load, -load] : [-load, fed - load];
    return { busVolts, capacitorAmps: amps, sourceAmps: isUpper ? fed : -fed };
  };
  return { flow, C };
}

function overCycle({ flow, C }: Stepper, start: readonly number[], h: number): readonly number[] {
  let state = start;
  for (let n = 0; n < stepsPerCycle; n++) state = stepped(flow, C, state, n * h, h);
  return state;
}

function stepped(flow: Flow, C: number, state: readonly number[], t: number, h: number): readonly number[] {
  const rate = (at: number, from: readonly number[]) => flow(at, from).capacitorAmps;
  const k1 = rate(t, state);
  const k2 = rate(
    t + h / 2,
    state.map((u, n) => u + ((h / 2) * (k1[n] as number)) / C),
  );
  const k3 = rate(
    t + h / 2,
    state.map((u, n) => u + ((h / 2) * (k2[n] as number)) / C),
  );
  const k4 = rate(
    t + h,
    state.map((u, n) => u + (h * (k3[n] as number)) / C),
  );
  return state.map(
    (u, n) =>
      u + (h * ((k1[n] as number) + 2 * (k2[n] as number) + 2 * (k3[n] as number) + (k4[n] as number))) / (6 * C),
  );
}

function courseOf(
  { flow, C }: Stepper,
  start: readonly number[],
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
  const size = start.length;
  const squares = new Array<number>(size).fill(0);
  const sums = new Array<number>(size).fill(0);
  const lows = new Array<number>(size).fill(Infinity);
  const highs = new Array<number>(size).fill(-Infinity);
  let [sourceSquares, sourcePeak, conducting, sum] = [0, 0, 0, 0];
  let [trough, crest] = [
    { volts: Infinity, state: start },
    { volts: -Infinity, state: start },
  ];
  let state = start;
  for (let n = 0; n < stepsPerCycle; n++) {
    const now = flow(n * h, state);
    seconds[n] = n * h;
    busVolts[n] = now.busVolts;
    sum += now.busVolts;
    now.capacitorAmps.forEach((amps, k) => {
      squares[k] = (squares[k] as number) + amps * amps;
      sums[k] = (sums[k] as number) + amps;
      const terminal = (state[k] as number) + of.esr * amps;
      lows[k] = Math.min(lows[k] as number, terminal);
      highs[k] = Math.max(highs[k] as number, terminal);
    });
    sourceSquares += now.sourceAmps ** 2;
    sourcePeak = Math.max(sourcePeak, Math.abs(now.sourceAmps));
    if (Math.abs(now.sourceAmps) > conductingAmps) conducting += h;
    if (now.busVolts < trough.volts) trough = { volts: now.busVolts, state };
    if (now.busVolts > crest.volts) crest = { volts: now.busVolts, state };
    state = stepped(flow, C, state, n * h, h);
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

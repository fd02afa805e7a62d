import { OutOfRangeError } from "../errors";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

export interface LoadStepQuestion {
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly stepAmps: number;
  /** Crossover of the loop, and the corner of its integrator below it. */
  readonly crossoverHertz: number;
  readonly integratorHertz: number;
  /** Of the load; null: at once. */
  readonly slewAmpsPerSecond: number | null;
  /** Back within this of the volts before counts as recovered. */
  readonly bandVolts: number;
}

export interface LoadStepResponse {
  readonly esrVolts: number;
  readonly capacitanceVolts: number;
  readonly slewVolts: number;
  /** Their sum: a dip above it is not this output filter's. */
  readonly boundVolts: number;
  readonly dipVolts: number;
  readonly dipAfterSeconds: number;
  /** 0 where it never leaves the band. */
  readonly recoveredAfterSeconds: number;
}

/**
 * Dip of a rail after a step of its load, with a loop of one crossover and one integrator.
 *
 *     tau_c = 1/(2 pi fc), tau_i = 1/(2 pi fi);  v = A e^(-t/tau_i) + B e^(-t/tau_c)
 *     A = dI tau_c (esr - tau_i/C)/(tau_i - tau_c),  B = dI tau_i (tau_c/C - esr)/(tau_i - tau_c)
 *     bound = dI esr + dI tau_c/C + dI^2/(2 C slew)
 *
 * The course is rough (a real loop differs), the bound usual.
 *
 * @throws {OutOfRangeError} integrator not below crossover, C, step, band not above 0, ESR below 0
 */
export function loadStepResponse(question: LoadStepQuestion): LoadStepResponse {
  const { capacitanceFarads: farads, esrOhms: esr, stepAmps, slewAmpsPerSecond, bandVolts } = question;
  const { crossoverHertz, integratorHertz } = question;
  for (const [name, value] of Object.entries({ farads, stepAmps, crossoverHertz, integratorHertz, bandVolts })) {
    requirePositive(name, value);
  }
  requireNonNegative("esrOhms", esr);
  if (slewAmpsPerSecond !== null) requirePositive("slewAmpsPerSecond", slewAmpsPerSecond);
  if (integratorHertz >= crossoverHertz) {
    throw new OutOfRangeError("integratorHertz", integratorHertz, `below ${crossoverHertz}`);
  }
  const { a, b, fast, slow, at } = stepCourse(question);
  const turn = Math.log((-b * slow) / (a * fast)) / (1 / fast - 1 / slow);
  const isLower = Number.isFinite(turn) && turn > 0 && at(turn) < at(0);
  const dipAfterSeconds = isLower ? turn : 0;
  const esrVolts = stepAmps * esr;
  const capacitanceVolts = (stepAmps * fast) / farads;
  const slewVolts = slewAmpsPerSecond === null ? 0 : stepAmps ** 2 / (2 * farads * slewAmpsPerSecond);
  return {
    ...{ esrVolts, capacitanceVolts, slewVolts, boundVolts: esrVolts + capacitanceVolts + slewVolts },
    ...{ dipVolts: -at(dipAfterSeconds), dipAfterSeconds },
    recoveredAfterSeconds: recoveredAfter(at, Number.isFinite(turn) && turn > 0 ? turn : 0, slow, bandVolts),
  };
}

/** Volts after the step against those before it, by the seconds since. */
export const loadStepCourse = (question: Course): ((seconds: number) => number) => stepCourse(question).at;

type Course = Pick<
  LoadStepQuestion,
  "capacitanceFarads" | "esrOhms" | "stepAmps" | "crossoverHertz" | "integratorHertz"
>;

function stepCourse({ capacitanceFarads: farads, esrOhms: esr, stepAmps, crossoverHertz, integratorHertz }: Course) {
  const [fast, slow] = [1 / (2 * Math.PI * crossoverHertz), 1 / (2 * Math.PI * integratorHertz)];
  const a = (stepAmps * fast * (esr - slow / farads)) / (slow - fast);
  const b = (stepAmps * slow * (fast / farads - esr)) / (slow - fast);
  return { a, b, fast, slow, at: (t: number) => a * Math.exp(-t / slow) + b * Math.exp(-t / fast) };
}

/** The last time at which it leaves the band: after its turn it only comes back. */
function recoveredAfter(at: (t: number) => number, turn: number, slow: number, band: number): number {
  const isOut = (t: number) => Math.abs(at(t)) > band;
  // Before its turn it may cross the band on its way through 0.
  const starts = isOut(turn) ? turn : isOut(0) ? 0 : null;
  if (starts === null) return 0;
  let [low, high] = [starts, starts === 0 && turn > 0 && !isOut(turn) ? turn : Math.max(turn, slow)];
  while (isOut(high)) high *= 2;
  for (let step = 0; step < 200; step++) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) break;
    if (isOut(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

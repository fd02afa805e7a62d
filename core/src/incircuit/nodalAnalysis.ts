import { OutOfRangeError } from "../errors";
import { type Complex, reciprocalComplex } from "../numerics/complex";

/** A branch between two nodes of a board as a probe sees it. */
export type CircuitBranch =
  | {
      readonly kind: "capacitor";
      readonly from: string;
      readonly to: string;
      readonly capacitanceFarads: number;
      readonly esrOhms: number;
      readonly eslHenrys: number;
      /** Null: none worth counting. */
      readonly leakageOhms: number | null;
    }
  | { readonly kind: "resistor"; readonly from: string; readonly to: string; readonly ohms: number }
  | {
      readonly kind: "choke";
      readonly from: string;
      readonly to: string;
      readonly henrys: number;
      readonly ohms: number;
    }
  /** Conducts from `from` (anode) to `to` (cathode). */
  | { readonly kind: "diode"; readonly from: string; readonly to: string; readonly forwardVolts: number };

/** Insulation everywhere: keeps floating nodes solvable, far above what a bench meter reads. */
const insulationSiemens = 1e-9;
const diodeOnOhms = 5;

/**
 * Impedance between two points of a board, by nodal analysis: Y V = I with 1 A put in at one point and taken out at the
 * other. Diodes count as open: a tester's small signal does not turn them on. Solid for constant parts.
 *
 * @throws {OutOfRangeError} a frequency not above 0
 */
export function drivingPointImpedance(
  branches: readonly CircuitBranch[],
  points: readonly [string, string],
  frequencyHertz: number,
): Complex {
  if (!(frequencyHertz > 0)) throw new OutOfRangeError("frequencyHertz", frequencyHertz, "above 0");
  const omega = 2 * Math.PI * frequencyHertz;
  const linear = branches.flatMap((branch) => {
    const admittance = admittanceAt(branch, omega);
    return admittance ? [{ from: branch.from, to: branch.to, admittance }] : [];
  });
  const volts = solveNodes(linear, [{ into: points[0], outOf: points[1], amps: 1 }], points);
  return difference(volts, points);
}

/**
 * Volts between two points when a meter drives a small direct current through them. Capacitors are their leakage; a diode
 * is open below its forward voltage and a source with 5 ohms above it, found by turning one diode at a time until all
 * agree with their voltage (at most four passes for each diode).
 *
 * @returns signed volts; large where nothing conducts
 */
export function voltsUnderTestCurrent(
  branches: readonly CircuitBranch[],
  points: readonly [string, string],
  testAmps: number,
): number {
  const on = new Set<number>();
  const diodes = branches.filter((branch) => branch.kind === "diode");
  const linear = branches.flatMap((branch) => {
    const siemens = directSiemens(branch);
    return siemens > 0 ? [{ from: branch.from, to: branch.to, admittance: { re: siemens, im: 0 } }] : [];
  });
  for (let pass = 0; pass <= 4 * diodes.length; pass++) {
    const conducting = diodes.filter((_, n) => on.has(n));
    const joined = conducting.map(({ from, to }) => ({ from, to, admittance: { re: 1 / diodeOnOhms, im: 0 } }));
    const pushes = conducting.map(({ from, to, forwardVolts }) => ({
      into: from,
      outOf: to,
      amps: forwardVolts / diodeOnOhms,
    }));
    const drive = { into: points[0], outOf: points[1], amps: testAmps };
    const volts = solveNodes([...linear, ...joined], [drive, ...pushes], points);
    const wrong = diodes.findIndex(({ from, to, forwardVolts }, n) => {
      const across = difference(volts, [from, to]).re;
      return on.has(n) ? across < forwardVolts - 1e-9 : across > forwardVolts + 1e-9;
    });
    if (wrong < 0 || pass === 4 * diodes.length) return difference(volts, points).re;
    if (!on.delete(wrong)) on.add(wrong);
  }
  return 0;
}

interface Admittance {
  readonly from: string;
  readonly to: string;
  readonly admittance: Complex;
}

function admittanceAt(branch: CircuitBranch, omega: number): Complex | null {
  switch (branch.kind) {
    case "resistor":
      return { re: 1 / branch.ohms, im: 0 };
    case "choke":
      return reciprocalComplex({ re: branch.ohms, im: omega * branch.henrys });
    case "capacitor": {
      const core = reciprocalComplex({
        re: branch.leakageOhms === null ? 0 : 1 / branch.leakageOhms,
        im: omega * branch.capacitanceFarads,
      });
      return reciprocalComplex({ re: core.re + branch.esrOhms, im: core.im + omega * branch.eslHenrys });
    }
    case "diode":
      return null;
  }
}

function directSiemens(branch: CircuitBranch): number {
  switch (branch.kind) {
    case "resistor":
    case "choke":
      return 1 / Math.max(branch.ohms, 1e-4);
    case "capacitor":
      return branch.leakageOhms === null ? 0 : 1 / (branch.leakageOhms + branch.esrOhms);
    case "diode":
      return 0;
  }
}

type NodeVolts = ReadonlyMap<string, Complex>;
const zero: Complex = { re: 0, im: 0 };

function difference(volts: NodeVolts, [a, b]: readonly [string, string]): Complex {
  const [at, from] = [volts.get(a) ?? zero, volts.get(b) ?? zero];
  return { re: at.re - from.re, im: at.im - from.im };
}

/** Gaussian elimination with partial pivoting over the node equations; the second point is the reference. */
function solveNodes(
  branches: readonly Admittance[],
  sources: readonly { readonly into: string; readonly outOf: string; readonly amps: number }[],
  points: readonly [string, string],
): NodeVolts {
  const names = new Set([
    points[0],
    ...branches.flatMap(({ from, to }) => [from, to]),
    ...sources.flatMap((one) => [one.into, one.outOf]),
  ]);
  names.delete(points[1]);
  const index = new Map([...names].map((name, n) => [name, n]));
  const size = index.size;
  const width = size + 1;
  const re = new Float64Array(size * width);
  const im = new Float64Array(size * width);
  const add = (row: number | undefined, column: number | undefined, value: Complex, sign: number) => {
    if (row === undefined || column === undefined) return;
    re[row * width + column] = (re[row * width + column] as number) + sign * value.re;
    im[row * width + column] = (im[row * width + column] as number) + sign * value.im;
  };
  for (let n = 0; n < size; n++) add(n, n, { re: insulationSiemens, im: 0 }, 1);
  for (const { from, to, admittance } of branches) {
    const [a, b] = [index.get(from), index.get(to)];
    add(a, a, admittance, 1);
    add(b, b, admittance, 1);
    add(a, b, admittance, -1);
    add(b, a, admittance, -1);
  }
  for (const { into, outOf, amps } of sources) {
    add(index.get(into), size, { re: amps, im: 0 }, 1);
    add(index.get(outOf), size, { re: amps, im: 0 }, -1);
  }
  for (let column = 0; column < size; column++) {
    let pivot = column;
    const weight = (row: number) => Math.hypot(re[row * width + column] as number, im[row * width + column] as number);
    for (let row = column + 1; row < size; row++) if (weight(row) > weight(pivot)) pivot = row;
    for (let n = column; n <= size; n++) {
      for (const values of [re, im]) {
        const kept = values[column * width + n] as number;
        values[column * width + n] = values[pivot * width + n] as number;
        values[pivot * width + n] = kept;
      }
    }
    const inverse = reciprocalComplex({
      re: re[column * width + column] as number,
      im: im[column * width + column] as number,
    });
    for (let row = 0; row < size; row++) {
      if (row === column) continue;
      const [hr, hi] = [re[row * width + column] as number, im[row * width + column] as number];
      if (hr === 0 && hi === 0) continue;
      const factor = { re: hr * inverse.re - hi * inverse.im, im: hr * inverse.im + hi * inverse.re };
      for (let n = column; n <= size; n++) {
        const [pr, pi] = [re[column * width + n] as number, im[column * width + n] as number];
        re[row * width + n] = (re[row * width + n] as number) - (factor.re * pr - factor.im * pi);
        im[row * width + n] = (im[row * width + n] as number) - (factor.re * pi + factor.im * pr);
      }
    }
  }
  const volts = new Map<string, Complex>([[points[1], zero]]);
  for (const [name, n] of index) {
    const inverse = reciprocalComplex({ re: re[n * width + n] as number, im: im[n * width + n] as number });
    const [br, bi] = [re[n * width + size] as number, im[n * width + size] as number];
    volts.set(name, { re: br * inverse.re - bi * inverse.im, im: br * inverse.im + bi * inverse.re });
  }
  return volts;
}

import { OutOfRangeError } from "../errors";
import { type Matrix, matrix } from "../numerics/matrix";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";

/** A capacitor as a series branch ESR - ESL - C, with its leakage across C. */
export interface FilterCapacitor {
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly eslHenrys?: number;
  /** Null or absent: none worth counting. */
  readonly leakageOhms?: number | null;
}

/** The output filter of a rail: a bank where the current comes in, and perhaps a choke to a second bank at the load. */
export interface FilterNetwork {
  readonly before: readonly FilterCapacitor[];
  readonly choke: { readonly inductanceHenrys: number; readonly resistanceOhms: number } | null;
  /** Empty without a choke. */
  readonly after: readonly FilterCapacitor[];
}

/**
 * The filter as a linear system. With x the capacitor voltages, then the currents of branches with inductance, then the
 * choke's, u the source current and s its slope: dx/dt = rows of `dynamics` over [x, u, s], and the same for every
 * output. The load is a constant current: it moves nothing here.
 */
export interface FilterSystem {
  /** Square over [x, u, s]; the last two rows say du/dt = s, ds/dt = 0. */
  readonly dynamics: Matrix;
  readonly stateCount: number;
  /** Rows over [x, u, s]: volts at the first node, and at the second where there is one. */
  readonly nodeRows: readonly Float64Array[];
  /** Rows over [x, u, s]: the current into each capacitor, `before` first. */
  readonly capacitorRows: readonly Float64Array[];
  /** What a period leaves as it was, each a row over [x, u] that must be 0: the charge, and currents that have no way out. */
  readonly conserved: readonly Float64Array[];
  /** A node all of whose branches are inductive: a jump of current there has no finite answer. */
  readonly refusesJumps: boolean;
  /** A bound of the ringing between branches, radians per second; 0 where nothing can ring. */
  readonly ringingRadiansPerSecond: number;
}

/**
 * Writes the node equations of the filter as a state space.
 *
 * A node with a branch of pure resistance has its voltage by Kirchhoff's current law; one of inductive branches only has
 * it by the derivative of that law. Exact for constant parts.
 *
 * @throws {OutOfRangeError} no capacitor before the choke, none after it, a second bank without a choke, or values out of range
 */
export function filterSystem(network: FilterNetwork): FilterSystem {
  const { before, after, choke } = network;
  if (before.length === 0) throw new OutOfRangeError("before", 0, "at least one capacitor");
  if ((choke === null) !== (after.length === 0)) {
    throw new OutOfRangeError("after", after.length, "capacitors behind a choke, and none without");
  }
  const parts = [
    ...before.map((part) => ({ ...checked(part), node: 0 })),
    ...after.map((part) => ({ ...checked(part), node: 1 })),
  ];
  const chokeHenrys = choke ? requirePositive("inductanceHenrys", choke.inductanceHenrys) : 0;
  const chokeOhms = choke ? requireNonNegative("resistanceOhms", choke.resistanceOhms) : 0;

  const inductive = parts.filter((part) => part.esl > 0);
  const stateCount = parts.length + inductive.length + (choke ? 1 : 0);
  const width = stateCount + 2;
  const [U, S] = [stateCount, stateCount + 1];
  const chokeIndex = choke ? stateCount - 1 : -1;
  const currentIndex = new Map(inductive.map((part, n) => [part, parts.length + n]));

  const nodeCount = choke ? 2 : 1;
  const isResistive = Array.from({ length: nodeCount }, (_, node) =>
    parts.some((part) => part.node === node && part.esl === 0),
  );
  // nodeCount equations over the node voltages, each with a right side over [x, u, s].
  const left = Array.from({ length: nodeCount }, () => new Float64Array(2));
  const right = Array.from({ length: nodeCount }, () => new Float64Array(width));
  for (let node = 0; node < nodeCount; node++) {
    const side = node === 0 ? 1 : -1;
    const equation = left[node] as Float64Array;
    const row = right[node] as Float64Array;
    const isKirchhoff = isResistive[node];
    if (node === 0) row[isKirchhoff ? U : S] = 1;
    parts.forEach((part, n) => {
      if (part.node !== node) return;
      const current = currentIndex.get(part);
      if (isKirchhoff && current === undefined) {
        add(equation, node, 1 / part.esr);
        add(row, n, 1 / part.esr);
      } else if (isKirchhoff) add(row, current as number, -1);
      else {
        add(equation, node, 1 / part.esl);
        add(row, n, 1 / part.esl);
        add(row, current as number, part.esr / part.esl);
      }
    });
    if (choke && isKirchhoff) add(row, chokeIndex, -side);
    else if (choke) {
      add(equation, node, 1 / chokeHenrys);
      add(equation, 1 - node, -1 / chokeHenrys);
      add(row, chokeIndex, (side * chokeOhms) / chokeHenrys);
    }
  }
  const nodeRows = solveNodes(left, right, nodeCount, width);

  const dynamics = matrix(width, width);
  const set = (row: number, values: Float64Array, factor: number) => {
    for (let column = 0; column < width; column++) {
      dynamics.values[row * width + column] =
        (dynamics.values[row * width + column] as number) + factor * (values[column] as number);
    }
  };
  const capacitorRows = parts.map((part, n) => {
    const current = currentIndex.get(part);
    const row = new Float64Array(width);
    if (current !== undefined) row[current] = 1;
    else {
      const node = nodeRows[part.node] as Float64Array;
      for (let column = 0; column < width; column++) row[column] = (node[column] as number) / part.esr;
      add(row, n, -1 / part.esr);
    }
    return row;
  });
  parts.forEach((part, n) => {
    set(n, capacitorRows[n] as Float64Array, 1 / part.farads);
    if (part.leakageSiemens > 0) set(n, unit(width, n), -part.leakageSiemens / part.farads);
    const current = currentIndex.get(part);
    if (current === undefined) return;
    set(current, nodeRows[part.node] as Float64Array, 1 / part.esl);
    set(current, unit(width, n), -1 / part.esl);
    set(current, unit(width, current), -part.esr / part.esl);
  });
  if (choke) {
    set(chokeIndex, nodeRows[0] as Float64Array, 1 / chokeHenrys);
    set(chokeIndex, nodeRows[1] as Float64Array, -1 / chokeHenrys);
    set(chokeIndex, unit(width, chokeIndex), -chokeOhms / chokeHenrys);
  }
  dynamics.values[U * width + S] = 1;

  const conserved: Float64Array[] = [];
  if (parts.every((part) => part.leakageSiemens === 0)) {
    const charge = new Float64Array(width);
    const all = parts.reduce((sum, part) => sum + part.farads, 0);
    parts.forEach((part, n) => {
      charge[n] = part.farads / all;
    });
    conserved.push(charge);
  }
  for (let node = 0; node < nodeCount; node++) {
    if (isResistive[node]) continue;
    const row = new Float64Array(width);
    for (const [part, index] of currentIndex) if (part.node === node) row[index] = 1;
    if (choke) row[chokeIndex] = node === 0 ? 1 : -1;
    if (node === 0) row[U] = -1;
    conserved.push(row);
  }
  const leastHenrys = Math.min(...inductive.map((part) => part.esl), Infinity);
  const leastFarads = Math.min(...parts.map((part) => part.farads));
  return {
    dynamics,
    stateCount,
    nodeRows,
    capacitorRows,
    conserved,
    refusesJumps: !isResistive[0],
    ringingRadiansPerSecond: Number.isFinite(leastHenrys) ? 1 / Math.sqrt(leastHenrys * leastFarads) : 0,
  };
}

function checked(part: FilterCapacitor) {
  return {
    farads: requirePositive("capacitanceFarads", part.capacitanceFarads),
    esr: requirePositive("esrOhms", part.esrOhms),
    esl: requireNonNegative("eslHenrys", part.eslHenrys ?? 0),
    leakageSiemens: part.leakageOhms == null ? 0 : 1 / requirePositive("leakageOhms", part.leakageOhms),
  };
}

/** One or two linear equations for the node voltages, each voltage as a row over [x, u, s]. */
function solveNodes(
  left: readonly Float64Array[],
  right: readonly Float64Array[],
  nodeCount: number,
  width: number,
): readonly Float64Array[] {
  const [a = 0, b = 0] = left[0] ?? [];
  const first = right[0] as Float64Array;
  if (nodeCount === 1) return [first.map((value) => value / a)];
  const [c = 0, d = 0] = left[1] ?? [];
  const second = right[1] as Float64Array;
  const determinant = a * d - b * c;
  const rows = [new Float64Array(width), new Float64Array(width)] as const;
  for (let n = 0; n < width; n++) {
    rows[0][n] = (d * (first[n] as number) - b * (second[n] as number)) / determinant;
    rows[1][n] = (a * (second[n] as number) - c * (first[n] as number)) / determinant;
  }
  return rows;
}

function add(row: Float64Array, index: number, value: number): void {
  row[index] = (row[index] as number) + value;
}

function unit(width: number, index: number): Float64Array {
  const row = new Float64Array(width);
  row[index] = 1;
  return row;
}

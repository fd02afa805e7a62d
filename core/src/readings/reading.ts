import { type FactMoment, inOrder, type LoggedFact } from "./factMoment";

/** What can be read; the unit follows from it. */
export const quantities = [
  "esr",
  "capacitance",
  "dc_voltage",
  "ripple_voltage",
  "voltage_loss",
  "resistance",
  "dissipation",
  "leakage_current",
  "ac_voltage",
  "diode_drop",
  "temperature",
  "time",
  "power",
  "tester_band",
  "observation",
] as const;
export type QuantityKind = (typeof quantities)[number];

/** Smallest and largest value that can be meant, in the unit of the quantity: what lies outside is a slip of the hand. */
export const readingRanges: Readonly<Record<QuantityKind, { readonly least: number; readonly most: number }>> = {
  esr: { least: 0, most: 1e6 },
  capacitance: { least: 0, most: 10 },
  dc_voltage: { least: -2000, most: 2000 },
  ripple_voltage: { least: 0, most: 500 },
  voltage_loss: { least: 0, most: 1 },
  resistance: { least: 0, most: 200e6 },
  dissipation: { least: 0, most: 1000 },
  leakage_current: { least: 0, most: 1 },
  ac_voltage: { least: 0, most: 2000 },
  diode_drop: { least: 0, most: 20 },
  temperature: { least: -60, most: 400 },
  time: { least: 0, most: 86_400 },
  power: { least: 0, most: 20e3 },
  tester_band: { least: 0, most: 0 },
  observation: { least: 0, most: 0 },
};

/** What a coarse tester shows instead of a number. Never turned into invented ohms. */
export const testerBands = [
  "band_good",
  "band_doubtful",
  "band_poor",
  "band_bad",
  "leaky_or_in_circuit",
  "no_reading",
] as const;
/** What a nose, an ear or a finger says. */
export const observations = [
  "smell",
  "whine",
  "tick",
  "hiss",
  "fizzes_at_switch_off",
  "silent",
  "boots",
  "picture",
  "hot",
  "warm",
  "cold",
  "turns_hard",
  "turns_freely",
  "other",
] as const;
/** A meter that reads nothing: open, or beyond its range. */
export const overRangeCode = "over_range";
export type CoarseCode = (typeof testerBands)[number] | (typeof observations)[number] | typeof overRangeCode;

/** Quantities that may read open instead of a number: never under power. */
export const mayReadOpen = (quantity: QuantityKind) =>
  quantity === "resistance" || quantity === "diode_drop" || isOpenAFault(quantity);

/** Where open is no answer of a sound part: a capacitor that is asked for its ESR or its capacitance. */
export const isOpenAFault = (quantity: QuantityKind) => quantity === "esr" || quantity === "capacitance";

/** Whether a capacitor read open where it should have had an ESR or a capacitance. */
export const isReadOpen = ({ quantity, coarseCode }: Pick<Reading, "quantity" | "coarseCode">) =>
  isOpenAFault(quantity) && coarseCode === overRangeCode;

/** Whether all that was asked of a capacitor read open: a number that stands beside it says that it is not. */
export const isOnlyReadOpen = (readings: readonly Reading[]): boolean =>
  readings.some(isReadOpen) && !readings.some((one) => isOpenAFault(one.quantity) && one.value !== null);

/** The words that stand for a value, those that fit its subject where it is told; null where the quantity is a number. */
export function coarseCodesOf(quantity: QuantityKind, subject?: ObservedSubject): readonly CoarseCode[] | null {
  if (quantity === "tester_band") return testerBands;
  if (quantity !== "observation") return null;
  return subject === undefined ? observations : observations.filter((one) => !unfit[subject].includes(one));
}

/** Of whom something is seen, heard or felt: not every word is for each. */
export type ObservedSubject = "fan" | "part" | "unit";
const unfit: Readonly<Record<ObservedSubject, readonly CoarseCode[]>> = {
  fan: ["fizzes_at_switch_off", "boots", "picture"],
  part: ["turns_hard", "turns_freely", "boots", "picture", "silent"],
  unit: ["turns_hard", "turns_freely"],
};

/** in_circuit: nothing lifted; lead_lifted: one lead free; out: on the bench. */
export const circuitStates = ["in_circuit", "lead_lifted", "out"] as const;
export type CircuitState = (typeof circuitStates)[number];

/** Nothing lifted: the neighbours are read too. A reading that does not say was taken so. */
export const isInCircuit = ({ circuitState }: { readonly circuitState: CircuitState | null }): boolean =>
  circuitState === "in_circuit" || circuitState === null;

/** What a reading is a statement about. */
export const targetKinds = ["part", "bank", "rail", "net", "unit"] as const;
export type TargetKind = (typeof targetKinds)[number];

/** What stood between the mains and the unit while it was read: it falsifies some readings. */
export interface Rig {
  readonly isIsolationTransformer: boolean;
  readonly isSeriesLamp: boolean;
  readonly isElectronicLimiter: boolean;
  /** A drain hung on the net: ohms, capacitance and leakage read the drain. */
  readonly isDrainOn?: boolean | undefined;
  /** The case was closed around it: it warms further than on the bench. */
  readonly isCaseClosed?: boolean | undefined;
}

/** One reading as it was taken. Readings are never changed: a correction supersedes. */
export interface Reading extends FactMoment {
  readonly id: string;
  readonly targetKind: TargetKind;
  /** Position for a part, net for a bank, rail or net, job for the unit. */
  readonly targetId: string;
  readonly fittedPartId: string | null;
  readonly quantity: QuantityKind;
  /** SI (degrees Celsius for temperatures); null in a withdrawal and beside a coarse code. */
  readonly value: number | null;
  /** Instead of a value, for coarse testers and for what was smelt, heard or felt. */
  readonly coarseCode: CoarseCode | null;
  /** Which pins or points of the target, where it has more than two. */
  readonly terminals: string | null;
  readonly circuitState: CircuitState | null;
  readonly frequencyHertz: number | null;
  readonly temperatureCelsius: number | null;
  /** Taken with the unit under power. */
  readonly isPowered: boolean;
  readonly loadAmps: number | null;
  readonly rig: Rig;
  readonly isWithdrawn: boolean;
  readonly supersedesId: string | null;
  readonly measuredAt: string;
}

/** A reading as a fact among others. */
export function loggedReading({ measuredAt, sequence, clockId, receivedAt, clockAheadSeconds }: Reading): LoggedFact {
  return { at: measuredAt, sequence, clockId, receivedAt, clockAheadSeconds };
}

/** What a drain across the net reads instead of the part. */
const underDrain: readonly QuantityKind[] = ["resistance", "capacitance", "leakage_current"];

/** Whether something across the net was read instead of what was meant: kept, and no evidence of any part. */
export const isOfDrain = ({ quantity, rig }: Reading): boolean =>
  rig.isDrainOn === true && underDrain.includes(quantity);

/** The standing readings that say something about the parts. */
export function tellingReadings<T extends Reading>(readings: readonly T[]): readonly T[] {
  const all = standingReadings(readings);
  return all.some(isOfDrain) ? all.filter((one) => !isOfDrain(one)) : all;
}

const standing = new WeakMap<readonly Reading[], readonly Reading[]>();

/**
 * The readings that stand: nothing superseded, nothing withdrawn, in the order in which they were stored.
 *
 * Many parts of a job ask this of the same list, and lists are never changed but made anew: the answer is kept with it.
 */
export function standingReadings<T extends Reading>(readings: readonly T[]): readonly T[] {
  const known = standing.get(readings);
  if (known) return known as readonly T[];
  const superseded = new Set(readings.map((reading) => reading.supersedesId));
  const found = inOrder(readings.filter((reading) => !superseded.has(reading.id) && !reading.isWithdrawn));
  standing.set(readings, found);
  return found;
}

/** What can be read; the unit follows from it. */
export const quantities = ["esr", "capacitance", "dc_voltage", "ripple_voltage", "voltage_loss", "resistance"] as const;
export type QuantityKind = (typeof quantities)[number];

/** in_circuit: nothing lifted; lead_lifted: one lead free; out: on the bench. */
export const circuitStates = ["in_circuit", "lead_lifted", "out"] as const;
export type CircuitState = (typeof circuitStates)[number];

/** What a reading is a statement about. */
export const targetKinds = ["part", "bank", "rail", "net", "unit"] as const;
export type TargetKind = (typeof targetKinds)[number];

/** What stood between the mains and the unit while it was read: it falsifies some readings. */
export interface Rig {
  readonly isIsolationTransformer: boolean;
  readonly isSeriesLamp: boolean;
  readonly isElectronicLimiter: boolean;
}

/** One reading as it was taken. Readings are never changed: a correction supersedes. */
export interface Reading {
  readonly id: string;
  readonly targetKind: TargetKind;
  /** Position for a part, net for a bank, rail or net, job for the unit. */
  readonly targetId: string;
  readonly fittedPartId: string | null;
  readonly quantity: QuantityKind;
  /** SI; null only in a withdrawal. */
  readonly value: number | null;
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

const standing = new WeakMap<readonly Reading[], readonly Reading[]>();

/**
 * The readings that stand: nothing superseded, nothing withdrawn, in the order in which they were taken.
 *
 * Many parts of a job ask this of the same list, and lists are never changed but made anew: the answer is kept with it.
 */
export function standingReadings<T extends Reading>(readings: readonly T[]): readonly T[] {
  const known = standing.get(readings);
  if (known) return known as readonly T[];
  const superseded = new Set(readings.map((reading) => reading.supersedesId));
  const found = readings
    .filter((reading) => !superseded.has(reading.id) && !reading.isWithdrawn)
    .map((reading) => ({ reading, at: Date.parse(reading.measuredAt) }))
    .sort((a, b) => a.at - b.at)
    .map(({ reading }) => reading);
  standing.set(readings, found);
  return found;
}

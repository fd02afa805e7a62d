import { type CombinedValue, combineRepeats } from "../readings/combineRepeats";
import { isInCircuit, type QuantityKind, type Reading } from "../readings/reading";

/** Repeats of one quantity under one condition, combined. */
export interface ReadingGroup extends CombinedValue {
  readonly quantity: QuantityKind;
  readonly isInCircuit: boolean;
  readonly frequencyHertz: number;
  readonly temperatureCelsius: number;
  readonly readingIds: readonly string[];
}

/** Bench habits where a reading does not say: ESR testers work at 100 kHz, capacitance meters at 120 Hz, rooms at 20. */
const assumedFrequencyHertz: Readonly<Partial<Record<QuantityKind, number>>> = {
  esr: 100e3,
  capacitance: 120,
  dissipation: 120,
};
const assumedTemperatureCelsius = 20;

/**
 * Groups the standing readings taken on some targets by quantity, circuit state, frequency and temperature. A lifted
 * lead counts as out of circuit. ESR nearest to 100 kHz comes first, out of circuit before in circuit.
 */
export function groupReadings(readings: readonly Reading[], quantity: QuantityKind): readonly ReadingGroup[] {
  const groups = new Map<string, Reading[]>();
  for (const reading of readings) {
    if (reading.quantity !== quantity || reading.value === null || reading.value < 0) continue;
    const key = [isInCircuit(reading), reading.frequencyHertz, reading.temperatureCelsius].join("|");
    groups.set(key, [...(groups.get(key) ?? []), reading]);
  }
  return [...groups.values()].map(combineGroup).sort(byUsefulness);
}

/** Frequencies nearer than this factor count as one. */
const sameFrequencyFactor = 1.5;

/** Whether what was read at one frequency may be held against what was read at another. */
export function isSameFrequency(oneHertz: number, otherHertz: number): boolean {
  return Math.abs(Math.log(oneHertz / otherHertz)) < Math.log(sameFrequencyFactor);
}

function combineGroup(members: readonly Reading[]): ReadingGroup {
  const first = members[0] as Reading;
  return {
    ...combineRepeats(members.map((reading) => reading.value as number)),
    quantity: first.quantity,
    isInCircuit: isInCircuit(first),
    frequencyHertz: first.frequencyHertz ?? assumedFrequencyHertz[first.quantity] ?? 0,
    temperatureCelsius: first.temperatureCelsius ?? assumedTemperatureCelsius,
    readingIds: members.map((reading) => reading.id),
  };
}

function byUsefulness(a: ReadingGroup, b: ReadingGroup): number {
  if (a.isInCircuit !== b.isInCircuit) return a.isInCircuit ? 1 : -1;
  const reference = Math.log(a.quantity === "esr" ? 100e3 : 120);
  const distance = (group: ReadingGroup) => Math.abs(Math.log(Math.max(group.frequencyHertz, 1)) - reference);
  return distance(a) - distance(b);
}

import type { BoardNet } from "../board/board";
import { sectionFacts } from "../board/sections";
import { type JobAct, lastActOf } from "../facts/jobActs";
import { isBefore } from "../readings/factMoment";
import { falsifiedBy } from "../readings/falsified";
import { loggedReading, type Reading, standingReadings } from "../readings/reading";
import { lastChange } from "./lastChange";
import { type LoadLine, loadLine } from "./loadLine";
import { type OutputDroop, outputDroop } from "./outputDroop";
import type { ProofFacts } from "./railProof";

/** A usual meter: half a per mille of what it reads, and two steps of four digits. Usual. */
const [gainDeviation, stepDigits] = [0.0005, 4] as const;
/** Of what a load shows. Usual. */
const ampsGainDeviation = 0.01;

/** What was read of one rail at one load since the last change. */
export interface CurvePoint {
  readonly loadAmps: number;
  readonly volts: number | null;
  readonly rippleVolts: number | null;
  readonly readings: readonly Reading[];
}

export interface RailCurve {
  /** By rising load. */
  readonly points: readonly CurvePoint[];
  /** From three loads on. */
  readonly line: LoadLine | null;
  /** Between the lightest and the heaviest load that were read. */
  readonly droop: OutputDroop | null;
}

/**
 * Volts and ripple of a rail over its load, by what was read since the last part went in or its trim was turned and is not made
 * void by its rig. Of several readings at one load the last stands. Where the volts were read is asked of the person: at the end of
 * a lead the lead's ohms come off.
 *
 * @param leadOhms there and back, where volts were read at the end of a lead; null: at the terminals or by four wires
 */
export function railCurve(net: BoardNet, facts: ProofFacts, leadOhms: number | null): RailCurve {
  const change = lastChange(net.id, facts);
  const { isMainsSide } = sectionFacts[net.section];
  const own = standingReadings(facts.readings).filter(
    (one) =>
      one.targetKind === "rail" &&
      one.targetId === net.id &&
      one.isPowered &&
      one.value !== null &&
      (one.quantity === "dc_voltage" || one.quantity === "ripple_voltage") &&
      falsifiedBy(one, isMainsSide) === null &&
      (change === null || isBefore(change, loggedReading(one))),
  );
  const byLoad = new Map<number, Reading[]>();
  for (const one of own) {
    const load = Number((one.loadAmps ?? 0).toPrecision(6));
    byLoad.set(load, [...(byLoad.get(load) ?? []), one]);
  }
  const last = (list: readonly Reading[], quantity: Reading["quantity"]) =>
    list.filter((one) => one.quantity === quantity).at(-1)?.value ?? null;
  const points = [...byLoad]
    .sort(([a], [b]) => a - b)
    .map(([loadAmps, readings]): CurvePoint => {
      const volts = last(readings, "dc_voltage");
      const rippleVolts = last(readings, "ripple_voltage");
      return { loadAmps, volts: volts === null ? null : Math.abs(volts), rippleVolts, readings };
    });
  const read = points.flatMap(({ loadAmps, volts }) =>
    volts === null ? [] : [{ loadAmps, volts, voltsDeviation: meterDeviation(volts) }],
  );
  const line = read.length >= 3 ? loadLine(read, leadOhms === null ? {} : { leadOhms }) : null;
  const [light, heavy] = [read[0], read.at(-1)];
  const nominalVolts = Math.abs(net.nominalVolts ?? 0);
  const droop =
    light && heavy && heavy.loadAmps > light.loadAmps && nominalVolts > 0
      ? outputDroop({
          ...{ lightAmps: light.loadAmps, lightVolts: light.volts, heavyAmps: heavy.loadAmps, heavyVolts: heavy.volts },
          ...{ nominalVolts, voltsDeviation: stepOf(heavy.volts), ampsDeviation: 0 },
          ...{ voltsGainDeviation: gainDeviation, ampsGainDeviation },
          ...(leadOhms === null
            ? { point: "terminals" as const }
            : { point: "lead_end" as const, leadOhms, leadDeviationOhms: 0.1 * leadOhms }),
        })
      : null;
  return { points, line, droop };
}

/** The ohms of the lead at whose end a rail is read, there and back, as told last; null: at its terminals, or nobody said. */
export function leadOhmsOf(acts: readonly JobAct[], netId: string): number | null {
  const told = lastActOf(acts, "read_at", netId);
  return told?.word === "lead_end" ? (told.value ?? null) : null;
}

/** One meter reads all of them: its gain is the same for each, so only its steps part them. */
const meterDeviation = (volts: number): number => 2 * stepOf(volts);
const stepOf = (volts: number): number =>
  10 ** (Math.floor(Math.log10(Math.max(Math.abs(volts), 0.1))) - stepDigits + 1);

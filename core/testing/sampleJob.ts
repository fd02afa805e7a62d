import type { BoardNet, BoardPosition, FittedPart } from "../src/board/board";
import type { ChargeEvent, EnergyStore } from "../src/facts/chargeFacts";
import { emptyJobFacts, type JobFacts } from "../src/facts/jobFacts";
import type { JobRules } from "../src/facts/jobRules";
import type { PowerEvent } from "../src/facts/powerEvents";
import type { ShopRecord } from "../src/facts/shopRecord";
import type { Reading } from "../src/readings/reading";
import { sampleMoment } from "./sampleMoment";

/** A net of a test board: 12 V output unless told otherwise. */
export function sampleNet(more: Partial<BoardNet> = {}): BoardNet {
  return {
    id: "net-12",
    name: "12 V",
    section: "output",
    nominalVolts: 12,
    fullLoadAmps: 4,
    toleranceRatio: null,
    rippleLimitVolts: null,
    network: null,
    converter: null,
    ...more,
  };
}

export function samplePosition(designator: string, more: Partial<BoardPosition> = {}): BoardPosition {
  return {
    id: `at-${designator}`,
    designator,
    kind: "electrolytic",
    netId: "net-12",
    xMetres: 0.02,
    yMetres: 0.02,
    outlineWidthMetres: null,
    outlineDepthMetres: null,
    pitchMetres: 0.005,
    polarityMark: "dark_half",
    boardNegativeDegrees: 90,
    fixing: null,
    heatSource: null,
    outlineHeightMetres: null,
    markedOhms: null,
    ...more,
  };
}

/** A 1000 uF 16 V low-impedance part in a 10 x 20 mm can: 46 milliohms at most when new. */
export function samplePart(designator: string, more: Partial<FittedPart> = {}): FittedPart {
  return {
    id: `part-${designator}`,
    positionId: `at-${designator}`,
    capacitanceFarads: 1000e-6,
    ratedVolts: 16,
    temperatureClassCelsius: 105,
    capacitorClass: "lowz",
    diameterMetres: 0.01,
    heightMetres: 0.02,
    stripeDegrees: 90,
    datasheetEsrOhms: null,
    toleranceRatio: null,
    series: null,
    origin: "found",
    fittedAt: more.origin === "replacement" ? "2026-11-23T10:00:00Z" : null,
    removedAt: null,
    ...more,
  };
}

let count = 0;

/** An ESR reading of 40 milliohms with one lead lifted, on the part of a designator. */
export function sampleReading(designator: string, more: Partial<Reading> = {}): Reading {
  count += 1;
  return {
    id: `reading-${count}`,
    targetKind: "part",
    targetId: `at-${designator}`,
    fittedPartId: `part-${designator}`,
    quantity: "esr",
    value: 0.04,
    coarseCode: null,
    terminals: null,
    circuitState: "lead_lifted",
    frequencyHertz: 100e3,
    temperatureCelsius: null,
    isPowered: false,
    loadAmps: null,
    rig: { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
    isWithdrawn: false,
    supersedesId: null,
    measuredAt: new Date(Date.UTC(2026, 10, 23, 10, 0, count)).toISOString(),
    ...sampleMoment,
    ...more,
  };
}

/** The tips of the ESR meter together: so much its leads add, nothing unless told otherwise. */
export function sampleTips(value = 0): Reading {
  return sampleReading("none", {
    targetKind: "unit",
    targetId: "job-1",
    fittedPartId: null,
    value,
    circuitState: null,
  });
}

/** A reading on a rail, under power. */
export function sampleRailReading(netId: string, more: Partial<Reading>): Reading {
  return sampleReading("none", {
    targetKind: "rail",
    targetId: netId,
    fittedPartId: null,
    quantity: "dc_voltage",
    circuitState: null,
    frequencyHertz: null,
    isPowered: true,
    loadAmps: 0,
    ...more,
  });
}

/** A job with C1 and C2 side by side on 12 V, nothing read yet. */
export function sampleJob(more: Partial<JobFacts> = {}): JobFacts {
  return {
    ...emptyJobFacts,
    complaint: "resets under load",
    device: { kind: "monitor", topology: null, ageYears: null },
    symptoms: ["collapses_under_load"],
    nets: [sampleNet()],
    positions: [samplePosition("C1"), samplePosition("C2")],
    fittedParts: [samplePart("C1"), samplePart("C2")],
    ...more,
  };
}

export const sampleRules: JobRules = {
  judgement: {
    school: "twenty",
    inCircuitSchool: "condemn_only",
    esrSourceSchool: "best_first",
    cleanLookSchool: "means_nothing",
    failedFromRatio: 0.9,
    wornFromRatio: 0.8,
    soundUpToRatio: 0.1,
    esrUncertaintyRatio: 0.1,
    contactOhms: 0.003,
    capacitanceUncertaintyRatio: 0.03,
    leadOhms: 0,
    testerShows: "real",
  },
  charge: { workingVolts: 10, reverifySeconds: 1800, waitSeconds: 60 },
  rail: {
    ...{ railToleranceRatio: 0.05, negativeToleranceRatio: 0.1, rippleLimitLowRailVolts: 0, rippleLimitRatio: 0.01 },
    ...{ loadShareRatio: 0.95, mainsVoltsRms: 230, mustReadNewParts: true },
  },
  safety: { earthBondOhms: 0.3, leastInsulationOhms: 1e6 },
};

/** A bulk of 100 uF at 325 V, held by C1. */
export function sampleStore(more: Partial<EnergyStore> = {}): EnergyStore {
  return {
    id: "store-1",
    name: "Bulk C1",
    kind: "bulk",
    positionId: "at-C1",
    netId: null,
    capacitanceFarads: 100e-6,
    expectedVolts: 325,
    bleederOhms: null,
    ...more,
  };
}

/** A charge event on that store, so many seconds after ten o'clock. */
export function sampleCharge(kind: ChargeEvent["kind"], seconds: number, more: Partial<ChargeEvent> = {}): ChargeEvent {
  return {
    kind,
    storeId: kind.startsWith("mains") ? null : "store-1",
    at: new Date(Date.UTC(2026, 10, 23, 10, 0, seconds)).toISOString(),
    volts: null,
    isMeterProved: false,
    isDrainOn: false,
    lineSide: null,
    resistanceOhms: null,
    drainItem: null,
    ...sampleMoment,
    ...more,
  };
}

/** Something of the way to mains, so many minutes after ten o'clock. */
export function samplePower(kind: PowerEvent["kind"], minute: number, more: Partial<PowerEvent> = {}): PowerEvent {
  return {
    kind,
    ...{ resistanceOhms: null, hasShort: null, item: null, subjectId: null, values: [], reason: null },
    ...{ rig: null, sign: null, note: null },
    ...sampleMoment,
    at: new Date(Date.UTC(2026, 10, 23, 10, minute)).toISOString(),
    ...more,
  };
}

/** What closed jobs say of some parts. */
export function shopRecord(
  parts: ShopRecord["parts"],
  faults: ShopRecord["faults"] = [],
  ageBand: ShopRecord["ageBand"] = null,
): ShopRecord {
  const scopes = { topology: "topology:flyback", model: "model:|halden 24" };
  return { fewestCount: 5, defaultWeight: 20, ageBand, scopes, parts, faults };
}

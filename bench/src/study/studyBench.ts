import { type ProbeState, parseNumberAnswer, type Scenario } from "@pale-cap/contract";
import {
  type BoardNet,
  type BoardPosition,
  type CircuitState,
  emptyJobFacts,
  type FittedPart,
  type JobFacts,
  notStored,
  type QuantityKind,
  type Reading,
  type SignObservation,
} from "@pale-cap/core";
import { Bench } from "../instruments/bench";
import { lcr } from "../instruments/lcr";
import { multimeter } from "../instruments/multimeter";
import { LineSession } from "../protocol/lineSession";
import type { PolicyBench } from "./policies";

const probeStates: Readonly<Record<CircuitState, ProbeState>> = { in_circuit: "IN", lead_lifted: "LIFTED", out: "OUT" };
const functions: Readonly<Partial<Record<QuantityKind, readonly [word: string, hertz: number]>>> = {
  esr: ["ESR", 100e3],
  capacitance: ["CAP", 120],
  voltage_loss: ["VLOS", 120],
  resistance: ["OHMS", 100],
};

/** One board on the bench of the study: what is known of it as a job, and readings taken through the instruments. */
export class StudyBench implements PolicyBench {
  private readonly session: LineSession;
  private readonly ohmmeter: LineSession;
  /** Seconds: an ohmmeter needs them until a bank is charged. */
  private clock = 0;
  private readings: readonly Reading[] = [];
  /** Readings taken, and leads lifted for them. */
  readingCount = 0;
  readonly lifted = new Set<string>();
  private readonly board: Pick<JobFacts, "nets" | "positions" | "fittedParts" | "signs">;

  constructor(readonly scenario: Scenario) {
    const bench = new Bench([scenario], () => this.clock);
    this.session = new LineSession(lcr(bench));
    this.ohmmeter = new LineSession(multimeter(bench));
    this.session.take("CORR:SHOR");
    this.board = boardOf(scenario);
  }

  get places(): readonly string[] {
    return this.scenario.capacitors.map((part) => part.at);
  }

  shortTips(): void {
    this.take({ targetKind: "unit", targetId: "unit", fittedPartId: null, quantity: "esr", value: 0 });
  }

  isDomed(at: string): boolean {
    return this.scenario.capacitors.some((part) => part.at === at && part.looks !== null);
  }

  get facts(): JobFacts {
    return {
      ...emptyJobFacts,
      ...this.board,
      device: { kind: "monitor", topology: null, ageYears: null },
      readings: this.readings,
    };
  }

  read(positionId: string, quantity: QuantityKind, circuitState: CircuitState): number | null {
    const [word, frequencyHertz] = functions[quantity] ?? ["ESR", 100e3];
    if (circuitState !== "in_circuit") this.lifted.add(positionId);
    const meter = quantity === "resistance" ? this.ohmmeter : this.session;
    this.session.take(`FREQ ${frequencyHertz}`);
    meter.take(`ROUT:PROB ${positionId},${probeStates[circuitState]}`);
    this.clock += 30;
    const answer = parseNumberAnswer(meter.take(`MEAS:${word}?`) ?? "");
    const value = answer.kind === "value" ? answer.value : null;
    this.take({
      ...{ targetKind: "part", targetId: positionId, fittedPartId: `part-${positionId}`, quantity, value },
      ...{ circuitState, frequencyHertz, isWithdrawn: value === null },
    });
    return value;
  }

  private take(more: Partial<Reading> & Pick<Reading, "targetKind" | "targetId" | "quantity" | "value">): void {
    this.readingCount += 1;
    const reading: Reading = {
      id: `r${this.readingCount}`,
      ...{ fittedPartId: null, coarseCode: null, terminals: null, circuitState: null, frequencyHertz: 100e3 },
      temperatureCelsius: this.scenario.thermal.ambientCelsius,
      isPowered: false,
      loadAmps: null,
      rig: { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
      ...notStored,
      sequence: this.readingCount,
      isWithdrawn: false,
      supersedesId: null,
      measuredAt: new Date(Date.UTC(2026, 0, 1) + this.readingCount * 1000).toISOString(),
      ...more,
    };
    this.readings = [...this.readings, reading];
  }
}

/** The board as Inspect would know it: places, markings, and what was seen. Designators serve as ids. */
function boardOf(scenario: Scenario): Pick<JobFacts, "nets" | "positions" | "fittedParts" | "signs"> {
  const nets = scenario.nets.map(
    (net): BoardNet => ({
      id: net.name,
      name: net.name,
      section: net.section,
      nominalVolts: null,
      fullLoadAmps: null,
      toleranceRatio: null,
      rippleLimitVolts: null,
      converter: null,
      network: net.behind
        ? { arrangement: "parallel", behindNetId: net.behind, chokeHenrys: null, chokeOhms: null }
        : null,
    }),
  );
  const positions = scenario.capacitors.map(
    (part): BoardPosition => ({
      id: part.at,
      designator: part.at,
      kind: "electrolytic",
      netId: part.net,
      xMetres: null,
      yMetres: null,
      outlineWidthMetres: null,
      outlineDepthMetres: null,
      outlineHeightMetres: null,
      markedOhms: null,
      pitchMetres: null,
      polarityMark: null,
      boardNegativeDegrees: null,
      fixing: null,
      heatSource: null,
    }),
  );
  const fittedParts = scenario.capacitors.map(
    (part): FittedPart => ({
      id: `part-${part.at}`,
      positionId: part.at,
      capacitanceFarads: (part.marking[0] ?? 1) / 1e6,
      ratedVolts: part.marking[1] ?? null,
      temperatureClassCelsius: part.marking[2] ?? null,
      capacitorClass: part.capacitorClass,
      diameterMetres: (part.can[0] ?? 5) / 1e3,
      heightMetres: (part.can[1] ?? 11) / 1e3,
      stripeDegrees: null,
      datasheetEsrOhms: null,
      toleranceRatio: null,
      series: null,
      origin: "found",
      fittedAt: null,
      removedAt: null,
    }),
  );
  const signs = scenario.capacitors.map(
    (part): SignObservation => ({
      fittedPartId: `part-${part.at}`,
      sign: "domed",
      sequence: 0,
      state: part.looks === null ? "not_seen" : "seen",
      observedAt: "2026-01-01T00:00:00Z",
    }),
  );
  return { nets, positions, fittedParts, signs };
}

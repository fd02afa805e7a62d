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
  seededRandom,
} from "@pale-cap/core";
import { foilImpedance, type Impedance, inSeries, parallel } from "../../virtualSupply/foil";
import type { PolicyBench } from "../policies";
import type { Rates } from "./rates";
import type { UnkindBoard, UnkindNet, UnkindPart } from "./unkindBoard";

const canHenrys = 10e-9;
const ceramicOhms = 0.004;
/** For how long the loss test holds, and what a sound part's dielectric takes back meanwhile. */
const lossSeconds = 0.02;

/** An unkind board on an unkind bench: what was entered of it as a job, and readings as chance, leads and hands make them. */
export class UnkindBench implements PolicyBench {
  readingCount = 0;
  readonly lifted = new Set<string>();
  readonly places: readonly string[];
  /** What the leads add to every ESR; 0 where they were zeroed. */
  readonly leadOhms: number;
  private readings: readonly Reading[] = [];
  private readonly random: () => number;
  private readonly esrHertz: number;
  private readonly capacitanceHertz: number;
  private readonly celsius: number;
  private readonly isTemperatureTold: boolean;
  private readonly entered: Pick<JobFacts, "nets" | "positions" | "fittedParts" | "signs">;

  constructor(
    private readonly board: UnkindBoard,
    private readonly rates: Rates,
  ) {
    this.random = seededRandom(board.seed * 104_729 + 3);
    const { bench } = rates;
    const [least, most] = bench.leadOhms;
    this.leadOhms = this.random() < bench.leadsNotZeroed ? least * (most / least) ** this.random() : 0;
    const draw = this.random();
    this.esrHertz = draw < bench.oneKilohertz ? 1e3 : draw < bench.oneKilohertz + bench.tenKilohertz ? 10e3 : 100e3;
    this.capacitanceHertz = this.random() < bench.capacitanceAtOneKilohertz ? 1e3 : 120;
    this.celsius = bench.celsius[0] + (bench.celsius[1] - bench.celsius[0]) * this.random();
    this.isTemperatureTold = this.random() < bench.temperatureRecorded;
    this.places = board.parts.map((part) => part.at);
    this.entered = asEntered(board);
  }

  /** What lies wrong with the bench itself, for the breakdown. */
  get disturbances(): readonly string[] {
    return [
      ...(this.leadOhms > 0 ? ["leads not zeroed"] : []),
      ...(this.esrHertz < 100e3 ? [`${this.esrHertz / 1e3} kHz`] : []),
      ...(this.celsius < 12 ? ["cold"] : []),
      ...(this.isTemperatureTold ? [] : ["no temperature"]),
    ];
  }

  get facts(): JobFacts {
    return {
      ...emptyJobFacts,
      ...this.entered,
      device: { kind: "monitor", topology: null, ageYears: null },
      readings: this.readings,
    };
  }

  isDomed(at: string): boolean {
    return this.part(at).isDomed;
  }

  /** The tips together: what the leads add. */
  shortTips(): void {
    const value = Math.max(0, this.leadOhms + 0.002 * this.normal());
    this.log({ targetKind: "unit", targetId: "unit", fittedPartId: null, quantity: "esr", value, circuitState: null });
  }

  read(at: string, quantity: QuantityKind, circuitState: CircuitState): number | null {
    if (circuitState !== "in_circuit") this.lifted.add(at);
    const value = this.slipped(this.shown(this.part(at), quantity, circuitState));
    const target = { targetKind: "part", targetId: at, fittedPartId: `part-${at}`, quantity } as const;
    // What a meter shows as open is written down as open.
    this.log({ ...target, circuitState, value, coarseCode: value === null ? "over_range" : null });
    return value;
  }

  private log(more: Pick<Reading, "targetKind" | "targetId" | "quantity" | "value"> & Partial<Reading>): void {
    this.readingCount += 1;
    const frequencyHertz = more.quantity === "esr" ? this.esrHertz : this.capacitanceHertz;
    const reading: Reading = {
      id: `r${this.readingCount}`,
      ...{ fittedPartId: null, coarseCode: null, terminals: null, circuitState: null, frequencyHertz },
      temperatureCelsius: this.isTemperatureTold ? Math.round(this.celsius) : null,
      ...{ isPowered: false, loadAmps: null, isWithdrawn: false, supersedesId: null },
      rig: { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
      ...notStored,
      sequence: this.readingCount,
      measuredAt: new Date(Date.UTC(2026, 0, 1) + this.readingCount * 1000).toISOString(),
      ...more,
    };
    this.readings = [...this.readings, reading];
  }

  private shown(part: UnkindPart, quantity: QuantityKind, circuitState: CircuitState): number | null {
    const isAlone = circuitState !== "in_circuit";
    switch (quantity) {
      case "esr": {
        const z = isAlone ? this.alone(part, this.esrHertz) : this.seen(part.net, this.esrHertz);
        if (!z || z.re > 500) return null;
        const { esrNoiseRatio, contactOhms } = this.rates.bench;
        const contact = -contactOhms * Math.log(1 - this.random());
        return Math.max(
          0,
          z.re * (1 + esrNoiseRatio * this.normal()) + contact + this.leadOhms + 0.001 * this.normal(),
        );
      }
      case "capacitance": {
        const hertz = this.capacitanceHertz;
        const z = isAlone ? this.alone(part, hertz) : this.seen(part.net, hertz);
        if (!z || z.im >= 0) return null;
        return (1 + this.rates.bench.capacitanceNoiseRatio * this.normal()) / (2 * Math.PI * hertz * -z.im);
      }
      case "voltage_loss": {
        if (part.foil.isOpen) return null;
        const leaked = 1 - Math.exp(-lossSeconds / (part.foil.leakOhms * part.foil.farads));
        return Math.min(1, leaked + 0.004 + 0.012 * this.random());
      }
      case "resistance":
        return this.ohms(part, isAlone);
      default:
        return null;
    }
  }

  /** An ohmmeter held for some seconds: what conducts, beside what still charges. */
  private ohms(part: UnkindPart, isAlone: boolean): number | null {
    const heldSeconds = 2 * 8 ** this.random();
    const members = isAlone ? [part] : this.board.parts.filter((one) => one.net === part.net);
    const net = this.net(part.net);
    const farads = members.reduce((sum, { foil }) => sum + (foil.isOpen ? 0 : foil.farads), 0);
    const siemens =
      members.reduce((sum, { foil }) => sum + (foil.isOpen ? 0 : 1 / foil.leakOhms), isAlone ? 0 : 1 / net.boardOhms) +
      farads / heldSeconds;
    return siemens > 1 / 40e6 ? (1 / siemens) * (1 + 0.01 * this.normal()) : null;
  }

  private alone({ foil }: UnkindPart, hertz: number): Impedance | null {
    const z = foilImpedance(foil, hertz, this.celsius);
    return z && { re: z.re, im: z.im + 2 * Math.PI * hertz * canHenrys };
  }

  /** What a probe at a net sees: its own parts, what conducts beside them, and the next net across a choke on either side. */
  private seen(name: string, hertz: number, from?: string): Impedance | null {
    const net = this.net(name);
    const omega = 2 * Math.PI * hertz;
    const branches = this.board.parts.filter((one) => one.net === name).flatMap((one) => this.alone(one, hertz) ?? []);
    branches.push({ re: net.boardOhms, im: 0 });
    if (net.ceramicFarads > 0) branches.push({ re: ceramicOhms, im: -1 / (omega * net.ceramicFarads) });
    for (const other of this.board.nets) {
      const choke = other.behind?.net === name ? other.behind : net.behind?.net === other.name ? net.behind : null;
      if (!choke || other.name === from) continue;
      const across = this.seen(other.name, hertz, name);
      if (across) branches.push(inSeries({ re: choke.ohms, im: omega * choke.henrys }, across));
    }
    return parallel(branches);
  }

  /** Ten times too much or too little, where a hand slipped. */
  private slipped(value: number | null): number | null {
    if (value === null || this.random() >= this.rates.bench.slip) return value;
    return this.random() < 0.5 ? value * 10 : value / 10;
  }

  private part(at: string): UnkindPart {
    return this.board.parts.find((one) => one.at === at) as UnkindPart;
  }

  private net(name: string): UnkindNet {
    return this.board.nets.find((one) => one.name === name) as UnkindNet;
  }

  private normal(): number {
    return Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
  }
}

function asEntered(board: UnkindBoard): Pick<JobFacts, "nets" | "positions" | "fittedParts" | "signs"> {
  const nets = board.nets.map(
    ({ name, section, behind }): BoardNet => ({
      ...{ id: name, name, section, nominalVolts: null, fullLoadAmps: null, toleranceRatio: null },
      ...{ rippleLimitVolts: null, converter: null },
      network: behind?.isDrawn
        ? { arrangement: "parallel", behindNetId: behind.net, chokeHenrys: null, chokeOhms: null }
        : null,
    }),
  );
  const positions = board.parts.map(
    ({ at, net }): BoardPosition => ({
      ...{ id: at, designator: at, kind: "electrolytic", netId: net, xMetres: null, yMetres: null },
      ...{ outlineWidthMetres: null, outlineDepthMetres: null, outlineHeightMetres: null, markedOhms: null },
      ...{ pitchMetres: null, polarityMark: null, boardNegativeDegrees: null, fixing: null, heatSource: null },
    }),
  );
  const fittedParts = board.parts.map(
    ({ at, entered }): FittedPart => ({
      ...{ id: `part-${at}`, positionId: at, ratedVolts: entered.volts, temperatureClassCelsius: 105 },
      capacitanceFarads: entered.microfarads * 1e-6,
      capacitorClass: entered.capacitorClass,
      diameterMetres: entered.can ? entered.can[0] / 1e3 : null,
      heightMetres: entered.can ? entered.can[1] / 1e3 : null,
      ...{ stripeDegrees: null, datasheetEsrOhms: null, toleranceRatio: null, series: null },
      ...{ origin: "found", fittedAt: null, removedAt: null },
    }),
  );
  const signs = board.parts.map(
    ({ at, isDomed }): SignObservation => ({
      ...{ fittedPartId: `part-${at}`, sign: "domed", sequence: 0, state: isDomed ? "seen" : "not_seen" },
      observedAt: "2026-01-01T00:00:00Z",
    }),
  );
  return { nets, positions, fittedParts, signs };
}

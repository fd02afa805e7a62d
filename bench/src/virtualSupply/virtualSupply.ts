import type { Scenario, ScenarioNet } from "@pale-cap/contract";
import { type CircuitBranch, sectionFacts } from "@pale-cap/core";
import { coldNetwork } from "./coldNetwork";
import { type NetCourse, type Operation, operate, ownHeatKelvin } from "./operation";
import type { ProbePoints } from "./probePoints";
import { truePart } from "./truePart";

/** What a hand does to the supply from outside. */
export interface SupplySettings {
  readonly isMainsOn: boolean;
  readonly lampWatts: number | null;
  readonly isIsolated: boolean;
  /** The electronic load: which net, and amperes or watts. */
  readonly load: { readonly net: string; readonly amps: number | null; readonly watts: number | null } | null;
  readonly drain: { readonly net: string; readonly ohms: number } | null;
}

const untouched: SupplySettings = { isMainsOn: false, lampWatts: null, isIsolated: false, load: null, drain: null };

/** Share of a held voltage that creeps back after a drain, and how fast. */
const soakRatio = 0.035;
const soakSeconds = 40;
/** Where a converter that ran lets go of its bulk, relative to drop-out. */
const lettingGoRatio = 0.7;

/**
 * One supply on the bench, in time: charge that stays and creeps back, cans that warm up, a fuse that blows. It asks
 * core how it runs and keeps nothing but its own state; the clock comes from outside, in seconds.
 */
export class VirtualSupply {
  private settings: SupplySettings = untouched;
  private at: number;
  private isFuseBlown = false;
  private readonly held = new Map<string, number>();
  private readonly soak = new Map<string, number>();
  private readonly celsius = new Map<string, number>();
  private known: { readonly key: string; readonly operation: Operation } | null = null;

  constructor(
    readonly scenario: Scenario,
    startSeconds: number,
  ) {
    this.at = startSeconds;
  }

  get state(): SupplySettings {
    return this.settings;
  }

  set(change: Partial<SupplySettings>, nowSeconds: number): void {
    this.advance(nowSeconds);
    this.settings = { ...this.settings, ...change };
    if (this.operation().blowsFuse) this.isFuseBlown = true;
    this.advance(nowSeconds);
  }

  /** How it runs now. Temperatures count in steps of 2 K, so that a warming can does not ask core anew at each reading. */
  operation(): Operation {
    const warm = this.scenario.capacitors.map((part) => Math.round(this.temperatureOf(part.at) / 2));
    const key = JSON.stringify([
      this.settings.isMainsOn,
      this.settings.lampWatts,
      this.settings.isIsolated,
      this.settings.load,
      this.isFuseBlown,
      warm,
    ]);
    if (this.known?.key === key) return this.known.operation;
    const operation = operate(this.scenario, {
      ...this.settings,
      isFuseBlown: this.isFuseBlown,
      loadAmps: this.loadAmps(),
      temperatureOf: (designator) => 2 * Math.round(this.temperatureOf(designator) / 2),
    });
    this.known = { key, operation };
    return operation;
  }

  /** A net now: as it runs, or as it was left behind. */
  net(name: string, nowSeconds: number): NetCourse {
    this.advance(nowSeconds);
    const running = this.settings.isMainsOn ? this.operation().nets.get(name) : undefined;
    if (running) return running;
    return {
      meanVolts: this.held.get(name) ?? 0,
      switching: null,
      switchingPeakToPeak: 0,
      mainsPeakToPeak: 0,
      pulses: null,
    };
  }

  /** Direct volts between two probes; nodes that are no nets float with their ground. */
  voltsBetween([red, black]: readonly [string, string], nowSeconds: number): number {
    const of = (node: string) =>
      this.scenario.nets.some((net) => net.name === node) ? this.net(node, nowSeconds).meanVolts : 0;
    return of(red) - of(black);
  }

  temperatureOf(designator: string): number {
    return this.celsius.get(designator) ?? this.scenario.thermal.ambientCelsius;
  }

  /** The board as a meter without power sees it. */
  coldNetwork(points: ProbePoints, frequencyHertz: number): readonly CircuitBranch[] {
    const devices = this.isFuseBlown
      ? this.scenario.devices.map((one) => (one.kind === "fuse" ? { ...one, condition: "open" as const } : one))
      : this.scenario.devices;
    return coldNetwork({ ...this.scenario, devices }, points, (at) => this.temperatureOf(at), frequencyHertz);
  }

  /** Total capacitance between two nodes, as a slow meter charges it. */
  chargedFarads(points: ProbePoints): number {
    const parts =
      points.capacitor && points.state !== "IN"
        ? [points.capacitor]
        : this.scenario.capacitors.filter((part) => part.net === points.nodes[0]);
    return parts.reduce((sum, part) => sum + truePart(part, this.temperatureOf(part.at), 100).capacitanceFarads, 1e-9);
  }

  private loadAmps(): ReadonlyMap<string, number> {
    const { load } = this.settings;
    if (!load) return new Map();
    const volts = this.scenario.nets.find((net) => net.name === load.net)?.nominalVolts ?? 1;
    return new Map([[load.net, load.amps ?? (load.watts ?? 0) / Math.max(volts, 0.1)]]);
  }

  private advance(nowSeconds: number): void {
    const seconds = Math.max(nowSeconds - this.at, 0);
    this.at = Math.max(nowSeconds, this.at);
    const operation = this.operation();
    this.warm(operation, seconds);
    for (const net of this.scenario.nets) {
      const running = this.settings.isMainsOn ? operation.nets.get(net.name) : undefined;
      if (running) this.hold(net, running, operation);
      else this.decay(net, seconds);
    }
  }

  private hold(net: ScenarioNet, { meanVolts }: NetCourse, operation: Operation): void {
    // A converter that ran empties its bulk down to where it lets go; one that never started leaves it full.
    const isBulk = net.section === "bulk" || net.section === "pfc";
    const left =
      isBulk && operation.state === "running"
        ? Math.min(meanVolts, this.scenario.dropoutBulkVolts * lettingGoRatio)
        : meanVolts;
    this.held.set(net.name, left);
    this.soak.set(net.name, soakRatio * meanVolts);
  }

  private decay(net: ScenarioNet, seconds: number): void {
    const volts = this.held.get(net.name) ?? 0;
    const parts = this.scenario.capacitors
      .filter((part) => part.net === net.name)
      .map((part) => truePart(part, this.temperatureOf(part.at), 100));
    const farads = parts.reduce((sum, one) => sum + one.capacitanceFarads, 1e-8);
    const { drain } = this.settings;
    const isDrained = drain?.net === net.name;
    const siemens =
      1 / (net.boardOhms ?? 1e9) +
      parts.reduce((sum, one) => sum + (one.leakageOhms === null ? 0 : 1 / one.leakageOhms), 0) +
      (isDrained ? 1 / drain.ohms : 0);
    const left = volts * Math.exp((-seconds * siemens) / farads);
    const soak = this.soak.get(net.name) ?? 0;
    const creeping = !isDrained && left < soak ? soak + (left - soak) * Math.exp(-seconds / soakSeconds) : left;
    this.held.set(net.name, creeping);
  }

  private warm(operation: Operation, seconds: number): void {
    const { ambientCelsius, timeConstantSeconds } = this.scenario.thermal;
    const full = this.scenario.nets.reduce(
      (sum, net) => sum + (sectionFacts[net.section].isMainsSide ? 0 : (net.fullLoadAmps ?? 0)),
      1e-9,
    );
    const drawn = [...this.loadAmps().values()].reduce((sum, amps) => sum + amps, 0);
    const loadRatio = operation.state === "running" ? Math.min(0.25 + drawn / full, 1) : 0;
    const share = 1 - Math.exp(-seconds / timeConstantSeconds);
    for (const part of this.scenario.capacitors) {
      const goal =
        ambientCelsius +
        part.nearbyHeatKelvin * loadRatio +
        ownHeatKelvin(part, operation.capacitorWatts.get(part.at) ?? 0);
      const now = this.temperatureOf(part.at);
      this.celsius.set(part.at, now + (goal - now) * share);
    }
  }
}

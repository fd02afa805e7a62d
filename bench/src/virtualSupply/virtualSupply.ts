import { bulkMiddle, type Scenario, type ScenarioNet } from "@pale-cap/contract";
import { type CircuitBranch, sectionFacts } from "@pale-cap/core";
import { coldNetwork } from "./coldNetwork";
import { ampsHeldAt, type NetCourse, type Operation, operate, ownHeatKelvin, partsOn } from "./operation";
import type { ProbePoints } from "./probePoints";
import { truePart } from "./truePart";

/** The node of what is on no board. */
const offTheBoard = "off the board";

/** A joint that opens in the cold does so below the one, one that opens with heat above the other; moved, it stays open so long. */
const [coldBelowCelsius, warmAboveCelsius, movedSeconds] = [10, 50, 20];

/** What one load takes: amperes or watts; with a swing between its amperes and others, so many times a second. */
export interface DrawnLoad {
  readonly net: string;
  readonly amps: number | null;
  readonly watts: number | null;
  /** Held there: what is drawn follows from the supply. */
  readonly volts: number | null;
  readonly swing: { readonly toAmps: number; readonly hertz: number } | null;
}

/** What a hand does to the supply from outside. */
export interface SupplySettings {
  readonly isMainsOn: boolean;
  readonly lampWatts: number | null;
  readonly isIsolated: boolean;
  /** The electronic loads that draw, by their number. */
  readonly loads: Readonly<Record<number, DrawnLoad>>;
  readonly drain: { readonly net: string; readonly ohms: number } | null;
}

const untouched: SupplySettings = { isMainsOn: false, lampWatts: null, isIsolated: false, loads: {}, drain: null };

/** Share of a held voltage that creeps back after a drain, and how fast. */
const soakRatio = 0.035;
const soakSeconds = 40;
/** What a load that is held by its volts takes of a rail that nothing feeds. */
const heldAmps = 1;
/** A load takes nothing below it. */
const leastLoadVolts = 0.4;
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
  /** The mains just went: rails stand until the bulk is down to drop-out. */
  private afterglow: { readonly operation: Operation; readonly from: number; readonly until: number } | null = null;
  private holdUp: number | null = null;
  private known: { readonly key: string; readonly operation: Operation } | null = null;
  /** Until when a contact that was moved stays open. */
  private readonly movedUntil = new Map<string, number>();
  /** Counts the changes of its parts. */
  private revision = 0;

  constructor(
    private board: Scenario,
    startSeconds: number,
  ) {
    this.at = startSeconds;
  }

  /** What is lifted or out: it is on the board no more. */
  private readonly offBoard = new Set<string>();
  private seen: Scenario | null = null;
  private running: Scenario | null = null;

  /** The supply as probes find it now: what is off the board stands by itself. */
  get scenario(): Scenario {
    this.seen ??= {
      ...this.board,
      capacitors: this.board.capacitors.map((part) => (this.isOff(part.at) ? { ...part, net: offTheBoard } : part)),
      devices: this.board.devices.map((one) =>
        this.isOff(one.at)
          ? { ...one, pins: Object.fromEntries(Object.keys(one.pins).map((pin) => [pin, `off ${one.at}.${pin}`])) }
          : one,
      ),
    };
    return this.seen;
  }

  /** As it runs: what is off the board is as good as open. */
  private get runningBoard(): Scenario {
    this.running ??= {
      ...this.board,
      capacitors: this.board.capacitors.filter((part) => !this.isOff(part.at)),
      devices: this.board.devices.map((one) => (this.isOff(one.at) ? { ...one, condition: "open" } : one)),
    };
    return this.running;
  }

  isOff(designator: string): boolean {
    return this.offBoard.has(designator);
  }

  /** Takes a part off the board, by a lead or as a whole, or puts it back. */
  setOff(designator: string, isOff: boolean, nowSeconds: number): void {
    this.advance(nowSeconds);
    if (isOff) this.offBoard.add(designator);
    else this.offBoard.delete(designator);
    this.alter((board) => board, nowSeconds);
  }

  /** The board with every part in its place. */
  get wholeBoard(): Scenario {
    return this.board;
  }

  /** Another part, another condition: what it holds and how warm it is stays. */
  alter(change: (board: Scenario) => Scenario, nowSeconds: number): void {
    this.advance(nowSeconds);
    this.board = change(this.board);
    this.seen = null;
    this.running = null;
    this.revision += 1;
    this.set({}, nowSeconds);
  }

  /** A new fuse is in. */
  replaceFuse(nowSeconds: number): void {
    this.isFuseBlown = false;
    this.alter((board) => board, nowSeconds);
  }

  get hasBlownFuse(): boolean {
    return this.isFuseBlown;
  }

  /** Blows it, as something outside knows that it would. */
  blowFuse(nowSeconds: number): void {
    this.isFuseBlown = true;
    this.alter((board) => board, nowSeconds);
  }

  /** An iron, a spray or warm air at one part: it goes back to its surroundings by itself. */
  bringTo(designator: string, celsius: number, nowSeconds: number): void {
    this.advance(nowSeconds);
    this.celsius.set(designator, celsius);
    this.revision += 1;
  }

  /** Somebody moves a contact: a bad one opens for a while. */
  move(designator: string, nowSeconds: number): void {
    this.advance(nowSeconds);
    this.movedUntil.set(designator, nowSeconds + movedSeconds);
    this.revision += 1;
  }

  /** Joints and contacts that are open now. */
  openSpots(): ReadonlySet<string> {
    return new Set(
      this.board.devices
        .filter(({ at, weak }) => {
          switch (weak?.opens) {
            case "always":
              return true;
            case "cold":
              return this.temperatureOf(at) < coldBelowCelsius;
            case "warm":
              return this.temperatureOf(at) > warmAboveCelsius;
            case "handled":
              return (this.movedUntil.get(at) ?? 0) > this.at;
            default:
              return false;
          }
        })
        .map(({ at }) => at),
    );
  }

  /** What a net holds, in joules. */
  joulesAt(name: string): number {
    const volts = this.held.get(name) ?? 0;
    return (this.faradsOn(name) * volts ** 2) / 2;
  }

  private faradsOn(name: string): number {
    const farads = this.board.capacitors
      .filter((part) => part.net === name)
      .map((part) => truePart(part, this.temperatureOf(part.at), 100).capacitanceFarads);
    const isInRow = this.board.isDoubler && this.board.nets.some((net) => net.name === name && net.section === "bulk");
    const sum = isInRow
      ? 1 / farads.reduce((all, one) => all + 1 / one, 1e-9)
      : farads.reduce((all, one) => all + one, 0);
    return sum + 1e-8;
  }

  get state(): SupplySettings {
    return this.settings;
  }

  set(change: Partial<SupplySettings>, nowSeconds: number): void {
    this.advance(nowSeconds);
    if (change.isMainsOn === false && this.settings.isMainsOn) this.leaveMains();
    if (change.isMainsOn === true) this.afterglow = null;
    this.settings = { ...this.settings, ...change };
    if (this.operation().blowsFuse) this.isFuseBlown = true;
    this.advance(nowSeconds);
  }

  /** How it runs now. Temperatures count in steps of 2 K, so that a warming can does not ask core anew at each reading. */
  operation(): Operation {
    const warm = this.scenario.capacitors.map((part) => Math.round(this.temperatureOf(part.at) / 2));
    const openSpots = this.openSpots();
    const key = JSON.stringify([
      this.settings.isMainsOn,
      this.settings.lampWatts,
      this.settings.isIsolated,
      this.settings.loads,
      this.isFuseBlown,
      this.revision,
      [...openSpots],
      warm,
    ]);
    if (this.known?.key === key) return this.known.operation;
    const operation = operate(this.runningBoard, {
      ...this.settings,
      isFuseBlown: this.isFuseBlown,
      loadAmps: this.loadAmps(),
      swings: this.swings(),
      openSpots: new Set([...openSpots, ...this.offBoard]),
      temperatureOf: (designator) => 2 * Math.round(this.temperatureOf(designator) / 2),
    });
    this.known = { key, operation };
    return operation;
  }

  /** A net now: as it runs, or as it was left behind. */
  net(name: string, nowSeconds: number): NetCourse {
    this.advance(nowSeconds);
    const running = this.settings.isMainsOn
      ? this.operation().nets.get(name)
      : this.afterglow?.operation.nets.get(name);
    if (running) return running;
    return {
      meanVolts: this.held.get(name) ?? 0,
      switching: null,
      switchingPeakToPeak: 0,
      mainsPeakToPeak: 0,
      pulses: null,
      swing: null,
    };
  }

  /** For how long the rails stood after the mains went the last time; null: it has not gone while it ran. */
  get holdUpSeconds(): number | null {
    return this.holdUp;
  }

  /** Direct volts between two probes; nodes that are no nets float with their ground. */
  voltsBetween([red, black]: readonly [string, string], nowSeconds: number): number {
    const of = (node: string): number => {
      if (node === bulkMiddle) return this.middleVolts(nowSeconds);
      return this.scenario.nets.some((net) => net.name === node) ? this.net(node, nowSeconds).meanVolts : 0;
    };
    return of(red) - of(black);
  }

  /** Between two halves in a row: the smaller one takes the larger share. */
  private middleVolts(nowSeconds: number): number {
    const net = this.scenario.nets.find((one) => one.section === "bulk");
    if (!net) return 0;
    const [upper = 1, lower = 1] = this.scenario.capacitors
      .filter((part) => part.net === net.name)
      .map((part) => truePart(part, this.temperatureOf(part.at), 100).capacitanceFarads);
    return (this.net(net.name, nowSeconds).meanVolts * upper) / (upper + lower);
  }

  temperatureOf(designator: string): number {
    return this.celsius.get(designator) ?? this.scenario.thermal.ambientCelsius;
  }

  /** The board as a meter without power sees it. */
  coldNetwork(points: ProbePoints, frequencyHertz: number): readonly CircuitBranch[] {
    const devices = this.isFuseBlown
      ? this.scenario.devices.map((one) => (one.kind === "fuse" ? { ...one, condition: "open" as const } : one))
      : this.scenario.devices;
    return coldNetwork(
      { ...this.scenario, devices },
      points,
      (at) => this.temperatureOf(at),
      frequencyHertz,
      this.openSpots(),
    );
  }

  /** Total capacitance between two nodes, as a slow meter charges it. */
  chargedFarads(points: ProbePoints): number {
    const parts =
      points.capacitor && points.state !== "IN"
        ? [points.capacitor]
        : this.scenario.capacitors.filter((part) => part.net === points.nodes[0]);
    return parts.reduce((sum, part) => sum + truePart(part, this.temperatureOf(part.at), 100).capacitanceFarads, 1e-9);
  }

  /** Amperes by net, of all loads together; a swing counts by its mean. */
  private loadAmps(): ReadonlyMap<string, number> {
    const drawn = new Map<string, number>();
    for (const { net: name, amps, watts, volts: held, swing } of Object.values(this.settings.loads)) {
      const net = this.scenario.nets.find((one) => one.name === name);
      const volts = net?.nominalVolts ?? 1;
      const own =
        held !== null && net ? ampsHeldAt(net, held) : (amps ?? (watts ?? 0) / Math.max(Math.abs(volts), 0.1));
      drawn.set(name, (drawn.get(name) ?? 0) + (swing ? (own + swing.toAmps) / 2 : own));
    }
    return drawn;
  }

  private swings(): ReadonlyMap<string, { readonly stepAmps: number; readonly hertz: number }> {
    return new Map(
      Object.values(this.settings.loads).flatMap(({ net, amps, swing }) =>
        swing ? [[net, { stepAmps: Math.abs(swing.toAmps - (amps ?? 0)), hertz: swing.hertz }] as const] : [],
      ),
    );
  }

  /** What the bulk holds above drop-out keeps the rails up for: t = C (V1^2 - V2^2) / 2 P. */
  private leaveMains(): void {
    const operation = this.operation();
    this.afterglow = null;
    this.holdUp = null;
    if (operation.state !== "running") return;
    const bulk = this.scenario.nets.filter((net) => net.section === "bulk" || net.section === "pfc");
    const volts = Math.max(
      ...bulk.map((net) => {
        const course = operation.nets.get(net.name);
        return (course?.meanVolts ?? 0) - (course?.mainsPeakToPeak ?? 0) / 2;
      }),
      0,
    );
    const farads = this.scenario.capacitors
      .filter((part) => bulk.some((net) => net.name === part.net))
      .reduce((sum, part) => sum + truePart(part, this.temperatureOf(part.at), 100).capacitanceFarads, 0);
    const joules = (farads * Math.max(volts ** 2 - this.scenario.dropoutBulkVolts ** 2, 0)) / 2;
    this.holdUp = joules / Math.max(operation.inputWatts, 0.1);
    this.afterglow = { operation, from: this.at, until: this.at + this.holdUp };
  }

  private advance(nowSeconds: number): void {
    const { afterglow } = this;
    if (afterglow && nowSeconds >= afterglow.until) {
      const rest = Math.max(afterglow.until, this.at);
      this.pass(rest);
      this.afterglow = null;
    }
    this.pass(nowSeconds);
  }

  private pass(nowSeconds: number): void {
    const seconds = Math.max(nowSeconds - this.at, 0);
    this.at = Math.max(nowSeconds, this.at);
    const operation = this.afterglow?.operation ?? this.operation();
    this.warm(operation, seconds);
    const runs = this.settings.isMainsOn || this.afterglow !== null;
    for (const net of this.scenario.nets) {
      const running = runs ? operation.nets.get(net.name) : undefined;
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
    const farads = this.faradsOn(net.name);
    const { drain } = this.settings;
    const isDrained = drain?.net === net.name;
    const siemens =
      1 / (net.boardOhms ?? 1e9) +
      parts.reduce((sum, one) => sum + (one.leakageOhms === null ? 0 : 1 / one.leakageOhms), 0) +
      (isDrained ? 1 / drain.ohms : 0);
    const left = this.loaded(net, volts * Math.exp((-seconds * siemens) / farads), seconds);
    const soak = this.soak.get(net.name) ?? 0;
    const isHeldDown = isDrained || this.drawnFrom(net).length > 0;
    const creeping = !isHeldDown && left < soak ? soak + (left - soak) * Math.exp(-seconds / soakSeconds) : left;
    this.held.set(net.name, creeping);
  }

  /** Both banks of a filter: what draws from one empties the other through the choke. */
  private isOfOneFilter(a: ScenarioNet, b: ScenarioNet): boolean {
    return a.name === b.name || a.behind === b.name || b.behind === a.name;
  }

  private drawnFrom(net: ScenarioNet): readonly DrawnLoad[] {
    const names = this.scenario.nets.filter((one) => this.isOfOneFilter(net, one)).map((one) => one.name);
    return Object.values(this.settings.loads).filter((one) => names.includes(one.net));
  }

  /** What the loads leave of a rail that nothing feeds: amperes in a straight line, watts by the energy. */
  private loaded(net: ScenarioNet, volts: number, seconds: number): number {
    const drawn = this.drawnFrom(net);
    if (drawn.length === 0 || volts <= leastLoadVolts) return volts;
    const nets = this.scenario.nets.filter((one) => this.isOfOneFilter(net, one));
    const farads = partsOn(this.scenario, nets).reduce(
      (sum, part) => sum + truePart(part, this.temperatureOf(part.at), 100).capacitanceFarads,
      1e-6,
    );
    const amps = drawn.reduce(
      (sum, one) => sum + (one.volts !== null && volts > one.volts ? heldAmps : (one.amps ?? 0)),
      0,
    );
    const watts = drawn.reduce((sum, one) => sum + (one.watts ?? 0), 0);
    const energy = volts ** 2 - (2 * watts * seconds) / farads;
    return Math.max(Math.sqrt(Math.max(energy, 0)) - (amps * seconds) / farads, leastLoadVolts);
  }

  private warm(operation: Operation, seconds: number): void {
    const { ambientCelsius, timeConstantSeconds, masses = [] } = this.scenario.thermal;
    const full = this.scenario.nets.reduce(
      (sum, net) => sum + (sectionFacts[net.section].isMainsSide ? 0 : (net.fullLoadAmps ?? 0)),
      1e-9,
    );
    const drawn = [...this.loadAmps().values()].reduce((sum, amps) => sum + amps, 0);
    const loadRatio = operation.state === "running" ? Math.min(0.25 + drawn / full, 1) : 0;
    const share = 1 - Math.exp(-seconds / timeConstantSeconds);
    const isTold = (at: string) =>
      masses.some((mass) => mass.at === at) || this.scenario.capacitors.some((part) => part.at === at);
    for (const [at, now] of this.celsius) {
      if (!isTold(at)) this.celsius.set(at, ambientCelsius + (now - ambientCelsius) * (1 - share));
    }
    for (const mass of masses) {
      const goal = ambientCelsius + mass.kelvinAtFullLoad * loadRatio;
      const now = this.temperatureOf(mass.at);
      this.celsius.set(mass.at, now + (goal - now) * (1 - Math.exp(-seconds / mass.timeConstantSeconds)));
    }
    for (const part of this.scenario.capacitors.filter((one) => !masses.some((mass) => mass.at === one.at))) {
      const goal =
        ambientCelsius +
        part.nearbyHeatKelvin * loadRatio +
        ownHeatKelvin(part, operation.capacitorWatts.get(part.at) ?? 0);
      const now = this.temperatureOf(part.at);
      this.celsius.set(part.at, now + (goal - now) * share);
    }
  }
}

import type {
  BenchEvent,
  Consequence,
  HandAct,
  HandAnswer,
  HandsState,
  InstrumentKind,
  Scenario,
  ScenarioCapacitor,
  Told,
} from "@pale-cap/contract";
import { actMinutes, sectionFacts, seededRandom } from "@pale-cap/core";
import type { Bench, SupplyHands } from "../instruments/bench";
import { CommandError } from "../instruments/commandError";
import { groundOf, type ProbePoints } from "../virtualSupply/probePoints";
import type { VirtualSupply } from "../virtualSupply/virtualSupply";
import type { PracticeSupply } from "./practiceSupply";

/** Above it a hand feels more than a tingle, and charge counts as dangerous. */
const touchVolts = 60;
/** A meter in its ohms or its capacitance range survives so many volts. */
const meterVolts = 30;
/** A reversed part takes no more than its oxide lets it, and not for long. */
const reverseVolts = 1.5;
const ventSeconds = 1.5;
/** Above its rating a part lasts while nobody looks. */
const overvoltRatio = 1.1;
/** What a vented part still has. */
const ventedOhms = 1.2;
const [ironCelsius, sprayCelsius, airCelsius] = [80, -20, 70];
/** Copper as large as a plane takes the heat: pulled too soon, the pad comes along. */
const planeShare = 0.3;
const mostRemovals = 2;
/** More than this at an output kills what hangs on it. */
const hostRatio = 1.1;
const leastHostRatio = 0.9;
/** Inrush that trips a breaker, through a thermistor that is still hot. */
const breakerAmps = 100;
const hotThermistorCelsius = 60;

type LastingPart = Pick<ScenarioCapacitor, "at" | "marking" | "capacitorClass" | "fate" | "looks">;

/** What a bench that was started anew is told, so that the supply is as it was. */
export interface Lasting {
  readonly parts: readonly LastingPart[];
  readonly devices: readonly {
    readonly at: string;
    readonly condition: "good" | "shorted" | "open";
    readonly isWhole: boolean;
  }[];
  readonly off: readonly string[];
  readonly lifted: readonly string[];
  readonly reversed: readonly string[];
  readonly renewed: readonly string[];
  readonly pulled: readonly string[];
  readonly removals: Readonly<Record<string, number>>;
  readonly dead: readonly InstrumentKind[];
  readonly isFuseBlown: boolean;
  readonly isHostDead: boolean;
  readonly isShortTested: boolean;
  readonly events: readonly BenchEvent[];
}

/**
 * What hands do to a practice supply, and what comes of it. Nothing here is a script: each consequence follows from what the
 * supply holds and how it runs at that moment.
 */
export class Hands implements SupplyHands {
  private readonly startedAt: number;
  private readonly reversed = new Set<string>();
  /** Lifted by one lead; the others off the board are out. */
  private readonly lifted = new Set<string>();
  private readonly pulled = new Set<string>();
  /** Parts that were put in new. */
  private readonly renewed = new Set<string>();
  private removals = new Map<string, number>();
  private dead = new Set<InstrumentKind>();
  private events: BenchEvent[] = [];
  private isShortTested = false;
  private areRailsRead = false;
  private clipped: string | null = null;
  private isHostOn = false;
  private isHostDead = false;
  private stressedSince = new Map<string, number>();
  private readonly touched = new Set<string>();

  constructor(
    private readonly bench: Bench,
    readonly practice: PracticeSupply,
  ) {
    this.startedAt = bench.now();
  }

  private get supply(): VirtualSupply {
    return this.bench.supply;
  }

  private get board(): Scenario {
    return this.supply.wholeBoard;
  }

  // Readings

  /** Before an instrument reads: a dead one reads nothing, and one that measures by its own current dies of charge. */
  beforeReading(kind: InstrumentKind, isByOwnCurrent: boolean, points: ProbePoints, volts: number): void {
    if (this.dead.has(kind)) throw new CommandError(-241, "It is dead: take a new one");
    if (!isByOwnCurrent) {
      if (kind === "multimeter" && this.supply.state.isMainsOn && !this.isHot(points.nodes[0]))
        this.areRailsRead = true;
      return;
    }
    if (Math.abs(volts) > meterVolts) {
      this.dead.add(kind);
      this.tell("meter_killed", points.text, volts, this.supply.joulesAt(points.nodes[0]));
      throw new CommandError(-241, `${Math.round(Math.abs(volts))} V on the probes: it is dead`);
    }
    if (kind === "multimeter" && points.nodes.some((node) => this.isHot(node))) this.isShortTested = true;
  }

  /** Why a part cannot be read as somebody says it lies; null: it can. */
  whyNotSo(points: ProbePoints): string | null {
    const at = points.capacitor?.at ?? points.part;
    if (at === "") return null;
    const isOff = this.supply.isOff(at);
    if (points.state === "IN" && isOff) return `${at} is off the board`;
    if (points.state !== "IN" && !isOff) return `${at} sits in the board: lift a lead first`;
    return null;
  }

  private isHot(node: string): boolean {
    const net = this.board.nets.find((one) => one.name === node);
    if (net) return sectionFacts[net.section].isMainsSide;
    const of = this.board.devices.filter((one) => Object.values(one.pins).includes(node));
    return of.some((one) =>
      Object.values(one.pins).some(
        (pin) =>
          this.board.nets.some((known) => known.name === pin && sectionFacts[known.section].isMainsSide) ||
          pin.startsWith("line") ||
          pin === "hot ground",
      ),
    );
  }

  // Acts

  do(act: HandAct): HandAnswer {
    const before = this.bench.now();
    const told = this.carryOut(act);
    this.tick();
    const isWaiting = act.kind === "wait";
    const passed = isWaiting && this.supply.state.isMainsOn ? (this.bench.now() - before) / 60 : 0;
    const kind = act.kind;
    return { told, minutes: actMinutes[kind] + passed, events: this.events, state: this.state };
  }

  private carryOut(act: HandAct): readonly Told[] {
    const at = act.at ?? null;
    switch (act.kind) {
      case "look":
        return this.look(at);
      case "smell":
        return [plain(this.practice.smell ? "smells" : "smells_of_nothing", null, this.practice.smell)];
      case "listen":
        return [plain(this.sound(), null)];
      case "wait":
        this.bench.wait(60 * (act.minutes ?? 1));
        return [plain("done", null)];
      case "mains":
        return this.mains(act.isOn === true, act.lampWatts ?? null, act.isIsolated === true);
      case "drain":
        return this.drain(at, act.ohms ?? null);
      case "clip":
        this.clipped = at;
        this.tripIfClipped();
        return [plain("done", at)];
      case "host":
        return this.host(act.isOn === true);
      case "load":
        return this.load(at, act.amps ?? 0);
      case "check":
        if (act.check === "lamps" && !this.isLit) return [plain("not_there", "lamps")];
        return [plain(this.isWell(act.check ?? "lead") ? "check_good" : "check_bad", act.check ?? null)];
      case "new_meter":
        this.dead = new Set();
        this.bench.takeProbesOff();
        return [plain("done", null)];
      default:
        return this.atPart(act, at);
    }
  }

  private atPart(act: HandAct, at: string | null): readonly Told[] {
    const can = this.board.capacitors.find((one) => one.at === at);
    const device = this.board.devices.find((one) => one.at === at);
    const name = can?.at ?? device?.at;
    if (!name) return [plain("not_there", at)];
    const now = this.bench.now();
    this.touch(name);
    switch (act.kind) {
      case "move": {
        this.supply.move(name, now);
        return [plain(this.supply.openSpots().has(name) ? "moved_changes" : "moved_nothing", name)];
      }
      case "cool":
        this.supply.bringTo(name, sprayCelsius, now);
        return [plain(this.supply.openSpots().has(name) ? "moved_changes" : "moved_nothing", name)];
      case "warm":
        this.supply.bringTo(name, airCelsius, now);
        return [plain(this.supply.openSpots().has(name) ? "moved_changes" : "moved_nothing", name)];
      case "lift":
      case "take_out":
        return this.takeOff(name, act.kind === "lift", act.isPreheated === true);
      case "put_back":
        if (!this.supply.isOff(name)) return [plain("not_so", name)];
        this.putOn(name);
        return [plain("done", name)];
      case "fit":
        return can && act.part ? this.fit(can, act.part) : [plain("not_so", name)];
      case "renew":
        return device ? this.renew(name) : [plain("not_so", name)];
      case "resolder":
        this.alterDevice(name, { weak: null, looks: null });
        return [plain("done", name)];
      case "clean":
        this.clean(name);
        return [plain("done", name)];
      case "mend":
        this.pulled.delete(name);
        if (!this.supply.isOff(name) || this.isFitted(name)) this.supply.setOff(name, false, now);
        return [plain("done", name)];
      default:
        return [plain("not_so", name)];
    }
  }

  private look(at: string | null): readonly Told[] {
    const seen = [
      ...this.board.capacitors.map((one) => [one.at, one.looks] as const),
      ...this.board.devices.map((one) => [one.at, one.looks ?? null] as const),
    ].filter(([name, looks]) => looks !== null && (at === null || name === at));
    if (seen.length === 0) return [plain("looks_clean", at)];
    return seen.map(([name, looks]) => plain("looks", name, looks));
  }

  private sound(): Told["code"] {
    const { state } = this.supply.operation();
    if (!this.supply.state.isMainsOn) return "silent";
    if (state === "hiccup") return "ticks";
    const ripple = this.board.nets.some((net) => {
      const course = this.supply.net(net.name, this.bench.now());
      return (
        !sectionFacts[net.section].isMainsSide && course.mainsPeakToPeak > 0.08 * Math.abs(net.nominalVolts ?? 1e9)
      );
    });
    if (ripple) return "hums";
    const isSwinging = this.board.nets.some((net) => {
      const course = this.supply.net(net.name, this.bench.now());
      return course.swing !== null || course.switchingPeakToPeak > 0.1 * Math.abs(net.nominalVolts ?? 1e9);
    });
    return isSwinging ? "whines" : "silent";
  }

  /** What stands at a part, and on the whole board while the mains is on, is met by whoever touches it. */
  private touch(name: string): void {
    const can = this.board.capacitors.find((one) => one.at === name);
    const device = this.board.devices.find((one) => one.at === name);
    const nodes = can ? [can.net] : Object.values(device?.pins ?? {});
    const now = this.bench.now();
    const met = nodes
      .filter((node) => this.board.nets.some((net) => net.name === node))
      .map((node) => ({ node, volts: this.supply.voltsBetween([node, groundOf(this.board, node)], now) }))
      .sort((a, b) => Math.abs(b.volts) - Math.abs(a.volts))[0];
    const isAcrossMains = this.supply.state.isMainsOn && nodes.some((node) => node.startsWith("line"));
    const volts = isAcrossMains ? this.board.mains.voltsRms * Math.SQRT2 : Math.abs(met?.volts ?? 0);
    if (volts < touchVolts) {
      this.touched.delete(name);
      return;
    }
    // Met once, told once: until it was away.
    if (this.touched.has(name)) return;
    this.touched.add(name);
    this.tell("live_touch", name, volts, met ? this.supply.joulesAt(met.node) : null);
  }

  private takeOff(name: string, isLift: boolean, isPreheated: boolean): readonly Told[] {
    if (this.supply.isOff(name)) return [plain("not_so", name)];
    const now = this.bench.now();
    const count = (this.removals.get(name) ?? 0) + (isLift ? 0.5 : 1);
    this.removals.set(name, count);
    if (!isPreheated && (this.isOnPlane(name) || count > mostRemovals) && !this.pulled.has(name)) {
      this.pulled.add(name);
      this.tell("pad_pulled", name, null, null);
    }
    if (isLift) this.lifted.add(name);
    this.supply.setOff(name, true, now);
    // The iron warms it through: what it reads now is not what it will read cold.
    this.supply.bringTo(name, ironCelsius, now);
    this.isShortTested = false;
    return [plain("done", name)];
  }

  /** Large copper under a joint: the same places on the same supply. */
  private isOnPlane(name: string): boolean {
    const salt = [...name].reduce((sum, letter) => sum * 31 + letter.charCodeAt(0), this.board.seed) % 100_003;
    return seededRandom(salt)() < planeShare;
  }

  private readonly fittedAt = new Set<string>();

  private isFitted(name: string): boolean {
    return this.fittedAt.has(name);
  }

  private putOn(name: string): void {
    this.lifted.delete(name);
    this.fittedAt.add(name);
    this.supply.bringTo(name, ironCelsius, this.bench.now());
    // On a pulled pad it stands, and is connected to nothing.
    if (!this.pulled.has(name)) this.supply.setOff(name, false, this.bench.now());
  }

  private fit(can: ScenarioCapacitor, part: NonNullable<HandAct["part"]>): readonly Told[] {
    if (!this.supply.isOff(can.at) || this.lifted.has(can.at)) return [plain("not_so", can.at)];
    const now = this.bench.now();
    this.supply.alter(
      (board) => ({
        ...board,
        capacitors: board.capacitors.map((one) =>
          one.at === can.at
            ? {
                ...one,
                marking: [part.microfarads, part.volts, 105],
                capacitorClass: part.capacitorClass,
                fate: { mode: "new", amount: 1, seriesRatio: 1 },
                looks: null,
              }
            : one,
        ),
      }),
      now,
    );
    if (part.isReversed) this.reversed.add(can.at);
    else this.reversed.delete(can.at);
    this.renewed.add(can.at);
    this.putOn(can.at);
    return [plain("done", can.at)];
  }

  private renew(name: string): readonly Told[] {
    const device = this.board.devices.find((one) => one.at === name);
    this.alterDevice(name, { condition: "good", looks: null, ...(device?.kind === "connector" ? { weak: null } : {}) });
    if (device?.kind === "fuse") this.supply.replaceFuse(this.bench.now());
    this.renewed.add(name);
    this.isShortTested = false;
    this.putOn(name);
    return [plain("done", name)];
  }

  /** What conducts where nothing should goes with the glue. */
  private clean(name: string): void {
    const device = this.board.devices.find((one) => one.at === name);
    if (device?.role === "glue") this.alterDevice(name, { condition: "open", looks: null });
  }

  private alterDevice(name: string, change: Partial<Scenario["devices"][number]>): void {
    this.supply.alter(
      (board) => ({ ...board, devices: board.devices.map((one) => (one.at === name ? { ...one, ...change } : one)) }),
      this.bench.now(),
    );
  }

  private mains(isOn: boolean, lampWatts: number | null, isIsolated: boolean): readonly Told[] {
    const now = this.bench.now();
    const wasOn = this.supply.state.isMainsOn;
    const isDirect = this.board.topology === "buck";
    const bulkVolts = Math.max(
      0,
      ...this.board.nets
        .filter((net) => net.section === "bulk" || net.section === "pfc")
        .map((net) => this.supply.net(net.name, now).meanVolts),
    );
    if (!isOn) {
      this.supply.set({ isMainsOn: false, lampWatts, isIsolated }, now);
      this.isHostOn = false;
      this.areRailsRead = false;
      return [plain("done", null)];
    }
    if (!wasOn && !isDirect && lampWatts === null) {
      if (!this.isShortTested) this.tell("power_untested", null, this.board.mains.voltsRms * Math.SQRT2, null);
      if (this.isInrushTooMuch(bulkVolts)) {
        this.tell("breaker_tripped", null, null, null);
        return [plain("no_lamp_nothing", null)];
      }
    }
    const wasBlown = this.supply.hasBlownFuse;
    this.areRailsRead = false;
    const shorted = this.shortedTransistors();
    this.supply.set({ isMainsOn: true, lampWatts, isIsolated }, now);
    if (this.trippedByEarth()) return [plain("no_lamp_nothing", null)];
    this.tripIfClipped();
    if (this.supply.hasBlownFuse && !wasBlown) this.burn(shorted);
    return [this.afterSwitchOn(lampWatts, bulkVolts)];
  }

  private shortedTransistors(): ReadonlySet<string> {
    return new Set(
      this.board.devices.filter((one) => one.kind === "transistor" && one.condition === "shorted").map((one) => one.at),
    );
  }

  /** The fuse went: what was driven into its own short went with it. */
  private burn(before: ReadonlySet<string>): void {
    this.tell("fuse_blown", this.board.devices.find((one) => one.kind === "fuse")?.at ?? null, null, null);
    const isDriven = (role: string | undefined) =>
      this.board.devices.some(
        (one) =>
          one.condition === "shorted" &&
          ((one.kind === "ic" && (one.role === undefined || one.role === "main") && role !== "boost") ||
            (one.kind === "diode" && one.role === "boost" && role === "boost")),
      );
    for (const one of this.board.devices) {
      if (one.kind !== "transistor" || one.role === "synchronous" || before.has(one.at)) continue;
      if (one.condition !== "good" || !isDriven(one.role)) continue;
      this.alterDevice(one.at, { condition: "shorted" });
      this.tell(this.renewed.has(one.at) ? "new_part_burnt" : "transistor_burnt", one.at, null, null);
    }
  }

  private isInrushTooMuch(bulkVolts: number): boolean {
    const ntc = this.board.devices.find((one) => one.kind === "ntc");
    if (!ntc || this.supply.temperatureOf(ntc.at) < hotThermistorCelsius) return false;
    const peak = this.board.mains.voltsRms * Math.SQRT2 - bulkVolts;
    return peak / (this.board.mains.sourceOhms + 0.1 * (ntc.ohms ?? 8)) > breakerAmps;
  }

  private trippedByEarth(): boolean {
    const leak = this.board.devices.some(
      (one) => one.kind === "varistor" && one.condition === "shorted" && Object.values(one.pins).includes("earth"),
    );
    if (!leak || this.supply.state.isIsolated || !this.supply.state.isMainsOn) return false;
    this.supply.set({ isMainsOn: false }, this.bench.now());
    this.tell("earth_trip", null, null, null);
    return true;
  }

  /** A scope's clip is earth: on hot ground it is a short of the mains through the lead, unless a transformer parts the two. */
  private tripIfClipped(): void {
    if (this.clipped === null || !this.isHot(this.clipped)) return;
    const { isMainsOn, isIsolated } = this.supply.state;
    if (!isMainsOn || isIsolated || this.board.topology === "buck") return;
    this.supply.set({ isMainsOn: false }, this.bench.now());
    this.tell("bench_tripped", this.clipped, this.board.mains.voltsRms * Math.SQRT2, null);
  }

  private afterSwitchOn(lampWatts: number | null, bulkVolts: number): Told {
    const { state, inputWatts } = this.supply.operation();
    if (lampWatts === null) return plain(state === "running" ? "no_lamp_runs" : "no_lamp_nothing", null);
    const isCharged = bulkVolts > 0.8 * this.board.mains.voltsRms;
    const flashRatio = state === "no_bulk" ? 0 : state === "shorted" ? 1 : isCharged ? 0.1 : 0.9;
    const glowRatio = state === "shorted" ? 1 : Math.min((inputWatts / lampWatts) ** 0.5, 1);
    return { ...plain("lamp", null), flashRatio, glowRatio: state === "no_bulk" ? 0 : glowRatio };
  }

  private drain(at: string | null, ohms: number | null): readonly Told[] {
    const net = this.board.nets.find((one) => one.name === at);
    if (at !== null && !net) return [plain("not_there", at)];
    this.supply.set({ drain: net && ohms ? { net: net.name, ohms } : null }, this.bench.now());
    return [plain("done", at)];
  }

  private load(at: string | null, amps: number): readonly Told[] {
    const net = this.board.nets.find((one) => one.name === at && one.fullLoadAmps !== null);
    if (!net) return [plain("not_there", at)];
    const channel = 10 + this.board.nets.indexOf(net);
    const { [channel]: _, ...loads } = this.supply.state.loads;
    const drawn = { net: net.name, amps, watts: null, volts: null, swing: null };
    this.supply.set({ loads: amps > 0 ? { ...loads, [channel]: drawn } : loads }, this.bench.now());
    return [plain("done", at)];
  }

  /** Outputs that a device hangs on. */
  private get outputs() {
    return this.board.nets.filter((net) => !sectionFacts[net.section].isMainsSide && (net.fullLoadAmps ?? 0) > 0);
  }

  private host(isOn: boolean): readonly Told[] {
    if (!isOn) {
      this.isHostOn = false;
      return [plain("done", null)];
    }
    const now = this.bench.now();
    if (!this.areRailsRead) this.tell("host_unchecked", null, null, null);
    this.isHostOn = true;
    this.killHost();
    for (const net of this.outputs) this.load(net.name, 0.8 * (net.fullLoadAmps ?? 0));
    this.bench.wait(5);
    const isFed = this.outputs.every((net) => {
      const volts = this.supply.net(net.behind ?? net.name, now).meanVolts;
      return Math.abs(volts) >= leastHostRatio * Math.abs(net.nominalVolts ?? 0);
    });
    const { state } = this.supply.operation();
    for (const net of this.outputs) this.load(net.name, 0);
    const works = isFed && state === "running" && !this.isHostDead && this.practice.outside === null && this.isCalm();
    return [plain(works ? "host_works" : "host_fails", null)];
  }

  /** A device resets on ripple as well as on too few volts. */
  private isCalm(): boolean {
    return this.outputs.every((net) => {
      const course = this.supply.net(net.name, this.bench.now());
      return course.switchingPeakToPeak + course.mainsPeakToPeak < 0.15 * Math.abs(net.nominalVolts ?? 1);
    });
  }

  private killHost(): void {
    if (!this.isHostOn || this.isHostDead) return;
    const high = this.outputs.find(
      (net) =>
        Math.abs(this.supply.net(net.name, this.bench.now()).meanVolts) > hostRatio * Math.abs(net.nominalVolts ?? 1e9),
    );
    if (!high) return;
    this.isHostDead = true;
    this.tell("host_killed", high.name, this.supply.net(high.name, this.bench.now()).meanVolts, null);
  }

  private get isLit(): boolean {
    return ["television", "monitor"].includes(this.practice.deviceKind);
  }

  private isWell(check: NonNullable<HandAct["check"]>): boolean {
    const { outside } = this.practice;
    if (check === "bench_feed" || check === "swap") return outside !== "bench_feed" && outside !== "lamps";
    if (check === "output_lead") {
      return (
        !this.board.devices.some((one) => one.kind === "connector" && one.weak?.opens === "always") && outside !== check
      );
    }
    return outside !== check;
  }

  // What happens by itself

  /** Looks at what the supply does to its parts; called by the bench's clock and after every act. */
  tick(): void {
    const now = this.bench.now();
    for (const can of this.board.capacitors) {
      const volts = this.supply.isOff(can.at) ? 0 : this.supply.net(can.net, now).meanVolts;
      const isReversed = this.reversed.has(can.at) && Math.abs(volts) > reverseVolts;
      const isOver = this.renewed.has(can.at) && Math.abs(volts) > overvoltRatio * (can.marking[1] ?? 1e9);
      if (!isReversed && !isOver) {
        this.stressedSince.delete(can.at);
        continue;
      }
      const since = this.stressedSince.get(can.at) ?? now;
      this.stressedSince.set(can.at, since);
      if (now - since < (isReversed ? ventSeconds : 20 * ventSeconds)) continue;
      this.vent(can.at, isReversed ? "part_vented" : "overvolted", volts);
    }
    this.killHost();
  }

  private vent(at: string, code: Consequence, volts: number): void {
    this.stressedSince.delete(at);
    this.reversed.delete(at);
    this.supply.alter(
      (board) => ({
        ...board,
        capacitors: board.capacitors.map((one) =>
          one.at === at
            ? {
                ...one,
                fate: { mode: "short", amount: ventedOhms, seriesRatio: 1 },
                looks: "vent open, wet, paper hangs out",
              }
            : one,
        ),
      }),
      this.bench.now(),
    );
    this.tell(code, at, volts, null);
  }

  private tell(code: Consequence, at: string | null, volts: number | null, joules: number | null): void {
    this.events = [
      ...this.events,
      {
        ...{ sequence: this.events.length + 1, code, at, joules },
        volts: volts === null ? null : Math.round(Math.abs(volts) * 10) / 10,
        benchSeconds: Math.round(this.bench.now() - this.startedAt),
      },
    ];
  }

  // How it stands

  get state(): HandsState {
    const { isMainsOn, lampWatts, isIsolated, drain, loads } = this.supply.state;
    const all = [...this.board.capacitors, ...this.board.devices].map((one) => one.at);
    return {
      ...{ isMainsOn, lampWatts, isIsolated, drain },
      isMeterDead: this.dead.size > 0,
      isClipped: this.clipped,
      isHostOn: this.isHostOn,
      loads: Object.values(loads).map(({ net, amps }) => ({ net, amps: amps ?? 0 })),
      lifted: all.filter((at) => this.lifted.has(at)),
      out: all.filter((at) => this.supply.isOff(at) && !this.lifted.has(at) && !this.fittedAt.has(at)),
      pulled: all.filter((at) => this.pulled.has(at)),
    };
  }

  get happened(): readonly BenchEvent[] {
    return this.events;
  }

  get lasting(): Lasting {
    const { scenario } = this.practice;
    return {
      parts: this.board.capacitors
        .filter(
          (one) => this.renewed.has(one.at) || one.looks !== scenario.capacitors.find(({ at }) => at === one.at)?.looks,
        )
        .map(({ at, marking, capacitorClass, fate, looks }) => ({ at, marking, capacitorClass, fate, looks })),
      devices: this.board.devices
        .filter((one) => {
          const was = scenario.devices.find(({ at }) => at === one.at);
          return was?.condition !== one.condition || (was?.weak ?? null) !== (one.weak ?? null);
        })
        .map(({ at, condition, weak }) => ({ at, condition, isWhole: (weak ?? null) === null })),
      off: this.state.out,
      lifted: [...this.lifted],
      reversed: [...this.reversed],
      renewed: [...this.renewed],
      pulled: [...this.pulled],
      removals: Object.fromEntries(this.removals),
      dead: [...this.dead],
      isFuseBlown: this.supply.hasBlownFuse,
      isHostDead: this.isHostDead,
      isShortTested: this.isShortTested,
      events: this.events,
    };
  }

  /** Brings the supply back to where it was before its bench was started anew; what it held meanwhile is gone. */
  restore(lasting: Lasting): void {
    const now = this.bench.now();
    this.supply.alter(
      (board) => ({
        ...board,
        capacitors: board.capacitors.map((one) => ({ ...one, ...lasting.parts.find(({ at }) => at === one.at) })),
        devices: board.devices.map((one) => {
          const changed = lasting.devices.find(({ at }) => at === one.at);
          return changed ? { ...one, condition: changed.condition, ...(changed.isWhole ? { weak: null } : {}) } : one;
        }),
      }),
      now,
    );
    const fill = (set: Set<string>, from: readonly string[]) => {
      for (const one of from) set.add(one);
    };
    fill(this.lifted, lasting.lifted);
    fill(this.reversed, lasting.reversed);
    fill(this.renewed, lasting.renewed);
    fill(this.pulled, lasting.pulled);
    this.removals = new Map(Object.entries(lasting.removals));
    this.dead = new Set(lasting.dead);
    this.isHostDead = lasting.isHostDead;
    this.isShortTested = lasting.isShortTested;
    this.events = [...lasting.events];
    for (const at of [...lasting.off, ...lasting.lifted]) this.supply.setOff(at, true, now);
    if (lasting.isFuseBlown) this.supply.blowFuse(now);
  }
}

const plain = (code: Told["code"], at: string | null, words: string | null = null): Told => ({ code, at, words });

/** Lays a supply on a bench, with hands that work on it. */
export function practise(bench: Bench, supply: PracticeSupply): Hands {
  bench.practise(supply.scenario);
  const hands = new Hands(bench, supply);
  bench.hands = hands;
  return hands;
}

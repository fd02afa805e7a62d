import {
  actName,
  type BenchEvent,
  foldHouseRules,
  type HandAct,
  type HandAnswer,
  jobRules,
  parseNumberAnswer,
  parseWaveform,
} from "@pale-cap/contract";
import {
  areTipsFirst,
  type CircuitState,
  emptyJobFacts,
  entropyBits,
  itemChances,
  type JobFacts,
  JobJudge,
  type JobJudgement,
  nextTargets,
  notStored,
  probingMinutes,
  type QuantityKind,
  type Reading,
  type SignObservation,
  sectionFacts,
} from "@pale-cap/core";
import { instruments } from "../instruments";
import { Bench } from "../instruments/bench";
import { LineSession } from "../protocol/lineSession";
import { type Hands, practise } from "./hands";
import { practiceFacts } from "./practiceBoard";
import type { PracticeSupply } from "./practiceSupply";

const rules = jobRules(foldHouseRules([]));
/** Nobody goes on for less than this: bits of expected information in a minute. */
const leastBitsPerMinute = 0.05;
const mostSteps = 90;
/** A drain resistor that empties any bulk of these in a minute, and the lamp of the bench. */
const [drainOhms, lampWatts] = [2200, 60];
const drainedVolts = 5;
/** Cooling after the iron, before a part is read. */
const coolMinutes = 12;

const readers: Readonly<
  Partial<Record<QuantityKind, readonly [kind: keyof typeof instruments, word: string, hertz: number]>>
> = {
  esr: ["lcr", "ESR", 100e3],
  capacitance: ["lcr", "CAP", 120],
  voltage_loss: ["lcr", "VLOS", 120],
  resistance: ["multimeter", "OHMS", 0],
  diode_drop: ["multimeter", "DIOD", 0],
  dc_voltage: ["multimeter", "DCV", 0],
};

/** One thing that was done, what it took and what it told. */
export interface PolicyAct {
  readonly what: "hands" | "reading";
  /** The kind of hand act, or the quantity. */
  readonly kind: string;
  readonly at: string | null;
  readonly terminals: string | null;
  readonly circuitState: CircuitState | null;
  readonly value: number | null;
  readonly minutes: number;
  /** By how much the doubt about all items fell. */
  readonly bits: number;
}

export interface PolicyRun {
  readonly acts: readonly PolicyAct[];
  readonly minutes: number;
  readonly chances: ReadonlyMap<string, number>;
  /** What came of it on the bench. */
  readonly happened: readonly BenchEvent[];
}

/**
 * The application's own way through a practice supply: asks the owner, looks, tries what stands around it, drains, reads what
 * `nextTargets` proposes until nothing is worth it, then powers it through a lamp and reads the rails. It knows nothing that a
 * job does not know, and reads by the instruments alone.
 */
export class Practiser {
  readonly bench: Bench;
  private readonly hands: Hands;
  private readonly sessions: Readonly<Record<keyof typeof instruments, LineSession>>;
  private clock = 0;
  private facts: JobFacts;
  private readonly judge: JobJudge;
  private acts: PolicyAct[] = [];
  private count = 0;
  private isDrained = false;
  private doubt: number;
  private judged: JobJudgement;
  private readonly lifted = new Set<string>();
  private readonly refused = new Set<string>();

  constructor(private readonly supply: PracticeSupply) {
    this.bench = new Bench([supply.scenario], () => this.clock);
    this.hands = practise(this.bench, supply);
    this.sessions = Object.fromEntries(
      Object.entries(instruments).map(([kind, make]) => [kind, new LineSession(make(this.bench))]),
    ) as typeof this.sessions;
    this.facts = {
      ...emptyJobFacts,
      ...practiceFacts(supply),
      complaint: supply.story,
      device: { kind: supply.deviceKind, topology: supply.scenario.builtAs ?? null, ageYears: null },
      symptoms: supply.symptoms,
    };
    this.judge = new JobJudge(this.facts, rules);
    this.judged = this.judge.judge();
    this.doubt = this.doubtNow();
    // It came in as its owner left it: plugged in an hour ago.
    this.hand({ kind: "look", at: null });
  }

  *steps(): Generator<void, PolicyRun> {
    this.lookAround();
    this.tryAround();
    yield;
    this.drain();
    this.sessions.lcr.take("CORR:SHOR");
    yield* this.readCold();
    this.confirmShorts();
    yield* this.readCold();
    this.moveContacts();
    this.power();
    yield* this.readCold();
    const chances = itemChances(this.facts, this.judged);
    return {
      acts: this.acts,
      minutes: this.acts.reduce((sum, one) => sum + one.minutes, 0),
      chances,
      happened: this.hands.happened,
    };
  }

  private lookAround(): void {
    const signs: SignObservation[] = [];
    for (const [at, seen] of Object.entries(this.supply.signs)) {
      const part = this.facts.fittedParts.find((one) => one.positionId === at);
      for (const sign of seen) {
        const subject = part ? { fittedPartId: part.id } : { fittedPartId: null, positionId: at };
        signs.push({ ...subject, sign, state: "seen", observedAt: this.now, sequence: ++this.count });
      }
    }
    if (signs.length > 0) this.learn({ signs: [...this.facts.signs, ...signs] });
  }

  /** What can be tried without opening it. */
  private tryAround(): void {
    const isLit = this.supply.deviceKind === "television" || this.supply.deviceKind === "monitor";
    const checks = [
      ["lead", "leadAndFuse"],
      ["output_lead", "outputLead"],
      ...(isLit ? [["lamps", "lamps"]] : []),
      ["bench_feed", "benchFeed"],
    ] as [NonNullable<HandAct["check"]>, keyof JobFacts["intake"]["checks"]][];
    for (const [check, field] of checks) {
      const [told] = this.hand({ kind: "check", check }).told;
      const word = told?.code === "check_good" ? "good" : "bad";
      const checked = { ...this.facts.intake, checks: { ...this.facts.intake.checks, [field]: word } };
      this.learn({ intake: checked, isSupplyChecked: true });
    }
  }

  private drain(): void {
    if (this.supply.scenario.topology !== "buck") {
      for (const net of this.supply.scenario.nets.filter((one) => one.section === "bulk" || one.section === "pfc")) {
        this.hand({ kind: "drain", at: net.name, ohms: drainOhms });
        this.hand({ kind: "wait", minutes: 2 });
        for (let n = 0; n < 5 && Math.abs(this.volts(net.name)) > drainedVolts; n++)
          this.hand({ kind: "wait", minutes: 2 });
        this.hand({ kind: "drain", at: null, ohms: null });
      }
    }
    this.isDrained = true;
  }

  private *readCold(): Generator<void, void> {
    for (let n = 0; n < mostSteps; n++) {
      yield;
      if (areTipsFirst(this.judged.judgements)) {
        this.log({ targetKind: "unit", targetId: "unit", quantity: "esr", value: 0, frequencyHertz: 100e3 });
        continue;
      }
      const gains = this.judged.explanation?.gains;
      const best = nextTargets({
        facts: this.facts,
        judgements: this.judged.judgements,
        deviceKind: this.supply.deviceKind,
        strategy: "failed_only",
        isChargeVerified: this.isDrained,
        ...(gains ? { gains } : {}),
      }).find((one) => !this.refused.has(keyOf(one.positionId, one.quantity, one.terminals, one.circuitState)));
      if (!best || best.gainBits / best.minutes < leastBitsPerMinute) break;
      this.take(best.positionId, best.quantity, best.circuitState, best.terminals);
    }
    for (const at of this.lifted) this.hand({ kind: "put_back", at });
    this.lifted.clear();
  }

  private take(at: string, quantity: QuantityKind, circuitState: CircuitState, terminals: string | null): void {
    const known = readers[quantity];
    const key = keyOf(at, quantity, terminals, circuitState);
    this.refused.add(key);
    if (!known) return;
    const [kind, word, hertz] = known;
    if (circuitState !== "in_circuit" && !this.lifted.has(at)) {
      this.hand({ kind: "lift", at, isPreheated: true });
      this.lifted.add(at);
      this.hand({ kind: "wait", minutes: coolMinutes });
    }
    if (circuitState === "in_circuit" && this.lifted.has(at)) {
      this.hand({ kind: "put_back", at });
      this.lifted.delete(at);
      this.hand({ kind: "wait", minutes: coolMinutes });
    }
    const state = circuitState === "in_circuit" ? "IN" : "LIFTED";
    const points = terminals?.includes(",")
      ? terminals
          .split(",")
          .map((pin) => `${at}.${pin}`)
          .join(",")
      : at;
    const session = this.sessions[kind];
    if (hertz > 0) session.take(`FREQ ${hertz}`);
    session.take("*CLS");
    session.take(`ROUT:PROB ${points},${state}`);
    this.clock += 25;
    const raw = session.take(`MEAS:${word}?`) ?? "";
    if (!session.take("SYST:ERR?")?.startsWith("0,")) return;
    const answer = parseNumberAnswer(raw);
    const value = answer.kind === "value" ? answer.value : null;
    const part = this.facts.fittedParts.find((one) => one.positionId === at);
    const isPowered = this.bench.supply.state.isMainsOn;
    this.log({
      ...{ targetKind: "part", targetId: at, fittedPartId: part?.id ?? null, quantity, value, terminals, circuitState },
      ...{ coarseCode: value === null ? "over_range" : null, frequencyHertz: hertz > 0 ? hertz : null, isPowered },
    });
  }

  /** What reads a short in circuit may be its neighbour's: each is read once more with a lead up, the surest first. */
  private confirmShorts(): void {
    const shorted = [...this.judged.devices.values()].flatMap(({ positionId, verdict, lines }) => {
      const low = lines.filter((one) => one.outcome === "bad" && one.reading?.value != null && !one.test.isLive);
      return verdict === "failed" ? low.map((one) => ({ at: positionId, test: one.test })) : [];
    });
    for (const { at, test } of shorted) this.take(at, test.quantity, "lead_lifted", test.terminals);
    // With the shorted ones off the board the others show what they are.
    const still = [...this.judged.devices.values()]
      .filter((one) => one.verdict === "failed")
      .map((one) => one.positionId);
    for (const at of this.lifted) if (!still.includes(at)) this.hand({ kind: "put_back", at });
    for (const at of still) this.lifted.delete(at);
  }

  /** A complaint that comes and goes is provoked: each contact and each joint that looks bad is moved and cooled. */
  private moveContacts(): void {
    if (!this.supply.symptoms.includes("intermittent")) return;
    const contacts = this.supply.scenario.devices.filter((one) => one.kind === "connector").map((one) => one.at);
    for (const at of contacts) {
      const [told] = this.hand({ kind: "move", at }).told;
      if (told?.code === "moved_changes") {
        const sign = { fittedPartId: null, positionId: at, sign: "cracked_joint", state: "seen" } as const;
        this.learn({ signs: [...this.facts.signs, { ...sign, observedAt: this.now, sequence: ++this.count }] });
      }
    }
  }

  /** Through the lamp, as long as nothing on the way of the mains reads shorted; then the rails, without load and with it. */
  private power(): void {
    const { scenario } = this.supply;
    const fuse = scenario.devices.find((one) => one.kind === "fuse");
    const isShorted = [...this.judged.devices.values()].some(
      (one) => one.verdict === "failed" && one.positionId !== fuse?.at && this.isInThePrimary(one.positionId),
    );
    const isFuseOpen = this.judged.devices.get(fuse?.at ?? "")?.verdict === "failed";
    if (isShorted || isFuseOpen) return;
    this.hand({
      kind: "mains",
      isOn: true,
      lampWatts: scenario.topology === "buck" ? null : lampWatts,
      isIsolated: true,
    });
    if (!this.bench.supply.state.isMainsOn) return;
    this.clock += 5;
    const outputs = scenario.nets.filter((one) => (one.fullLoadAmps ?? 0) > 0);
    const isRunning = outputs.some((net) => Math.abs(this.volts(net.name)) > 0.5 * Math.abs(net.nominalVolts ?? 0));
    if (isRunning && scenario.topology !== "buck") {
      this.hand({ kind: "mains", isOn: true, lampWatts: null, isIsolated: true });
    }
    this.clock += 5;
    for (const net of outputs) this.readRail(net.name, 0);
    for (const net of scenario.nets.filter((one) => one.section === "pfc")) {
      const [part] = scenario.capacitors.filter((one) => one.net === net.name);
      if (part) this.take(part.at, "dc_voltage", "in_circuit", null);
    }
    if (isRunning) {
      for (const net of outputs) {
        this.hand({ kind: "load", at: net.name, amps: net.fullLoadAmps });
        this.clock += 3;
        this.readRail(net.name, net.fullLoadAmps ?? 0);
        this.hand({ kind: "load", at: net.name, amps: 0 });
      }
    } else {
      const chip = scenario.devices.find((one) => one.kind === "ic" && one.pins.VCC === scenario.control.net);
      if (chip) this.readLeastAndMost(chip.at, "VCC,GND", scenario.control.net);
    }
    for (const one of scenario.devices.filter(({ kind }) => kind === "regulator")) {
      // A meter that keeps least and most swallows the ripple of the switching: twice its mean.
      const volts = this.volts(one.pins.OUT ?? "");
      this.logLeastAndMost(one.at, "OUT,GND", volts, volts);
    }
    this.hand({ kind: "mains", isOn: false });
    this.isDrained = false;
    this.drain();
  }

  private isInThePrimary(at: string): boolean {
    const device = this.supply.scenario.devices.find((one) => one.at === at);
    const cold = new Set(
      this.supply.scenario.nets.filter((net) => !sectionFacts[net.section].isMainsSide).map((net) => net.name),
    );
    return device !== undefined && !Object.values(device.pins).some((node) => cold.has(node));
  }

  private readRail(name: string, amps: number): void {
    const value = this.volts(name);
    this.log({
      ...{ targetKind: "rail", targetId: name, quantity: "dc_voltage", value, isPowered: true },
      loadAmps: amps > 0 ? amps : null,
    });
  }

  /** Least and most of a control supply that climbs and falls, as the scope's trace has them: a meter shows a mean. */
  private readLeastAndMost(at: string, pins: string, net: string): void {
    const { oscilloscope } = this.sessions;
    oscilloscope.take("TIM:SCAL 1");
    oscilloscope.take(`ROUT:PROB ${net}`);
    const trace = parseWaveform(oscilloscope.take("WAV:DATA?") ?? "");
    if (!trace) return;
    // Single samples of noise do not count.
    const sorted = [...trace.volts].sort((a, b) => a - b);
    this.logLeastAndMost(at, pins, sorted[3] ?? 0, sorted.at(-4) ?? 0);
  }

  private logLeastAndMost(at: string, pins: string, least: number, most: number): void {
    for (const [word, value] of [
      ["least", least],
      ["most", most],
    ] as const) {
      const what = { targetKind: "part", targetId: at, quantity: "dc_voltage", value } as const;
      this.log({ ...what, terminals: `${pins} ${word}`, isPowered: true });
    }
  }

  private volts(points: string): number {
    this.sessions.multimeter.take(`ROUT:PROB ${points}`);
    return Number(this.sessions.multimeter.take("MEAS:DCV?"));
  }

  private hand(act: HandAct): HandAnswer {
    const answer = this.hands.do(act);
    const at = act.at ?? null;
    this.acts.push({
      ...{ what: "hands", kind: actName(act), at, terminals: null, circuitState: null, value: null },
      ...{ minutes: answer.minutes, bits: 0 },
    });
    return answer;
  }

  private log(more: Pick<Reading, "targetKind" | "targetId" | "quantity" | "value"> & Partial<Reading>): void {
    this.count += 1;
    const reading: Reading = {
      id: `r${this.count}`,
      ...{ fittedPartId: null, coarseCode: null, terminals: null, circuitState: null, frequencyHertz: null },
      ...{ temperatureCelsius: this.supply.scenario.thermal.ambientCelsius, isPowered: false, loadAmps: null },
      rig: { isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
      ...notStored,
      ...{ sequence: this.count, isWithdrawn: false, supersedesId: null, measuredAt: this.now },
      ...more,
    };
    this.acts.push({
      ...{ what: "reading", kind: reading.quantity, at: reading.targetId, terminals: reading.terminals },
      ...{ circuitState: reading.circuitState, value: reading.value, minutes: probingMinutes, bits: 0 },
    });
    this.learn({}, [reading]);
  }

  private get now(): string {
    return new Date(Date.UTC(2026, 0, 1) + this.count * 1000).toISOString();
  }

  private learn(change: Partial<JobFacts>, added: readonly Reading[] = []): void {
    this.facts = { ...this.facts, ...change, readings: [...this.facts.readings, ...added] };
    this.judge.take({ facts: change, rules: null, addedReadings: added, removedReadingIds: [] });
    this.judged = this.judge.judge();
    const doubt = this.doubtNow();
    const last = this.acts.at(-1);
    if (last) this.acts[this.acts.length - 1] = { ...last, bits: last.bits + this.doubt - doubt };
    this.doubt = doubt;
  }

  private doubtNow(): number {
    return [...itemChances(this.facts, this.judged).values()].reduce((sum, p) => sum + entropyBits(p), 0);
  }
}

const keyOf = (...parts: readonly (string | null)[]) => parts.join("|");

/** The best way through a supply that the application knows, step by step: it takes seconds, and others wait for the bench too. */
export const bestSteps = (supply: PracticeSupply) => new Practiser(supply).steps();

/** Carries steps out at once. */
export function atOnce<T>(steps: Generator<void, T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/** Carries steps out between what else there is to do. @returns null once nobody wants the result any more */
export async function gently<T>(steps: Generator<void, T>, isWanted: () => boolean): Promise<T | null> {
  while (isWanted()) {
    const { done, value } = steps.next();
    if (done) return value;
    await new Promise((resolve) => setImmediate(resolve));
  }
  return null;
}

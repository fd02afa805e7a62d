import type { InstrumentKind, Scenario } from "@pale-cap/contract";
import { seededRandom } from "@pale-cap/core";
import type { ProbePoints } from "../virtualSupply/probePoints";
import { VirtualSupply } from "../virtualSupply/virtualSupply";

/** What hands have to say where an instrument is put to a supply. */
export interface SupplyHands {
  /** Before an instrument reads, by a current of its own or not. @throws {CommandError} where it cannot, or dies of it */
  beforeReading(kind: InstrumentKind, isByOwnCurrent: boolean, points: ProbePoints, volts: number): void;
  /** Why a part cannot be read as somebody says it lies; null: it can. */
  whyNotSo(points: ProbePoints): string | null;
  tick(): void;
}

/** What the instruments of one bench share: the supply between their probes, the clock, and their noise. */
export class Bench {
  supply: VirtualSupply;
  private random: () => number;
  private readonly listeners: (() => void)[] = [];
  private readonly offs: (() => void)[] = [];
  private readonly ticks: (() => void)[] = [];
  /** Opens the ports of so many benches; set by whoever listens. */
  openSets: ((count: number) => void) | null = null;
  /** What hands do to a practice supply, and what comes of it; null: nobody practises here. */
  hands: SupplyHands | null = null;
  /** Seconds that were waited for at once. */
  private waited = 0;

  /** @param clock seconds, never running back */
  constructor(
    readonly scenarios: readonly Scenario[],
    private readonly clock: () => number,
  ) {
    const [first] = scenarios;
    if (!first) throw new Error("The simulated bench has no scenario.");
    this.supply = new VirtualSupply(first, this.now());
    this.random = seededRandom(first.seed);
  }

  /** Seconds on the bench: those of the clock, and those that were waited for. */
  readonly now = (): number => this.clock() + this.waited;

  /** Lets time pass on this bench alone, in steps in which everything has time to happen. */
  wait(seconds: number): void {
    const steps = Math.min(Math.max(Math.ceil(seconds / 20), 1), 120);
    for (let step = 0; step < steps; step++) {
      this.waited += seconds / steps;
      this.supply.set({}, this.now());
      this.tick();
    }
  }

  /** Puts another supply on the bench: everything of the last one is gone, and the noise starts again from its seed. */
  choose(name: string): boolean {
    const scenario = this.scenarios.find((one) => one.name === name);
    if (!scenario) return false;
    this.hands = null;
    this.lay(scenario);
    return true;
  }

  /** A supply that stands in no list; whoever lays it there brings the hands. */
  practise(scenario: Scenario): void {
    this.hands = null;
    this.lay(scenario);
  }

  private lay(scenario: Scenario): void {
    this.supply = new VirtualSupply(scenario, this.now());
    this.random = seededRandom(scenario.seed);
    for (const tell of this.listeners) tell();
  }

  /** Another meter lies there: its probes touch nothing yet. */
  takeProbesOff(): void {
    for (const tell of this.offs) tell();
  }

  onProbesOff(listener: () => void): void {
    this.offs.push(listener);
  }

  onSupplyChanged(listener: () => void): void {
    this.listeners.push(listener);
  }

  /** What the instruments do by themselves, they do when the clock ticks. */
  onTick(guard: () => void): void {
    this.ticks.push(guard);
  }

  tick(): void {
    for (const guard of this.ticks) guard();
    this.hands?.tick();
  }

  /** A value with normal noise, relative and absolute (Box and Muller). */
  noisy(value: number, relative: number, absolute: number): number {
    const normal = Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
    return value + normal * Math.hypot(value * relative, absolute);
  }
}

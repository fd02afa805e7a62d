import type { Scenario } from "@pale-cap/contract";
import { seededRandom } from "@pale-cap/core";
import { VirtualSupply } from "../virtualSupply/virtualSupply";

/** What the instruments of one bench share: the supply between their probes, the clock, and their noise. */
export class Bench {
  supply: VirtualSupply;
  private random: () => number;
  private readonly listeners: (() => void)[] = [];
  private readonly ticks: (() => void)[] = [];
  /** Opens the ports of so many benches; set by whoever listens. */
  openSets: ((count: number) => void) | null = null;

  /** @param now seconds, never running back */
  constructor(
    readonly scenarios: readonly Scenario[],
    readonly now: () => number,
  ) {
    const [first] = scenarios;
    if (!first) throw new Error("The simulated bench has no scenario.");
    this.supply = new VirtualSupply(first, now());
    this.random = seededRandom(first.seed);
  }

  /** Puts another supply on the bench: everything of the last one is gone, and the noise starts again from its seed. */
  choose(name: string): boolean {
    const scenario = this.scenarios.find((one) => one.name === name);
    if (!scenario) return false;
    this.supply = new VirtualSupply(scenario, this.now());
    this.random = seededRandom(scenario.seed);
    for (const tell of this.listeners) tell();
    return true;
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
  }

  /** A value with normal noise, relative and absolute (Box and Muller). */
  noisy(value: number, relative: number, absolute: number): number {
    const normal = Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
    return value + normal * Math.hypot(value * relative, absolute);
  }
}

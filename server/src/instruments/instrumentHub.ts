import type { Capture, Instrument, InstrumentAct, InstrumentAddresses, InstrumentState } from "@pale-cap/contract";
import { HttpProblem } from "../http/problems";
import { InstrumentLink, type LinkTimes } from "./instrumentLink";
import { everyLine, type LineLeases } from "./lineLeases";

const usualTimes: LinkTimes = {
  pollMilliseconds: 300,
  patienceMilliseconds: 1500,
  retryMilliseconds: 500,
  longestWaitMilliseconds: 10_000,
};

type Listener = (state: InstrumentState) => void;

/** All instruments of the shop: their lines, what they say now, and who listens. It records nothing. */
export class InstrumentHub {
  private readonly links = new Map<string, { readonly instrument: Instrument; readonly link: InstrumentLink }>();
  private readonly listeners = new Set<Listener>();
  private addresses: InstrumentAddresses = "private";

  constructor(
    private readonly benchBasePort: number,
    private readonly now: () => Date,
    private readonly times: LinkTimes = usualTimes,
    private readonly leases: LineLeases = everyLine,
  ) {}

  /** Brings the lines in step with how the shop set its instruments up; a changed one starts anew. */
  setUp(instruments: readonly Instrument[], addresses: InstrumentAddresses = "private"): void {
    const wanted = new Map(instruments.filter((one) => one.isEnabled).map((one) => [one.id, one]));
    for (const [id, { instrument, link }] of this.links) {
      if (wanted.get(id)?.version === instrument.version && addresses === this.addresses) continue;
      link.stop();
      this.links.delete(id);
      if (!wanted.has(id)) void this.leases.drop([id]).catch(() => undefined);
    }
    void this.leases.want([...wanted.keys()]).catch(() => undefined);
    this.addresses = addresses;
    for (const [id, instrument] of wanted) {
      if (this.links.has(id)) continue;
      const changed = (state: InstrumentState) => {
        for (const listener of this.listeners) listener(state);
      };
      const link = new InstrumentLink(
        instrument,
        this.benchBasePort,
        this.times,
        this.now,
        changed,
        () => this.listeners.size > 0,
        addresses,
        () => this.leases.isMine(id),
      );
      this.links.set(id, { instrument, link });
    }
  }

  /** Takes the lines before they are opened. */
  async want(ids: readonly string[]): Promise<void> {
    await this.leases.want(ids);
  }

  get states(): readonly InstrumentState[] {
    return [...this.links.values()].map(({ link }) => link.state);
  }

  /** @returns how to stop listening */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    for (const { link } of this.links.values()) link.wakeUp();
    return () => this.listeners.delete(listener);
  }

  act(id: string, act: InstrumentAct): Promise<void> {
    return this.linkOf(id).act(act);
  }

  /** A line to an instrument that a run drives; null where there is none, or another process speaks to it. */
  line(id: string): InstrumentLink | null {
    const link = this.links.get(id)?.link;
    // What a run holds it keeps, also where nobody can renew a lease: it must be able to switch off.
    return link && (this.leases.isMine(id) || link.state.runId !== null) ? link : null;
  }

  /** Held by a run: until it lets go nobody else sets anything on it but off. */
  reserve(ids: readonly string[], runId: string): void {
    for (const id of ids) this.links.get(id)?.link.holdFor(runId);
  }

  release(runId: string): void {
    for (const { link } of this.links.values()) if (link.state.runId === runId) link.holdFor(null);
  }

  runOf(id: string): string | null {
    return this.links.get(id)?.link.state.runId ?? null;
  }

  capture(id: string): Promise<Capture> {
    return this.linkOf(id).capture();
  }

  /** The simulated mains source knows which supply lies on its bench; null: of the first bench that has one. */
  async askSimulated(line: string, benchId: string | null = null): Promise<string | null> {
    return (await this.simulatedMains(benchId)?.ask(line)) ?? null;
  }

  /** Whether a run holds the simulated mains of a bench: its supply stays where it is. */
  isSupplyHeld(benchId: string | null): boolean {
    return (this.simulatedMains(benchId)?.state.runId ?? null) !== null;
  }

  private simulatedMains(benchId: string | null): InstrumentLink | undefined {
    return [...this.links.values()]
      .filter(({ instrument }) => instrument.kind === "mains" && instrument.transport === "simulated")
      .sort((a, b) => a.instrument.simulatedSet - b.instrument.simulatedSet)
      .find(({ instrument }) => benchId === null || instrument.benchId === benchId)?.link;
  }

  close(): void {
    for (const { link } of this.links.values()) link.stop();
    this.links.clear();
    this.listeners.clear();
  }

  private linkOf(id: string): InstrumentLink {
    const found = this.links.get(id);
    if (!found) throw new HttpProblem("not_found", "There is no such instrument, or it is switched off in its set-up.");
    return found.link;
  }
}

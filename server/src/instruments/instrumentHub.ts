import type { Capture, Instrument, InstrumentAct, InstrumentAddresses, InstrumentState } from "@pale-cap/contract";
import { HttpProblem } from "../http/problems";
import { InstrumentLink, type LinkTimes } from "./instrumentLink";

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
  ) {}

  /** Brings the lines in step with how the shop set its instruments up; a changed one starts anew. */
  setUp(instruments: readonly Instrument[], addresses: InstrumentAddresses = "private"): void {
    const wanted = new Map(instruments.filter((one) => one.isEnabled).map((one) => [one.id, one]));
    for (const [id, { instrument, link }] of this.links) {
      if (wanted.get(id)?.version === instrument.version && addresses === this.addresses) continue;
      link.stop();
      this.links.delete(id);
    }
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
      );
      this.links.set(id, { instrument, link });
    }
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

  capture(id: string): Promise<Capture> {
    return this.linkOf(id).capture();
  }

  /** The simulated mains source knows which supply lies on the bench. */
  async askSimulated(line: string): Promise<string | null> {
    const found = [...this.links.values()].find(
      ({ instrument }) => instrument.kind === "mains" && instrument.transport === "simulated",
    );
    return found ? found.link.ask(line) : null;
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

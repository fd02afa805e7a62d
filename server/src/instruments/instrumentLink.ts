import {
  type Capture,
  type Instrument,
  type InstrumentAct,
  type InstrumentAddresses,
  type InstrumentFunction,
  type InstrumentState,
  type InstrumentStatus,
  instrumentFunctions,
  type LiveReading,
  type ProbeState,
  parseNumberAnswer,
  parseWaveform,
  plausibleValues,
} from "@pale-cap/contract";
import type { CircuitState } from "@pale-cap/core";
import { HttpProblem } from "../http/problems";
import { AddressNotAllowed } from "./addresses";
import { LineClient, LineFailure } from "./lineClient";
import { openLine } from "./openLine";

export interface LinkTimes {
  readonly pollMilliseconds: number;
  readonly patienceMilliseconds: number;
  /** First wait before a new try; it doubles up to `longestWaitMilliseconds`. */
  readonly retryMilliseconds: number;
  readonly longestWaitMilliseconds: number;
}

const probeWords: Readonly<Record<CircuitState, ProbeState>> = { in_circuit: "IN", lead_lifted: "LIFTED", out: "OUT" };
/** So many last values must agree for a steady one. */
const steadyCount = 4;
const steadyRatio = 0.03;

/**
 * One instrument's line: opens it, reads it in a loop while somebody looks, and tries again ever more slowly when it is
 * gone. Nothing that an instrument does ends in more than a state that says so.
 */
export class InstrumentLink {
  private client: LineClient | null = null;
  private status: InstrumentStatus = "connecting";
  private trouble: string | null = null;
  private identity: string | null = null;
  private reading: LiveReading | null = null;
  private settings: Readonly<Record<string, string>> = {};
  private points: string | null = null;
  private circuitState: CircuitState | null = null;
  private func: InstrumentFunction;
  private frequencyHertz: number | null = null;
  private recent: number[] = [];
  private isStopped = false;
  private runId: string | null = null;
  private wake: (() => void) | null = null;

  constructor(
    private readonly instrument: Instrument,
    private readonly benchBasePort: number,
    private readonly times: LinkTimes,
    private readonly now: () => Date,
    private readonly changed: (state: InstrumentState) => void,
    private readonly isWatched: () => boolean,
    private readonly addresses: InstrumentAddresses,
    private readonly isMine: () => boolean,
  ) {
    this.func = instrumentFunctions[instrument.kind][0];
    void this.live();
  }

  get state(): InstrumentState {
    const { id, name, kind, transport, benchId } = this.instrument;
    const { status, trouble, identity, reading, settings, runId } = this;
    const isSimulated = transport === "simulated";
    return { ...{ id, name, kind, benchId, runId, isSimulated }, status, trouble, identity, reading, settings };
  }

  /** The run that it belongs to from now on; null: to whoever comes. */
  holdFor(runId: string | null): void {
    this.runId = runId;
    this.tell();
  }

  stop(): void {
    this.isStopped = true;
    this.client?.close();
    this.wakeUp();
  }

  /** Ends a wait early: somebody began to look, or did something. */
  wakeUp(): void {
    this.wake?.();
  }

  /** Carries out what a person did; the words that the instrument kept against it come back as a refusal. */
  async act(act: InstrumentAct): Promise<void> {
    const client = this.client;
    if (this.runId !== null && !isSwitchingOff(act)) {
      throw new HttpProblem("conflict", `A run holds ${this.instrument.name}: it can be switched off, nothing else.`);
    }
    if (!client?.isOpen) throw new HttpProblem("conflict", `${this.instrument.name} is not connected.`);
    if (this.instrument.driver === "read_only_lines") {
      // Such a meter is set by hand: what it reads and where its probes are is what the person says.
      this.remember(act);
      return;
    }
    try {
      const lines = this.linesOf(act);
      await client.tell("*CLS");
      for (const line of lines) await client.tell(line);
      const error = await client.ask("SYST:ERR?");
      if (!error.startsWith("0,")) throw new HttpProblem("conflict", `${this.instrument.name}: ${quoted(error)}.`);
    } catch (error) {
      if (error instanceof LineFailure) throw new HttpProblem("conflict", `${this.instrument.name} does not answer.`);
      throw error;
    }
    this.remember(act);
    this.wakeUp();
  }

  /** A question that is no reading, such as the card of the virtual supply. */
  async ask(line: string): Promise<string> {
    if (!this.client?.isOpen) throw new HttpProblem("conflict", `${this.instrument.name} is not connected.`);
    try {
      return await this.client.ask(line);
    } catch {
      throw new HttpProblem("conflict", `${this.instrument.name} does not answer.`);
    }
  }

  /** One line of a run that asks. @throws {LineFailure} as the line fails */
  async askLine(line: string): Promise<string> {
    if (!this.client?.isOpen) throw new LineFailure("missing");
    return this.client.ask(line);
  }

  /** Lines of a run that set something. @returns what the instrument kept against them; null: nothing */
  async tellLines(lines: readonly string[], settings: Readonly<Record<string, string>> = {}): Promise<string | null> {
    const { client } = this;
    if (!client?.isOpen) throw new LineFailure("missing");
    await client.tell("*CLS");
    for (const line of lines) await client.tell(line);
    const error = await client.ask("SYST:ERR?");
    if (!error.startsWith("0,")) return quoted(error);
    this.settings = { ...this.settings, ...settings };
    this.tell();
    return null;
  }

  /** What it reads from now on, and where, so that it is told again after a break. */
  aimAt(func: InstrumentFunction, points: string | null): void {
    this.func = func;
    if (points !== null) this.points = points;
    this.circuitState = null;
    this.recent = [];
    this.reading = null;
  }

  async capture(): Promise<Capture> {
    if (this.instrument.kind !== "oscilloscope") throw new HttpProblem("conflict", "Only a scope has a waveform.");
    const found = parseWaveform(await this.ask("WAV:DATA?"));
    if (!found)
      throw new HttpProblem("conflict", `${this.instrument.name} gave no waveform: are its probes connected?`);
    return { ...found, points: this.points };
  }

  private linesOf(act: InstrumentAct): readonly string[] {
    const lines: string[] = [];
    if (act.function) lines.push(`FUNC ${act.function}`);
    if (act.frequencyHertz !== null) lines.push(`FREQ ${act.frequencyHertz}`);
    if (act.points !== null) {
      const state = act.circuitState ? `,${probeWords[act.circuitState]}` : "";
      lines.push(`ROUT:PROB ${act.points === "" ? "NONE" : plain(act.points)}${state}`);
    }
    for (const [name, value] of Object.entries(act.settings ?? {})) lines.push(...settingLines(name, value));
    return lines;
  }

  private remember(act: InstrumentAct): void {
    if (act.function) this.func = act.function;
    if (act.frequencyHertz !== null) this.frequencyHertz = act.frequencyHertz;
    if (act.points !== null) {
      this.points = act.points === "" ? null : act.points;
      this.circuitState = act.circuitState;
    }
    const settings = Object.entries(act.settings ?? {}).map(([name, value]) => [name, String(value)]);
    this.settings = { ...this.settings, ...Object.fromEntries(settings) };
    this.recent = [];
    this.reading = null;
    this.tell();
  }

  private async live(): Promise<void> {
    let wait = this.times.retryMilliseconds;
    while (!this.isStopped) {
      try {
        if (this.isMine()) {
          await this.connect();
          wait = this.times.retryMilliseconds;
          await this.poll();
        } else {
          this.reading = null;
          this.set("elsewhere", "another process of the server speaks to it");
          wait = this.times.retryMilliseconds;
        }
      } catch (error) {
        this.fail(error);
      }
      this.client?.close();
      if (this.isStopped) return;
      await this.pause(wait);
      wait = Math.min(wait * 2, this.times.longestWaitMilliseconds);
    }
  }

  private async connect(): Promise<void> {
    const stream = await openLine(this.instrument, this.benchBasePort, this.addresses);
    if (this.isStopped) {
      stream.destroy();
      return;
    }
    this.client = new LineClient(stream, this.times.patienceMilliseconds);
    if (this.instrument.driver === "bench_lines") {
      this.identity = (await this.client.ask("*IDN?")).slice(0, 120);
      await this.restore();
    }
    this.set("ready", null);
  }

  /** After a break the instrument may have been switched off: it is told again what it was told. */
  private async restore(): Promise<void> {
    const { points, circuitState, frequencyHertz } = this;
    const lines = this.linesOf({ points, circuitState, function: this.func, frequencyHertz, settings: null });
    for (const line of lines) await this.client?.tell(line);
  }

  private async poll(): Promise<void> {
    while (!this.isStopped && this.client?.isOpen) {
      if (!this.isMine() && this.runId === null) return;
      if (this.isWatched()) await this.readOnce(this.client);
      await this.pause(this.times.pollMilliseconds);
    }
    if (!this.isStopped) throw new LineFailure("missing");
  }

  private async readOnce(client: LineClient): Promise<void> {
    const { func, points, circuitState, frequencyHertz } = this;
    const raw = await client.ask("READ?");
    // The function changed while the answer was on its way: it belongs to neither.
    if (func !== this.func || points !== this.points) return;
    const answer = parseNumberAnswer(raw);
    if (answer.kind === "garbled") {
      this.reading = null;
      return this.set("garbled", `answered “${raw.slice(0, 40)}”`);
    }
    const value = answer.kind === "value" ? answer.value : null;
    const [least, most] = plausibleValues[func];
    if (value !== null && (value < least || value > most)) {
      this.reading = null;
      return this.set("implausible", `answered ${raw.trim()}, which ${func} cannot be`);
    }
    this.recent = value === null ? [] : [...this.recent, value].slice(-steadyCount);
    this.reading = {
      function: func,
      value,
      raw: raw.trim(),
      points,
      circuitState,
      frequencyHertz,
      isSteady: this.recent.length === steadyCount && isSteady(this.recent),
      at: this.now().toISOString(),
    };
    const error = value === null && this.instrument.driver === "bench_lines" ? await client.ask("SYST:ERR?") : "0,";
    this.set("ready", error.startsWith("0,") ? null : quoted(error));
  }

  private fail(error: unknown): void {
    this.reading = null;
    this.recent = [];
    if (error instanceof LineFailure && error.kind === "slow") this.set("slow", "does not answer in time");
    else this.set("missing", error instanceof LineFailure ? "the line was closed" : reachWords(error));
  }

  private set(status: InstrumentStatus, trouble: string | null): void {
    this.status = status;
    this.trouble = trouble;
    this.tell();
  }

  private tell(): void {
    this.changed(this.state);
  }

  private pause(milliseconds: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(done, milliseconds);
      const link = this;
      function done() {
        clearTimeout(timer);
        link.wake = null;
        resolve();
      }
      this.wake = done;
    });
  }
}

/** What may be done in spite of a run: it takes it for what it is, and ends. */
function isSwitchingOff({ points, circuitState, function: func, frequencyHertz, settings }: InstrumentAct): boolean {
  if (points !== null || circuitState !== null || func !== null || frequencyHertz !== null) return false;
  const entries = Object.entries(settings ?? {});
  return entries.length > 0 && entries.every(([name, value]) => ["output", "input"].includes(name) && value === "OFF");
}

function isSteady(values: readonly number[]): boolean {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  return high - low <= steadyRatio * Math.max(Math.abs(high), Math.abs(low)) + 1e-12;
}

/** A point as one line can carry it. */
const plain = (text: string) => text.replace(/[\r\n"?]/g, " ").trim();

function settingLines(name: string, value: string | number): readonly string[] {
  const text = plain(String(value));
  switch (name) {
    case "zero":
      return ["CORR:SHOR"];
    case "secondsPerDivision":
      return [`TIM:SCAL ${text}`];
    case "bandwidthLimit":
      return [`CHAN:BAND ${text}`];
    case "net":
      return [`CONN ${text}`];
    case "amps":
      return ["MODE CURR", `CURR ${text}`];
    case "swing":
      // Between its amperes and others, so many times a second: how a rail answers a step of load.
      return text === "OFF" ? ["MODE CURR"] : [`SWIN ${text}`, "MODE SWIN"];
    case "watts":
      return ["MODE POW", `POW ${text}`];
    case "input":
      return [`INP ${text}`];
    case "output":
      return [`OUTP ${text}`];
    case "lampWatts":
      return [`LAMP ${text}`];
    case "isolation":
      return [`ISOL ${text}`];
    case "drain":
      return [`DRAI ${text}`];
    default:
      throw new HttpProblem("invalid_body", `There is no switch “${name}”.`);
  }
}

const quoted = (error: string) => /"(.*)"/.exec(error)?.[1] ?? error.slice(0, 80);

function reachWords(error: unknown): string {
  if (error instanceof AddressNotAllowed) return error.message;
  const code = (error as { code?: string } | null)?.code;
  if (code === "ECONNREFUSED") return "nothing listens at its address";
  if (code === "ENOTFOUND") return "its host is not known";
  return "cannot be reached";
}

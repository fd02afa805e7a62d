import { type Instrument, type InstrumentFunction, parseNumberAnswer, plausibleValues } from "@pale-cap/contract";
import { ownTimeouts, type RunPlan, type StopCode } from "@pale-cap/core";
import { HttpProblem } from "../http/problems";
import type { InstrumentHub } from "../instruments/instrumentHub";
import { LineFailure } from "../instruments/lineClient";

/** An instrument of a run failed: which, and how. */
export class RigTrouble extends Error {
  constructor(
    readonly code: StopCode,
    readonly instrumentId: string,
  ) {
    super(code);
  }
}

/** What the instruments of a run say at one moment. */
export interface RigReading {
  readonly rails: readonly {
    readonly netId: string;
    readonly volts: number;
    readonly amps: number;
    readonly isOn: boolean;
  }[];
  readonly isMainsOn: boolean | null;
  readonly inputWatts: number | null;
  readonly rippleVolts: number | null;
  readonly celsius: readonly (number | null)[];
}

export interface PreparedRig {
  readonly isAttendedOnly: boolean;
  readonly isSimulated: boolean;
  readonly isIsolationTransformer: boolean;
  /** As the source says; null where a person switches it. */
  readonly isMainsOn: boolean | null;
}

/** What a simulated instrument has to be told of the board: a designator or a rail by the id of a target. */
export type NameOf = (targetKind: "part" | "rail" | "unit", targetId: string) => string | null;

const isOff = (answer: string) => answer.trim().toUpperCase() === "OFF";
const isOn = (answer: string) => answer.trim().toUpperCase() === "ON";

/** The instruments of one run, and how they are spoken to. Nothing in here decides anything. */
export class RunRig {
  constructor(
    private readonly hub: InstrumentHub,
    private readonly instruments: ReadonlyMap<string, Instrument>,
    private readonly plan: RunPlan,
    private readonly mostGapSeconds: number,
  ) {}

  get ids(): readonly string[] {
    const { rails, spots, mainsId, ripple } = this.plan;
    return [
      ...rails.map((one) => one.loadId),
      ...spots.map((one) => one.thermometerId),
      ...(mainsId === null ? [] : [mainsId]),
      ...(ripple ? [ripple.scopeId] : []),
    ];
  }

  /**
   * Everything as a run needs it before anything is switched on: loads off, limits and time-outs of their own set, probes aimed.
   *
   * @throws {HttpProblem} where an instrument is not there, not of its kind, or says no
   */
  async prepare(nameOf: NameOf): Promise<PreparedRig> {
    const { plan } = this;
    for (const { loadId } of plan.rails) this.requireKind(loadId, "load", true);
    for (const { thermometerId } of plan.spots) this.requireKind(thermometerId, "thermometer", false);
    if (plan.mainsId !== null) this.requireKind(plan.mainsId, "mains", true);
    if (plan.ripple) this.requireKind(plan.ripple.scopeId, "oscilloscope", false);
    const { mainsSeconds, loadSeconds } = ownTimeouts(this.mostGapSeconds);
    let isAttendedOnly = plan.mainsId === null;
    for (const rail of plan.rails) {
      const name = nameOf("rail", rail.netId);
      const connect = this.isSimulated(rail.loadId) && name !== null ? [`CONN ${plain(name)}`] : [];
      await this.must(rail.loadId, ["INP OFF", ...connect], { input: "OFF", net: name ?? "" });
      const has = await this.may(rail.loadId, [`LIM:CURR ${beyond(rail.mostAmps)}`, `LIM:TIME ${loadSeconds}`]);
      if (!has) isAttendedOnly = true;
    }
    for (const { thermometerId, targetKind, targetId } of plan.spots) {
      await this.aim(thermometerId, "TEMP", nameOf(targetKind, targetId));
    }
    if (plan.ripple) await this.aim(plan.ripple.scopeId, "PKPK", nameOf("rail", plan.ripple.netId));
    const mains = await this.prepareMains(mainsSeconds);
    const isSimulated = this.ids.some((id) => this.isSimulated(id));
    return { ...mains, isAttendedOnly: isAttendedOnly || mains.isAttendedOnly, isSimulated };
  }

  /** One look at all of them. @throws {RigTrouble} the first that fails */
  async read(): Promise<RigReading> {
    const { plan } = this;
    const rails: RigReading["rails"][number][] = [];
    for (const { netId, loadId } of plan.rails) {
      const volts = await this.number(loadId, "MEAS:VOLT?", "VOLT");
      const amps = await this.number(loadId, "MEAS:CURR?", "CURR");
      if (volts === null || amps === null) throw new RigTrouble("instrument_garbled", loadId);
      rails.push({ netId, volts, amps, isOn: isOn(await this.ask(loadId, "INP?")) });
    }
    const celsius: (number | null)[] = [];
    for (const { thermometerId } of plan.spots) celsius.push(await this.number(thermometerId, "READ?", "TEMP"));
    const { mainsId, ripple } = plan;
    return {
      rails,
      celsius,
      isMainsOn: mainsId === null ? null : isOn(await this.ask(mainsId, "OUTP?")),
      inputWatts: mainsId === null ? null : await this.number(mainsId, "MEAS:POW?", "POW"),
      rippleVolts: ripple ? await this.number(ripple.scopeId, "READ?", "PKPK") : null,
    };
  }

  /** Volts of a rail as its load reads them. */
  async volts(loadId: string): Promise<number> {
    const volts = await this.number(loadId, "MEAS:VOLT?", "VOLT");
    if (volts === null) throw new RigTrouble("instrument_garbled", loadId);
    return Math.abs(volts);
  }

  /** @param amps 0 switches the load off; @param heldVolts it draws what keeps the output there, instead of amperes */
  async setLoad(loadId: string, amps: number, heldVolts: number | null = null): Promise<void> {
    const level = heldVolts === null ? ["MODE CURR", `CURR ${amps}`] : ["MODE VOLT", `VOLT ${heldVolts}`];
    const lines = amps > 0 ? [...level, "INP ON"] : ["INP OFF"];
    const settings: Record<string, string> = amps > 0 ? { amps: String(amps), input: "ON" } : { input: "OFF" };
    if (!(await this.may(loadId, lines, settings))) throw new RigTrouble("instrument_garbled", loadId);
  }

  /** @returns whether it says itself that it is so now */
  async switchMains(isWantedOn: boolean): Promise<boolean> {
    const { mainsId } = this.plan;
    if (mainsId === null) return false;
    const word = isWantedOn ? "ON" : "OFF";
    await this.may(mainsId, [`OUTP ${word}`], { output: word });
    const answer = await this.ask(mainsId, "OUTP?");
    return isWantedOn ? isOn(answer) : isOff(answer);
  }

  async isLoadOff(loadId: string): Promise<boolean> {
    return isOff(await this.ask(loadId, "INP?"));
  }

  /** Afterwards nothing switches itself off because nobody speaks to it. */
  async letGo(): Promise<void> {
    const { rails, mainsId } = this.plan;
    for (const { loadId } of rails) await this.may(loadId, ["LIM:CURR OFF", "LIM:TIME OFF"]).catch(() => undefined);
    if (mainsId !== null) await this.may(mainsId, ["LIM:POW OFF", "LIM:TIME OFF"]).catch(() => undefined);
  }

  private async prepareMains(seconds: number): Promise<Omit<PreparedRig, "isSimulated">> {
    const { mainsId, mostInputWatts } = this.plan;
    if (mainsId === null) return { isAttendedOnly: true, isIsolationTransformer: false, isMainsOn: null };
    const watts = mostInputWatts === null ? [] : [`LIM:POW ${beyond(mostInputWatts)}`];
    const hasLimits = await this.may(mainsId, [...watts, `LIM:TIME ${seconds}`]);
    const lamp = await this.askOrRefuse(mainsId, "LAMP?");
    if (!isOff(lamp) && parseNumberAnswer(lamp).kind === "value") {
      throw new HttpProblem("conflict", "A series lamp is in: it gives way under load. Take it out for a run.");
    }
    return {
      isAttendedOnly: !hasLimits || mostInputWatts === null,
      isIsolationTransformer: isOn(await this.askOrRefuse(mainsId, "ISOL?")),
      isMainsOn: isOn(await this.askOrRefuse(mainsId, "OUTP?")),
    };
  }

  /** A simulated probe goes where it is told; a real one is where a person put it. */
  private async aim(id: string, func: InstrumentFunction, name: string | null): Promise<void> {
    const isTold = this.instruments.get(id)?.driver === "bench_lines";
    const points = this.isSimulated(id) && name !== null ? plain(name) : null;
    this.hub.line(id)?.aimAt(func, points);
    if (isTold) await this.must(id, [`FUNC ${func}`, ...(points === null ? [] : [`ROUT:PROB ${points}`])]);
  }

  private requireKind(id: string, kind: Instrument["kind"], mustSet: boolean): void {
    const found = this.instruments.get(id);
    if (found?.kind !== kind || !found.isEnabled) {
      throw new HttpProblem("conflict", `A ${kind} that the run needs is not among the instruments in use.`);
    }
    if (mustSet && found.driver !== "bench_lines") {
      throw new HttpProblem("conflict", `${found.name} can only be read: no run can set it.`);
    }
  }

  private isSimulated(id: string): boolean {
    return this.instruments.get(id)?.transport === "simulated";
  }

  private nameOf(id: string): string {
    return this.instruments.get(id)?.name ?? "An instrument";
  }

  private async ask(id: string, line: string): Promise<string> {
    const link = this.hub.line(id);
    if (!link) throw new RigTrouble("instrument_lost", id);
    try {
      return await link.askLine(line);
    } catch (error) {
      if (error instanceof LineFailure) throw new RigTrouble("instrument_lost", id);
      throw error;
    }
  }

  private async number(id: string, line: string, func: InstrumentFunction): Promise<number | null> {
    const answer = parseNumberAnswer(await this.ask(id, line));
    if (answer.kind === "over_range") return null;
    const [least, most] = plausibleValues[func];
    if (answer.kind === "garbled" || answer.value < least || answer.value > most) {
      throw new RigTrouble("instrument_garbled", id);
    }
    return answer.value;
  }

  /** @returns whether it took the lines */
  private async may(id: string, lines: readonly string[], settings: Record<string, string> = {}): Promise<boolean> {
    const link = this.hub.line(id);
    if (!link) throw new RigTrouble("instrument_lost", id);
    try {
      return (await link.tellLines(lines, settings)) === null;
    } catch (error) {
      if (error instanceof LineFailure) throw new RigTrouble("instrument_lost", id);
      throw error;
    }
  }

  private async must(id: string, lines: readonly string[], settings: Record<string, string> = {}): Promise<void> {
    const against = await this.orRefuse(id, async () => (await this.hub.line(id)?.tellLines(lines, settings)) ?? null);
    if (against !== null) throw new HttpProblem("conflict", `${this.nameOf(id)}: ${against}.`);
  }

  private askOrRefuse(id: string, line: string): Promise<string> {
    return this.orRefuse(id, () => this.ask(id, line));
  }

  private async orRefuse<T>(id: string, work: () => Promise<T>): Promise<T> {
    if (!this.hub.line(id)) throw new HttpProblem("conflict", `${this.nameOf(id)} is not connected.`);
    try {
      return await work();
    } catch (error) {
      if (error instanceof LineFailure || error instanceof RigTrouble) {
        throw new HttpProblem("conflict", `${this.nameOf(id)} does not answer.`);
      }
      throw error;
    }
  }
}

/** The instruments' own limits come behind the run's: it ends in its order as long as it can. */
const beyond = (limit: number) => Number((1.05 * limit).toPrecision(4));

/** A name as one line can carry it. */
const plain = (text: string) => text.replace(/[\r\n"?]/g, " ").trim();

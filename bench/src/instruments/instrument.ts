import { type InstrumentKind, overRange, type ProbeState, probeStates, type Scenario } from "@pale-cap/contract";
import type { Command } from "../protocol/commandLine";
import { type ProbePoints, probePoints } from "../virtualSupply/probePoints";
import type { Bench } from "./bench";
import { CommandError } from "./commandError";

/** What one command does: an answer line, or nothing. */
export type Handler = (command: Command) => string | null;

/** An instrument as the line server drives it. */
export interface Instrument {
  readonly kind: InstrumentKind;
  readonly identity: string;
  readonly handlers: Readonly<Record<string, Handler>>;
  /** Somebody spoke to it: what it does when nobody does is put off. */
  readonly heard?: () => void;
}

/**
 * What an instrument does by itself: it switches off above a limit, and when nobody spoke to it for a time. Both are unset until a
 * line sets them, and go with the supply.
 */
export class OwnLimits {
  most: number | null = null;
  private seconds: number | null = null;
  private heardAt: number;

  /** @param read what is held against the limit; null while there is nothing to hold */
  constructor(
    private readonly bench: Bench,
    private readonly header: "LIM:CURR" | "LIM:POW",
    private readonly read: () => number | null,
    private readonly switchOff: () => void,
  ) {
    this.heardAt = bench.now();
    bench.onTick(() => this.guard());
    bench.onSupplyChanged(() => {
      this.most = null;
      this.seconds = null;
    });
  }

  readonly heard = () => {
    this.heardAt = this.bench.now();
  };

  get handlers(): Readonly<Record<string, Handler>> {
    const of =
      (get: () => number | null, assign: (value: number | null) => void): Handler =>
      (command) => {
        if (command.isQuery) return String(get() ?? "OFF");
        assign(command.parameters[0]?.toUpperCase() === "OFF" ? null : positiveParameter(command));
        return null;
      };
    return {
      [this.header]: of(
        () => this.most,
        (value) => {
          this.most = value;
        },
      ),
      "LIM:TIME": of(
        () => this.seconds,
        (value) => {
          this.seconds = value;
        },
      ),
    };
  }

  private guard(): void {
    const isSilent = this.seconds !== null && this.bench.now() - this.heardAt > this.seconds;
    const value = this.most === null ? null : this.read();
    if (isSilent || (value !== null && this.most !== null && value > this.most)) this.switchOff();
  }
}

export const printNumber = (value: number | null) =>
  value === null || !Number.isFinite(value) ? String(overRange) : value.toExponential(5);

/** Three and a half digits, as a bench meter shows them. */
export const toDigits = (value: number, digits: number) => (value === 0 ? 0 : Number(value.toPrecision(digits)));

/** The last digit that a display has, coarser above its smallest range. */
export const toResolution = (value: number, smallest: number) => {
  const step = Math.max(smallest, 10 ** (Math.floor(Math.log10(Math.max(Math.abs(value), 1e-12))) - 3));
  return Number((Math.round(value / step) * step).toPrecision(10));
};

/** Where an instrument's probes sit, with the commands that move them. */
export class Probes {
  private touched: { readonly text: string; readonly state: ProbeState } | null = null;
  private found: { readonly on: Scenario; readonly points: ProbePoints | null } | null = null;
  connectedAtSeconds = 0;

  constructor(private readonly bench: Bench) {
    const off = () => {
      this.touched = null;
    };
    bench.onSupplyChanged(off);
    bench.onProbesOff(off);
  }

  /** Where they sit on the board as it is now. */
  get points(): ProbePoints | null {
    const { scenario } = this.bench.supply;
    if (!this.touched) return null;
    if (this.found?.on !== scenario) {
      this.found = { on: scenario, points: probePoints(scenario, this.touched.text, this.touched.state) };
    }
    return this.found.points;
  }

  readonly handlers: Readonly<Record<string, Handler>> = {
    "ROUT:PROB": ({ isQuery, parameters }) => {
      if (isQuery) return this.points ? `${this.points.text},${this.points.state}` : "NONE";
      if (parameters.length === 0) throw new CommandError(-109, "Missing parameter");
      const state = probeStates.find((one) => one === parameters.at(-1)?.toUpperCase());
      const text = parameters.slice(0, state ? -1 : undefined).join(",");
      this.connect(text, state ?? "IN");
      return null;
    },
  };

  private connect(text: string, state: ProbeState): void {
    if (text.toUpperCase() === "NONE") {
      this.touched = null;
      return;
    }
    const { scenario } = this.bench.supply;
    const points = probePoints(scenario, text, state);
    if (!points) throw new CommandError(-224, `No such point on this board: ${text}`);
    const refusal = this.bench.hands?.whyNotSo(points) ?? null;
    if (refusal) throw new CommandError(-221, refusal);
    this.touched = { text, state };
    this.found = { on: scenario, points };
    this.connectedAtSeconds = this.bench.now();
  }
}

export const positiveParameter = ({ parameters }: Command): number => {
  const value = Number(parameters[0]);
  if (!(value > 0) || !Number.isFinite(value)) throw new CommandError(-222, "Data out of range");
  return value;
};

export const switchParameter = ({ parameters }: Command): boolean => {
  const word = parameters[0]?.toUpperCase();
  if (word === "ON" || word === "1") return true;
  if (word === "OFF" || word === "0") return false;
  throw new CommandError(-224, "ON or OFF is needed");
};

/** A choice among words, set and asked for by one header. */
export function wordHandler<T extends string>(words: readonly T[], read: () => T, write: (word: T) => void): Handler {
  return ({ isQuery, parameters }) => {
    if (isQuery) return read();
    const found = words.find((word) => word === parameters[0]?.toUpperCase());
    if (!found) throw new CommandError(-224, `One of ${words.join(", ")} is needed`);
    write(found);
    return null;
  };
}

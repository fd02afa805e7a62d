import { type CaptureMapping, cellNumber, isClipped } from "./captureShape";

export const mostCaptureSamples = 5_000_000;
const leastCaptureSamples = 16;
/** Beyond this no rail of the trade lies: the unit is another. */
const mostVolts = 2000;
/** Where nobody says how fast a rail switches. */
const usualSwitchingHertz = 65e3;
/** Single steps of time may differ by so much from their mean: a clock's rounding, not a gap. */
const unevenRatio = 0.6;

export type CaptureProblemCode =
  | "no_table"
  | "not_a_number"
  | "truncated"
  | "time_runs_back"
  | "time_uneven"
  | "no_interval"
  | "too_short"
  | "too_long"
  | "implausible_volts";

/** Why a capture cannot be taken, and where. */
export interface CaptureProblem {
  readonly code: CaptureProblemCode;
  /** Row in the file, from 1; null where it is about the whole. */
  readonly row: number | null;
  readonly text: string;
}

export interface ReadCapture {
  readonly intervalSeconds: number;
  readonly channels: readonly {
    readonly name: string;
    readonly samples: Float32Array;
    /** Samples beyond the scope's range: kept at its end, the true ones lie further out. */
    readonly clippedCount: number;
  }[];
}

/**
 * Reads a capture's rows piece by piece, so that a large file never stands in memory as text. The first thing that is wrong
 * ends it: half a capture is none.
 */
export class CaptureReader {
  private readonly samples: Float32Array[];
  private count = 0;
  private row = 0;
  private readonly ends: { low: number; high: number; clipped: { readonly at: number; readonly isHigh: boolean }[] }[];
  private firstSeconds = 0;
  private lastSeconds = 0;
  private shortest = Infinity;
  private longest = 0;
  /** A row without all its cells is a truncation unless only empty rows follow. */
  private shortRow: number | null = null;
  problem: CaptureProblem | null = null;

  constructor(private readonly mapping: CaptureMapping) {
    this.samples = mapping.channels.map(() => new Float32Array(1 << 16));
    this.ends = mapping.channels.map(() => ({ low: Infinity, high: -Infinity, clipped: [] }));
  }

  /** Takes the next rows of the file, header rows included. */
  take(rows: readonly (readonly string[])[]): void {
    for (const cells of rows) {
      this.row += 1;
      if (this.row <= this.mapping.headerRows || this.problem) continue;
      if (cells.every((cell) => cell.trim() === "")) continue;
      this.takeRow(cells);
    }
  }

  private takeRow(cells: readonly string[]): void {
    const { timeColumn, timeScaleSeconds, channels, isDecimalComma } = this.mapping;
    if (this.shortRow !== null) return void this.fail("truncated", this.shortRow, "");
    const wanted = Math.max(timeColumn ?? 0, ...channels.map((one) => one.column));
    if (cells.length <= wanted || channels.some((one) => (cells[one.column] ?? "").trim() === "")) {
      this.shortRow = this.row;
      return;
    }
    if (this.count >= mostCaptureSamples) return void this.fail("too_long", this.row, String(mostCaptureSamples));
    if (timeColumn !== null) {
      const seconds = cellNumber(cells[timeColumn] ?? "", isDecimalComma) * timeScaleSeconds;
      if (!Number.isFinite(seconds)) return void this.fail("not_a_number", this.row, cells[timeColumn] ?? "");
      if (this.count === 0) this.firstSeconds = seconds;
      else {
        const step = seconds - this.lastSeconds;
        if (!(step > 0)) return void this.fail("time_runs_back", this.row, cells[timeColumn] ?? "");
        this.shortest = Math.min(this.shortest, step);
        this.longest = Math.max(this.longest, step);
      }
      this.lastSeconds = seconds;
    }
    for (const [n, channel] of channels.entries()) {
      const text = cells[channel.column] ?? "";
      const ends = this.ends[n] as (typeof this.ends)[number];
      if (isClipped(text)) {
        ends.clipped.push({ at: this.count, isHigh: !/-|</.test(text) });
        this.put(n, 0);
        continue;
      }
      const volts = cellNumber(text, isDecimalComma) * channel.scaleVolts;
      if (!Number.isFinite(volts)) return void this.fail("not_a_number", this.row, text);
      if (Math.abs(volts) > mostVolts) return void this.fail("implausible_volts", this.row, text);
      ends.low = Math.min(ends.low, volts);
      ends.high = Math.max(ends.high, volts);
      this.put(n, volts);
    }
    this.count += 1;
  }

  private put(channel: number, volts: number): void {
    let list = this.samples[channel] as Float32Array;
    if (this.count === list.length) {
      const larger = new Float32Array(list.length * 2);
      larger.set(list);
      this.samples[channel] = larger;
      list = larger;
    }
    list[this.count] = volts;
  }

  private fail(code: CaptureProblemCode, row: number | null, text: string): void {
    this.problem = { code, row, text: text.slice(0, 40) };
  }

  /** The capture, or why there is none. */
  finish(): ReadCapture | CaptureProblem {
    if (this.problem) return this.problem;
    // A last row that breaks off is a file that broke off.
    if (this.shortRow !== null) return { code: "truncated", row: this.shortRow, text: "" };
    if (this.count < leastCaptureSamples) return { code: "too_short", row: null, text: String(this.count) };
    const { timeColumn, intervalSeconds, channels } = this.mapping;
    const interval =
      timeColumn === null ? (intervalSeconds ?? 0) : (this.lastSeconds - this.firstSeconds) / (this.count - 1);
    if (!(interval > 0 && Number.isFinite(interval))) return { code: "no_interval", row: null, text: "" };
    if (
      timeColumn !== null &&
      (this.longest > (1 + unevenRatio) * interval || this.shortest < (1 - unevenRatio) * interval)
    ) {
      return { code: "time_uneven", row: null, text: "" };
    }
    return {
      intervalSeconds: interval,
      channels: channels.map((one, n) => ({
        name: one.name,
        samples: this.withEnds(n),
        clippedCount: this.ends[n]?.clipped.length ?? 0,
      })),
    };
  }

  /** The samples of a channel, with what was clipped at the end of what was seen. */
  private withEnds(n: number): Float32Array {
    const samples = (this.samples[n] as Float32Array).slice(0, this.count);
    const { low, high, clipped } = this.ends[n] as (typeof this.ends)[number];
    for (const { at, isHigh } of clipped) samples[at] = Number.isFinite(high) ? (isHigh ? high : low) : 0;
    return samples;
  }
}

/**
 * Whether an interval can be what it says on a rail that switches so fast: at least two samples a period, and some periods in the
 * window. A wrong unit of time is off by a thousand.
 */
export function isIntervalOdd(intervalSeconds: number, sampleCount: number, switchingHertz: number | null): boolean {
  const hertz = switchingHertz ?? usualSwitchingHertz;
  const isTooSlow = intervalSeconds * hertz > (switchingHertz === null ? 50 : 0.5);
  const isTooShort = sampleCount * intervalSeconds * hertz < (switchingHertz === null ? 0.1 : 3);
  return isTooSlow || isTooShort;
}

export const isCaptureProblem = (result: ReadCapture | CaptureProblem): result is CaptureProblem => "code" in result;

/** The kinds of instruments on a bench, and what each can read. */
export const instrumentKinds = ["lcr", "multimeter", "oscilloscope", "load", "thermometer", "mains"] as const;
export type InstrumentKind = (typeof instrumentKinds)[number];

/** The simulated bench listens on one port for each kind, counted up from this one. */
export const benchBasePort = 4790;
/** Ports of one bench: one for each kind, and two for a second and a third load. */
export const portsPerBench = 8;
export const mostLoads = 3;

/** Where a simulated instrument listens: which bench (from 0), and which of several loads (from 1). */
export const benchPort = (kind: InstrumentKind, basePort: number, set = 0, channel = 1) =>
  basePort +
  set * portsPerBench +
  (channel === 1 ? instrumentKinds.indexOf(kind) : instrumentKinds.length + channel - 2);

/** What an instrument is told to read, as its `FUNC` words; docs/instruments.md describes each. */
export const instrumentFunctions = {
  lcr: ["ESR", "CAP", "DISS", "VLOS"],
  multimeter: ["DCV", "ACV", "OHMS", "DIOD", "CONT", "COUP", "LEAK"],
  oscilloscope: ["PKPK", "FREQ", "STAR", "HOLD"],
  load: ["VOLT", "CURR", "POW"],
  thermometer: ["TEMP"],
  mains: ["POW", "CURR"],
} as const satisfies Readonly<Record<InstrumentKind, readonly string[]>>;
export type InstrumentFunction = (typeof instrumentFunctions)[InstrumentKind][number];

/** How a probed part is connected: as it sits, with one lead lifted, or out on the bench. */
export const probeStates = ["IN", "LIFTED", "OUT"] as const;
export type ProbeState = (typeof probeStates)[number];

/** The number that stands for "over range, nothing connected" in answers of measuring instruments. */
export const overRange = 9.9e37;

export type NumberAnswer =
  | { readonly kind: "value"; readonly value: number }
  | { readonly kind: "over_range" }
  | { readonly kind: "garbled" };

/** Longest answer that is read as a number: anything longer is noise on the line. */
const longestNumber = 40;

/**
 * One line as a number. What is no finite decimal number is garbled; what is at or above the over-range number says that
 * the instrument reads nothing.
 */
export function parseNumberAnswer(line: string): NumberAnswer {
  const text = line.trim();
  if (text.length > longestNumber || !/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text)) return { kind: "garbled" };
  const value = Number(text);
  if (!Number.isFinite(value)) return { kind: "garbled" };
  return Math.abs(value) >= overRange ? { kind: "over_range" } : { kind: "value", value };
}

/** A waveform as it crosses the line: a definite block of text, `#5` and five digits of length, holding "dt;v,v,v". */
export interface WaveformAnswer {
  readonly intervalSeconds: number;
  readonly volts: readonly number[];
}

export function printWaveform({ intervalSeconds, volts }: WaveformAnswer): string {
  const text = `${intervalSeconds.toExponential(6)};${volts.map((volt) => Number(volt.toPrecision(5))).join(",")}`;
  return `#5${String(text.length).padStart(5, "0")}${text}`;
}

/** @returns null for a block that is cut short, too long, or holds what is no number */
export function parseWaveform(line: string): WaveformAnswer | null {
  const head = /^#5(\d{5})/.exec(line);
  if (!head) return null;
  const text = line.slice(head[0].length);
  if (text.length !== Number(head[1])) return null;
  const [interval = "", list = ""] = text.split(";");
  const intervalSeconds = Number(interval);
  const volts = list.split(",").map(Number);
  if (!(intervalSeconds > 0) || list === "" || !volts.every(Number.isFinite)) return null;
  return { intervalSeconds, volts };
}

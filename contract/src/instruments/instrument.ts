import { type CircuitState, circuitStates } from "@pale-cap/core";
import type { InferType } from "yup";
import { fault } from "../faults";
import {
  boolean,
  idField,
  mixed,
  nullableDay,
  nullableId,
  nullablePositive,
  nullableText,
  nullableWord,
  number,
  object,
  strictObject,
  textField,
  wordField,
} from "../fields/fields";
import {
  type InstrumentFunction,
  type InstrumentKind,
  instrumentKinds,
  mostLoads,
  type WaveformAnswer,
} from "./protocol";

/** How the hub reaches an instrument. */
const transports = ["simulated", "tcp", "serial"] as const;
export type TransportKind = (typeof transports)[number];

/** What an instrument says: this product's own lines, or the common lines of a meter that answers READ? with a number. */
const drivers = ["bench_lines", "read_only_lines"] as const;
export type InstrumentDriver = (typeof drivers)[number];

/** An instrument as the shop set it up. */
export const instrumentSchema = strictObject({
  name: textField(40),
  kind: wordField<InstrumentKind>(instrumentKinds),
  driver: wordField<InstrumentDriver>(drivers),
  transport: wordField<TransportKind>(transports),
  /** TCP: where it listens. */
  host: nullableText(120).when("transport", ([transport], schema) =>
    transport === "tcp" ? schema.nonNullable(fault("needed")).trim().min(1, fault("needed")) : schema,
  ),
  port: number()
    .integer()
    .min(1)
    .max(65535)
    .nullable()
    .defined()
    .when("transport", ([transport], schema) => (transport === "tcp" ? schema.nonNullable(fault("needed")) : schema)),
  /** Serial: the device and its speed. */
  devicePath: nullableText(120).when("transport", ([transport], schema) =>
    transport === "serial" ? schema.nonNullable(fault("needed")).trim().min(1, fault("needed")) : schema,
  ),
  baudRate: number()
    .integer()
    .min(300)
    .max(4_000_000)
    .nullable()
    .defined()
    .when("transport", ([transport], schema) =>
      transport === "serial" ? schema.nonNullable(fault("needed")) : schema,
    ),
  isEnabled: boolean().required(),
  /** Where it stands; null: on the shop's first bench. */
  benchId: nullableId().optional(),
  /** When it was last held against something known. */
  checkedOn: nullableDay().optional(),
  /** Which of a bench's simulated loads it is, from 1 on. */
  channel: number().integer().min(1).max(mostLoads).optional(),
});
export type InstrumentValues = InferType<typeof instrumentSchema>;
export type Instrument = Omit<InstrumentValues, "benchId" | "channel" | "checkedOn"> & {
  readonly id: string;
  readonly version: number;
  readonly benchId: string;
  readonly channel: number;
  readonly checkedOn: string | null;
  /** Of its bench: which simulated instruments are meant. */
  readonly simulatedSet: number;
};

export const newInstrumentSchema = strictObject({ id: idField(), values: instrumentSchema.required() });
export const instrumentEditSchema = strictObject({
  writeId: idField(),
  version: number().integer().min(1).required(),
  values: instrumentSchema.required(),
});

/** How an instrument is doing, as the hub sees it. */
/** `elsewhere`: another process of the server speaks to it. */
export type InstrumentStatus =
  | "elsewhere"
  | "connecting"
  | "ready"
  | "slow"
  | "garbled"
  | "implausible"
  | "missing"
  | "off";

/** The last thing an instrument said. */
export interface LiveReading {
  readonly function: InstrumentFunction;
  /** SI; null: it reads nothing (over range, or no probes). */
  readonly value: number | null;
  readonly raw: string;
  readonly points: string | null;
  readonly circuitState: CircuitState | null;
  readonly frequencyHertz: number | null;
  /** The last values agree within a per cent or two. */
  readonly isSteady: boolean;
  readonly at: string;
}

/** One instrument as it stands now: what the stream carries. */
export interface InstrumentState {
  readonly id: string;
  readonly name: string;
  readonly kind: InstrumentKind;
  readonly benchId: string;
  /** The run that holds it: nobody else sets anything on it. */
  readonly runId: string | null;
  /** It reads the supply of the simulated bench, not what lies on the table. */
  readonly isSimulated: boolean;
  readonly status: InstrumentStatus;
  /** What went wrong last, in the hub's words. */
  readonly trouble: string | null;
  readonly identity: string | null;
  readonly reading: LiveReading | null;
  /** Switches of sources and loads as they were last set. */
  readonly settings: Readonly<Record<string, string>>;
}

/** What a person does with an instrument; nothing of it is a reading. */
export const instrumentActSchema = strictObject({
  /** Where the probes go: designators, nets or pins, as on the board; null leaves them. */
  points: nullableText(60),
  circuitState: nullableWord<CircuitState>(circuitStates),
  function: mixed<InstrumentFunction>().nullable().defined(),
  frequencyHertz: nullablePositive(10e6),
  /** Switches of loads and sources by name. */
  settings: object().nullable().defined(),
});
export interface InstrumentAct {
  readonly points: string | null;
  readonly circuitState: CircuitState | null;
  readonly function: InstrumentFunction | null;
  readonly frequencyHertz: number | null;
  readonly settings: Readonly<Record<string, string | number>> | null;
}

/** The switches that each kind understands. */
export const instrumentSettings: Readonly<Record<InstrumentKind, readonly string[]>> = {
  lcr: ["zero"],
  multimeter: [],
  oscilloscope: ["secondsPerDivision", "bandwidthLimit"],
  load: ["net", "amps", "watts", "swing", "input"],
  thermometer: [],
  mains: ["output", "lampWatts", "isolation", "drain"],
};

/** The virtual supply behind the simulated bench. */
export interface BenchSupply {
  readonly name: string;
  readonly title: string;
  readonly complaint: string;
  /** Its parts as quick-entry lines. */
  readonly lines: readonly string[];
  readonly choices: readonly { readonly name: string; readonly title: string }[];
}
export const benchSupplySchema = strictObject({ name: textField(40), benchId: nullableId().optional() });

/** A capture as the scope gave it. */
export interface Capture extends WaveformAnswer {
  readonly points: string | null;
}

/** Least and most that each function can honestly read, in SI: beyond them the instrument is not believed. */
export const plausibleValues: Readonly<Record<InstrumentFunction, readonly [number, number]>> = {
  ESR: [0, 1e6],
  CAP: [0, 1],
  DISS: [0, 1000],
  VLOS: [0, 1],
  DCV: [-2000, 2000],
  ACV: [0, 2000],
  OHMS: [0, 200e6],
  DIOD: [-0.1, 20],
  CONT: [0, 200e6],
  COUP: [0, 200e6],
  LEAK: [0, 1],
  PKPK: [0, 1000],
  FREQ: [0, 100e6],
  STAR: [0, 600],
  HOLD: [0, 600],
  VOLT: [-1000, 1000],
  // A meter's noise around nought may be below it.
  CURR: [-1, 500],
  POW: [-10, 10e3],
  TEMP: [-60, 400],
};

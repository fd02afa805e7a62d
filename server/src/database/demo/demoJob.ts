import type { BoardValues, ComponentPlan, Intake, NetValues } from "@pale-cap/contract";
import type {
  CapacitorClass,
  PartKind,
  PolarityMark,
  ReworkStep,
  StoreKind,
  TeardownKind,
  VisualSign,
} from "@pale-cap/core";

/** How a demo job is written down: short rows in bench units, turned into stored rows by loadDemoShop. */
export interface DemoJob {
  /** Minutes before the load at which the job was made. */
  readonly minutesAgo: number;
  readonly person: "Ines" | "Marek" | "Tomo";
  readonly intake: Partial<Intake> & Pick<Intake, "deviceKind">;
  readonly dueInDays: number | null;
  readonly board: BoardValues;
  readonly nets: Readonly<Record<string, NetValues>>;
  readonly capacitors: readonly DemoCapacitor[];
  readonly outlines: readonly DemoOutline[];
  readonly stores: readonly DemoStore[];
  readonly charge: readonly DemoCharge[];
  readonly looked: Readonly<Record<string, readonly VisualSign[]>>;
  readonly readings: readonly DemoReading[];
  readonly plans: readonly string[];
  /** What is known of other parts, by designator. */
  readonly components?: Readonly<Record<string, Pick<ComponentPlan, "kind" | "ratings">>>;
  readonly ticks: readonly DemoTick[];
  /** Readings taken after the rework, on the new parts and on rails. */
  readonly proof: readonly DemoReading[];
  readonly handedOverMinutesAgo: number | null;
  /** Ripple as a scope saw it, made from the parts as they were read. */
  readonly captures?: readonly DemoCapture[];
  readonly spentMinutes?: number;
  /** Both sides of the board are photographed. */
  readonly hasPhotos?: boolean;
  readonly opening?: readonly DemoOpening[];
}

/** Net, name, seconds shown, load, and what of the mains is on it. */
export interface DemoCapture {
  readonly net: string;
  readonly name: string;
  readonly seconds: number;
  readonly loadAmps: number;
  /** Peak to peak at twice the mains frequency. */
  readonly mainsVolts: number;
  readonly minutesAgo: number;
}

/** One step of taking apart: what, how many, size and place. */
export type DemoOpening = readonly [TeardownKind, number, string | null, string];

/** A repair of which only the outcome is still told. */
export interface DemoClosedJob {
  readonly daysAgo: number;
  readonly deviceModel: string;
  readonly complaint: string;
  readonly spentMinutes: number;
}

export interface DemoCapacitor {
  readonly at: string;
  readonly net: string;
  readonly microfarads: number;
  readonly volts: number;
  readonly celsius: number;
  readonly capacitorClass: CapacitorClass;
  /** Diameter, height, pitch in millimetres. */
  readonly can: readonly [number, number, number];
  /** Middle on the board in millimetres; null: not placed yet. */
  readonly place: readonly [number, number] | null;
  readonly stripeDegrees: number | null;
  readonly mark: PolarityMark | null;
}

/** Designator, kind, left edge, top edge, width, depth and perhaps height above the board, in millimetres. */
export type DemoOutline = readonly [string, PartKind, number, number, number, number, number?];

export interface DemoStore {
  readonly name: string;
  readonly at: string;
  readonly microfarads: number;
  readonly volts: number;
  readonly drainOhms: number | null;
  readonly kind?: StoreKind;
  readonly bleederOhms?: number;
}

export interface DemoCharge {
  readonly minutesAgo: number;
  readonly kind: "mains_connected" | "mains_disconnected" | "drain_started" | "voltage_measured";
  readonly volts?: number;
  readonly ohms?: number;
  readonly proved?: boolean;
}

/** Target (designator or net name), quantity, value in SI, and how it was taken. */
export interface DemoReading {
  readonly minutesAgo: number;
  readonly at: string;
  readonly quantity:
    | "esr"
    | "capacitance"
    | "dc_voltage"
    | "ripple_voltage"
    | "voltage_loss"
    | "resistance"
    | "diode_drop";
  /** null: it read open. */
  readonly value: number | null;
  /** Pins, on parts that have more than two, and wherever a test names them. */
  readonly pins?: string;
  readonly state?: "in_circuit" | "lead_lifted" | "out";
  readonly hertz?: number;
  readonly loadAmps?: number;
}

export interface DemoTick {
  readonly minutesAgo: number;
  readonly step: ReworkStep;
  readonly at: readonly string[];
}

/** One capacitor in a row of text: value, voltage, class and can as they stand on the sleeve. */
export function capacitor(
  at: string,
  net: string,
  [microfarads, volts, celsius]: readonly [number, number, number],
  can: readonly [number, number, number],
  place: readonly [number, number] | null,
  stripeDegrees: number | null = 90,
  capacitorClass: CapacitorClass = "lowz",
  mark: PolarityMark | null = "dark_half",
): DemoCapacitor {
  return { at, net, microfarads, volts, celsius, capacitorClass, can, place, stripeDegrees, mark };
}

/** A net of a demo board. */
export function net(
  name: string,
  section: NetValues["section"],
  nominalVolts: number | null,
  fullLoadAmps: number | null = null,
  /** Key of the net that this one is filtered from, with the choke between. */
  behind?: { readonly key: string; readonly henrys: number; readonly ohms: number },
): NetValues {
  const network = behind
    ? {
        arrangement: "parallel" as const,
        behindNetId: behind.key,
        chokeHenrys: behind.henrys,
        chokeOhms: behind.ohms,
      }
    : null;
  return {
    name,
    section,
    nominalVolts,
    fullLoadAmps,
    toleranceRatio: null,
    rippleLimitVolts: null,
    network,
    converter: null,
  };
}

/** ESR and capacitance of one part, as two readings. */
export function measured(
  at: string,
  esrOhms: number,
  microfarads: number | null,
  state: "in_circuit" | "lead_lifted" | "out",
  minutesAgo: number,
): DemoReading[] {
  const esr: DemoReading = { minutesAgo, at, quantity: "esr", value: esrOhms, state, hertz: 100e3 };
  if (microfarads === null) return [esr];
  return [esr, { minutesAgo, at, quantity: "capacitance", value: microfarads / 1e6, state, hertz: 120 }];
}

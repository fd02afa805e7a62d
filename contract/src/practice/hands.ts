import { type CapacitorClass, capacitorClasses, type PartKind, type Section } from "@pale-cap/core";
import type { InferType } from "yup";
import {
  boolean,
  finiteNumber,
  nullableBetween,
  nullablePositive,
  nullableText,
  nullableWord,
  strictObject,
  wordField,
} from "../fields/fields";

/** What a pair of hands does with a practice supply; readings go by the instruments. */
export const handActKinds = [
  /** Looks at a part, or at the whole board where none is named. */
  "look",
  "smell",
  "listen",
  "move",
  "cool",
  "warm",
  "wait",
  "lift",
  "take_out",
  "put_back",
  "fit",
  "renew",
  "resolder",
  "clean",
  "mend",
  "new_meter",
  "mains",
  "drain",
  "clip",
  "host",
  "load",
  "check",
] as const;
export type HandActKind = (typeof handActKinds)[number];

/** What can be tried around a supply before it is opened. */
export const handChecks = ["lead", "output_lead", "bench_feed", "lamps", "swap"] as const;
export type HandCheck = (typeof handChecks)[number];

/** A new capacitor as it lies in the hand. */
const partInHandSchema = strictObject({
  microfarads: finiteNumber().moreThan(0).max(1e6).required(),
  volts: finiteNumber().moreThan(0).max(1000).required(),
  capacitorClass: wordField<CapacitorClass>(capacitorClasses),
  /** Its stripe towards the plus of the place. */
  isReversed: boolean().required(),
});

export const handActSchema = strictObject({
  kind: wordField<HandActKind>(handActKinds),
  /** The part or net it is done to. */
  at: nullableText(40).optional(),
  minutes: nullableBetween(0.1, 120).optional(),
  part: partInHandSchema.nullable().optional(),
  check: nullableWord<HandCheck>(handChecks).optional(),
  isOn: boolean().nullable().optional(),
  lampWatts: nullablePositive(500).optional(),
  isIsolated: boolean().nullable().optional(),
  ohms: nullablePositive(1e6).optional(),
  amps: nullableBetween(0, 100).optional(),
  /** The joint's copper was warmed from below before the iron came. */
  isPreheated: boolean().nullable().optional(),
});
export type HandAct = InferType<typeof handActSchema>;

/** An act as it stands in a list of what was done: the mains goes on or off, a trial names what was tried. */
export const actName = ({ kind, isOn, check }: Pick<HandAct, "kind" | "isOn" | "check">): string =>
  kind === "mains" ? (isOn ? "mains_on" : "mains_off") : kind === "check" ? `check_${check}` : kind;

/** What follows from an act or a reading by itself. Those that a hand should never see carry what was there. */
export const consequences = [
  "live_touch",
  "meter_killed",
  "fuse_blown",
  "power_untested",
  "transistor_burnt",
  "part_vented",
  "new_part_burnt",
  "bench_tripped",
  "breaker_tripped",
  "earth_trip",
  "host_unchecked",
  "host_killed",
  "pad_pulled",
  "overvolted",
] as const;
export type Consequence = (typeof consequences)[number];

/** One that happened on the simulated bench. */
export interface BenchEvent {
  /** Counted from 1 on each supply. */
  readonly sequence: number;
  readonly code: Consequence;
  readonly at: string | null;
  /** What stood there: volts and joules. */
  readonly volts: number | null;
  readonly joules: number | null;
  /** Seconds on the bench since the supply was laid there. */
  readonly benchSeconds: number;
}

/** What hands, eyes and nose tell back. */
export const toldCodes = [
  "done",
  "looks",
  "looks_clean",
  "smells",
  "smells_of_nothing",
  "ticks",
  "hums",
  "whines",
  "silent",
  "lamp",
  "no_lamp_runs",
  "no_lamp_nothing",
  "check_good",
  "check_bad",
  "moved_changes",
  "moved_nothing",
  "host_works",
  "host_fails",
  "not_there",
  "not_so",
] as const;
export type ToldCode = (typeof toldCodes)[number];

export interface Told {
  readonly code: ToldCode;
  /** Looks, smells and sounds in the supply's own words. */
  readonly words: string | null;
  readonly at: string | null;
  /** Of a lamp: share of its full light at switch-on, and once it has settled. */
  readonly flashRatio?: number;
  readonly glowRatio?: number;
}

/** The answer of the bench to one act. */
export interface HandAnswer {
  readonly told: readonly Told[];
  readonly minutes: number;
  /** Everything that happened on it so far. */
  readonly events: readonly BenchEvent[];
  readonly state: HandsState;
}

/** How things stand on the simulated bench, without its truth. */
export interface HandsState {
  readonly isMainsOn: boolean;
  readonly lampWatts: number | null;
  readonly isIsolated: boolean;
  readonly isMeterDead: boolean;
  readonly isClipped: string | null;
  readonly isHostOn: boolean;
  readonly drain: { readonly net: string; readonly ohms: number } | null;
  readonly loads: readonly { readonly net: string; readonly amps: number }[];
  readonly lifted: readonly string[];
  readonly out: readonly string[];
  readonly pulled: readonly string[];
}

/** The board of a practice supply as a camera and a label tell it. Lengths in metres. */
export interface PracticeBoard {
  readonly board: { readonly widthMetres: number; readonly depthMetres: number; readonly barrierMetres: number };
  readonly nets: readonly {
    readonly name: string;
    readonly section: Section;
    readonly nominalVolts: number | null;
    readonly fullLoadAmps: number | null;
    readonly behind: string | null;
    readonly chokeHenrys: number | null;
    readonly chokeOhms: number | null;
    /** The halves of a doubler. */
    readonly isInRow: boolean;
  }[];
  readonly places: readonly {
    readonly at: string;
    readonly kind: PartKind;
    readonly net: string | null;
    readonly place: readonly [number, number];
    readonly outline: readonly [number, number] | null;
    readonly markedOhms: number | null;
    readonly capacitor: {
      readonly capacitanceFarads: number;
      readonly ratedVolts: number;
      readonly temperatureClassCelsius: number;
      readonly capacitorClass: CapacitorClass;
      readonly diameterMetres: number;
      readonly heightMetres: number;
      readonly pitchMetres: number;
    } | null;
  }[];
}

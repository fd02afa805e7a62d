import type { CapacitorClass } from "../capacitors/capacitorClass";
import type { ConverterDescription } from "./converterDescription";
import type { Section } from "./sections";

/** A point on a board or in a photo, metres or pixels. */
export type Point = [x: number, y: number];

/** A part of the lid that stands at its own height. */
export interface LidZone {
  readonly xMetres: number;
  readonly yMetres: number;
  readonly widthMetres: number;
  readonly depthMetres: number;
  readonly heightMetres: number;
}

/** A rail or node. Section belongs to the net; banks are derived from it. */
export interface BoardNet {
  readonly id: string;
  readonly name: string;
  readonly section: Section;
  readonly nominalVolts: number | null;
  /** What the unit must deliver here; null where nothing was promised. */
  readonly fullLoadAmps: number | null;
  readonly toleranceRatio: number | null;
  readonly rippleLimitVolts: number | null;
  /** How its capacitors hang together and across what; null: parallel, behind nothing. */
  readonly network: NetNetwork | null;
  /** What is known of the converter that feeds it; null: nothing. */
  readonly converter: ConverterDescription | null;
  /** It needs at least so much to regulate; absent or null: nobody said. */
  readonly leastLoadAmps?: number | null | undefined;
  /** It drives a current, as a backlight does: loaded by volts, and never left open. */
  readonly isCurrentOutput?: boolean | null | undefined;
}

export const bankArrangements = ["parallel", "series"] as const;
export type BankArrangement = (typeof bankArrangements)[number];

/** The electrical surroundings of a bank, as far as the board shows them. */
export interface NetNetwork {
  /** `series`: each capacitor between two nodes of its own, as in a voltage doubler. */
  readonly arrangement: BankArrangement;
  /** The net this one is filtered from, across a choke. */
  readonly behindNetId: string | null;
  /** null: not known, assumed. */
  readonly chokeHenrys: number | null;
  readonly chokeOhms: number | null;
}

/** A small output choke, where a board has one of which nothing is known. Rough. */
export const assumedChoke = { henrys: 4.7e-6, ohms: 0.02 } as const;

export const partKinds = [
  "electrolytic",
  "film",
  "fuse",
  "thermal-fuse",
  "relay",
  "ptc",
  "varistor",
  "ntc",
  "bridge",
  "diode",
  "zener",
  "transistor",
  "resistor",
  "ic",
  "optocoupler",
  "transformer",
  "choke",
  "connector",
  "fan",
  "regulator",
  "heat-sink",
] as const;
export type PartKind = (typeof partKinds)[number];

/** How a part is held beside its solder joints. */
export const fixings = ["free", "glued", "clamped"] as const;
export type Fixing = (typeof fixings)[number];

export const polarityMarks = ["plus_printed", "minus_printed", "light_half", "dark_half", "dot", "none"] as const;
export type PolarityMark = (typeof polarityMarks)[number];

/** A place on a board. Lengths in metres from the board's upper left corner; null: not placed yet. */
export interface BoardPosition {
  readonly id: string;
  readonly designator: string;
  readonly kind: PartKind;
  readonly netId: string | null;
  readonly xMetres: number | null;
  readonly yMetres: number | null;
  /** Outline of parts that are not round cans. */
  readonly outlineWidthMetres: number | null;
  readonly outlineDepthMetres: number | null;
  /** How far it stands above the board: heat sinks and tall parts are in a new can's way. */
  readonly outlineHeightMetres: number | null;
  /** Marking of a resistor or thermistor (cold); null on other parts, and where nobody read it. */
  readonly markedOhms: number | null;
  readonly pitchMetres: number | null;
  readonly polarityMark: PolarityMark | null;
  /** Direction in which the board's own mark puts the negative side; 0 is right, 90 is down. */
  readonly boardNegativeDegrees: number | null;
  readonly fixing: Fixing | null;
  /** What warms it: a sink, a choke, a resistor, as a person names it. */
  readonly heatSource: string | null;
}

/** Where a part that no catalogue knows came from. */
export const partSources = ["drawer", "bought", "salvaged", "unknown"] as const;
export type PartSource = (typeof partSources)[number];

/** A physical part at a position, or in the hand for it. */
export interface FittedPart {
  readonly id: string;
  readonly positionId: string;
  readonly capacitanceFarads: number | null;
  readonly ratedVolts: number | null;
  readonly temperatureClassCelsius: number | null;
  readonly capacitorClass: CapacitorClass | null;
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  /** Direction of the stripe (negative side) as fitted; 0 is right, 90 is down. */
  readonly stripeDegrees: number | null;
  /** Either way round: it has no stripe, and no polarity is asked of it. */
  readonly isNonPolar?: boolean | undefined;
  readonly datasheetEsrOhms: number | null;
  readonly toleranceRatio: number | null;
  readonly series: string | null;
  readonly origin: "found" | "replacement";
  /** Where an own part came from; null or absent on what was found and on what the catalogue has. */
  readonly source?: PartSource | null | undefined;
  /** null on what was found, and on a new part that is not soldered yet. */
  readonly fittedAt: string | null;
  readonly removedAt: string | null;
}

/** A new part that lies there and is not soldered yet. */
export const isInHand = ({ origin, fittedAt, removedAt }: FittedPart): boolean =>
  origin === "replacement" && fittedAt === null && removedAt === null;

/** What sits at a position now; undefined while it is empty. */
export function currentPart<T extends FittedPart>(parts: readonly T[], positionId: string): T | undefined {
  return parts.find((part) => part.positionId === positionId && part.removedAt === null && !isInHand(part));
}

/** What was found at a position when the unit came in. */
export function foundPart<T extends FittedPart>(parts: readonly T[], positionId: string): T | undefined {
  return parts.find((part) => part.positionId === positionId && part.origin === "found");
}

/** The new part that lies ready for a position, not soldered yet. */
export function partInHand<T extends FittedPart>(parts: readonly T[], positionId: string): T | undefined {
  return parts.find((part) => part.positionId === positionId && isInHand(part));
}

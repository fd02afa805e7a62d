import type { FittedPart } from "../board/board";
import type { Section } from "../board/sections";

/**
 * How near the counted parts are to the one in question: at the same place of the same model, of the same series and age, of the same series, of
 * the same maker. */
export const recordLevels = ["place", "series_age", "series", "maker"] as const;
export type RecordLevel = (typeof recordLevels)[number];

/** Parts of one kind that closed jobs showed to have failed, among those that were shown to be anything. */
export interface PartTally {
  readonly level: RecordLevel;
  /** A designator, or a series and section as `seriesSubject` has them. */
  readonly subject: string;
  readonly failedCount: number;
  readonly seenCount: number;
}

/**
 * What closed jobs say of a fault: that it was the shown cause (`prior`), that a unit with it showed a finding (`shows`), that it
 * took another along (`causes`).
 */
export const faultTallyKinds = ["prior", "shows", "causes"] as const;
export type FaultTallyKind = (typeof faultTallyKinds)[number];

/** Stands for all faults in a tally of priors: its total is the number of jobs whose cause was shown. */
export const anyFault = "*";

export interface FaultTally {
  readonly kind: FaultTallyKind;
  readonly fault: string;
  /** The finding or the other fault; null with `prior`. */
  readonly other: string | null;
  /** Of supplies built alike, or of the same model. */
  readonly of: "topology" | "model";
  readonly count: number;
  /** 0: left out, whatever `anyFault` says. */
  readonly total: number;
}

/** What the shop's closed jobs say to one job; its own result is never in it. */
export interface ShopRecord {
  /** Below so many nothing is counted on. */
  readonly fewestCount: number;
  /** How many units the default is worth. */
  readonly defaultWeight: number;
  /** The job's own band of age. */
  readonly ageBand: AgeBand | null;
  /** Among which jobs was counted: supplies built alike, and its own model or board type; null where that is not told. */
  readonly scopes: Readonly<Record<FaultTally["of"], string | null>>;
  readonly parts: readonly PartTally[];
  readonly faults: readonly FaultTally[];
}

const bandEdgesYears = [3, 6, 10] as const;
export type AgeBand = "to_3" | "to_6" | "to_10" | "older";

/** Devices of about an age are counted together. */
export function ageBandOf(years: number | null): AgeBand | null {
  if (years === null) return null;
  const n = bandEdgesYears.findIndex((edge) => years < edge);
  return (["to_3", "to_6", "to_10"] as const)[n] ?? "older";
}

/** Whose and of which series a part is, as far as anybody told. */
export interface MadePart {
  readonly series: string | null;
  readonly maker?: string | null | undefined;
}

/** A series as it is told from others: however it was typed. */
export const seriesKey = (series: string): string => series.trim().toLowerCase().replaceAll(/\s+/g, " ");

/** Under what parts of a series are counted, at a section; null where the part tells no series. */
export function seriesSubject(
  part: Pick<FittedPart, "series">,
  section: Section | null,
  ageBand: AgeBand | null = null,
): string | null {
  if (!part.series?.trim() || section === null) return null;
  return [seriesKey(part.series), section, ...(ageBand ? [ageBand] : [])].join("|");
}

/** Under what parts of a maker are counted, at a section; null where nobody told who made it. */
export function makerSubject(maker: string | null | undefined, section: Section | null): string | null {
  return !maker?.trim() || section === null ? null : `${seriesKey(maker)}|${section}`;
}

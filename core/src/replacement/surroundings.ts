import type { LidZone } from "../board/board";
import type { RailRules } from "../board/railRules";
import type { JobFacts } from "../facts/jobFacts";
import type { ChosenPart } from "../ripple/railRipple";

/** Ways that a can keeps, by the house's rules. A can counts as live at its minus, and its sleeve insulates nothing. */
export interface Clearances {
  /** Between the mains side and the secondary. */
  readonly secondaryMetres: number;
  /** From the mains side to metal that is earthed or may be, the lid included. */
  readonly earthedMetres: number;
  readonly hotMetres: number;
}

/** What a place stands in, as far as what it needs follows from it. */
export interface Surroundings {
  readonly facts: Pick<JobFacts, "nets" | "positions" | "fittedParts" | "readings" | "device">;
  /** By position: what the plan puts there. */
  readonly chosen: ReadonlyMap<string, ChosenPart>;
  /** Places that are out while this one is filled, or stay empty. */
  readonly emptyIds: ReadonlySet<string>;
  /** Of the board on which the place is; null: nobody drew one. */
  readonly lid: {
    readonly lidHeightMetres: number | null;
    readonly lidZones: readonly LidZone[];
    readonly widthMetres?: number;
    readonly depthMetres?: number;
  } | null;
  readonly rail: RailRules;
  /** Absent: the usual ones. */
  readonly clearances?: Clearances;
  readonly mainsHertz: number;
}

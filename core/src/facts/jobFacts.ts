import type { BaselineValue } from "../board/baseline";
import type { BoardNet, BoardPosition, FittedPart } from "../board/board";
import type { LoggedFact } from "../readings/factMoment";
import type { Reading } from "../readings/reading";
import type { CaptureFact } from "./captures";
import type { ChargeEvent, EnergyStore } from "./chargeFacts";
import type { DeviceKind } from "./deviceKinds";
import type { Topology } from "./deviceProfiles";
import type { JobAct } from "./jobActs";
import type { VerdictOverrule } from "./overrules";
import type { PowerEvent } from "./powerEvents";
import type { ShopRecord } from "./shopRecord";
import type { TeardownReturn, TeardownStep } from "./teardown";
import type { SignObservation } from "./visualSigns";

export const lenses = [
  "intake",
  "make-safe",
  "inspect",
  "measure",
  "judge",
  "choose",
  "rework",
  "prove",
  "hand-over",
] as const;
export type Lens = (typeof lenses)[number];

export const reworkSteps = ["removed", "fitted", "polarity_board_mark", "polarity_part_mark"] as const;
export type ReworkStep = (typeof reworkSteps)[number];

/** One tick of the rework list; a later tick of the same step overrides. */
export interface ReworkTick extends LoggedFact {
  readonly positionId: string;
  readonly step: ReworkStep;
  readonly isDone: boolean;
  /** The part that went in; null or absent with every other step. */
  readonly fittedPartId?: string | null | undefined;
}

/** What was decided for a position. */
export interface ReplacementPlan {
  readonly positionId: string;
  readonly cataloguePartId: string | null;
  /** The part itself, once it lies there: a piece of the catalogue part, or an own one without any catalogue. */
  readonly partInHandId?: string | null | undefined;
  /** Nothing goes in: what stands beside it carries it. */
  readonly isLeftEmpty?: boolean | undefined;
  /** Of a place that holds no electrolytic: out of the list of other parts, or in words. */
  readonly component?: { readonly componentId: string | null } | null | undefined;
  readonly otherPart?: string | null | undefined;
  /** The round that it was made in. */
  readonly round?: number | undefined;
}

/** Whether anything was chosen for a place. */
export const isChosen = ({ cataloguePartId, partInHandId, component, otherPart }: ReplacementPlan): boolean =>
  cataloguePartId !== null || partInHandId != null || component?.componentId != null || otherPart != null;

/** Places that stay empty by the plan. */
export const leftEmptyIds = (plans: readonly ReplacementPlan[]): ReadonlySet<string> =>
  new Set(plans.filter((one) => one.isLeftEmpty).map((one) => one.positionId));

/** What kind of device it is, as far as anyone said. */
export interface DeviceFacts {
  readonly kind: DeviceKind;
  readonly topology: Topology | null;
  readonly ageYears: number | null;
}

/** What the counter tried before anything was opened, and what the output stood at. */
export interface IntakeFacts {
  readonly checks: Readonly<
    Partial<
      Record<
        "swap" | "benchFeed" | "leadAndFuse" | "rearSwitch" | "outputLead" | "lamps" | "rangeSwitch",
        string | null
      >
    >
  >;
  readonly outputVolts: number | null;
}

/** Everything that was entered on a job, as far as the computations need it. */
export interface JobFacts {
  readonly complaint: string | null;
  readonly device: DeviceFacts;
  readonly symptoms: readonly string[];
  /** Whether anything told at intake that it is the supply at all: another one swapped in, the load fed from a bench. */
  readonly isSupplyChecked: boolean;
  readonly intake: IntakeFacts;
  readonly nets: readonly BoardNet[];
  readonly positions: readonly BoardPosition[];
  readonly fittedParts: readonly FittedPart[];
  readonly readings: readonly Reading[];
  readonly signs: readonly SignObservation[];
  readonly overrules: readonly VerdictOverrule[];
  readonly captures: readonly CaptureFact[];
  /** What good boards of the same type read; empty where the type is not known. */
  readonly baseline: readonly BaselineValue[];
  readonly energyStores: readonly EnergyStore[];
  readonly chargeEvents: readonly ChargeEvent[];
  readonly powerEvents: readonly PowerEvent[];
  readonly teardownSteps: readonly TeardownStep[];
  readonly teardownReturns: readonly TeardownReturn[];
  readonly plans: readonly ReplacementPlan[];
  readonly ticks: readonly ReworkTick[];
  readonly acts: readonly JobAct[];
  readonly handedOverAt: string | null;
  /** What the shop's other closed jobs say to it; null: nothing, or it is switched off. */
  readonly record: ShopRecord | null;
}

/** A job of which nothing is known yet. */
export const emptyJobFacts: JobFacts = {
  complaint: null,
  device: { kind: "other", topology: null, ageYears: null },
  symptoms: [],
  isSupplyChecked: false,
  intake: { checks: {}, outputVolts: null },
  nets: [],
  positions: [],
  fittedParts: [],
  readings: [],
  signs: [],
  overrules: [],
  captures: [],
  baseline: [],
  energyStores: [],
  chargeEvents: [],
  powerEvents: [],
  teardownSteps: [],
  teardownReturns: [],
  plans: [],
  ticks: [],
  acts: [],
  handedOverAt: null,
  record: null,
};

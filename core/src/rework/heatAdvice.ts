import type { PartKind } from "../board/board";
import type { JointPlane } from "../facts/jobActs";

export type SolderMelt = "leaded" | "lead_free";

/** What helps beside the tip. */
export type HeatHelp =
  | "leaded_solder"
  | "preheat"
  | "low_melt_then_clear"
  | "two_irons"
  /** Pitch up to 5 mm: both legs at once. */
  | "both_legs"
  /** Wider: one leg, then the other. */
  | "rock";

export interface HeatAdvice {
  readonly tipCelsius: readonly [low: number, high: number];
  readonly tipMetres: readonly [low: number, high: number];
  readonly mostSeconds: number;
  readonly preheatCelsius: readonly [low: number, high: number] | null;
  readonly help: readonly HeatHelp[];
}

/** A lead as thick as this wants two irons, or one on each side. */
const thickLeadMetres = 1.5e-3;
const [bothLegsPitchMetres, rockPitchMetres] = [5e-3, 7.5e-3];

/**
 * Tip, temperature and dwell for one joint.
 *
 *     signal pad 330-350 C leaded, 360-380 C lead-free, 2 mm, 3 s; plane on one side 380 C, 3-4 mm, 5 s;
 *     on both 400 C, 5 mm, 10 s at most, board preheated to 100-120 C
 *
 * Rough, from experience: what the pad does decides. Three tries, then preheat; nothing is levered.
 *
 * @param leadMetres diameter of the lead; @param pitchMetres between two legs, null where there are not two
 */
export function heatAdvice(
  plane: JointPlane,
  melt: SolderMelt,
  leadMetres: number,
  pitchMetres: number | null,
): HeatAdvice {
  const thick: readonly HeatHelp[] = leadMetres > thickLeadMetres ? ["two_irons"] : [];
  const legs: readonly HeatHelp[] =
    pitchMetres === null
      ? []
      : pitchMetres <= bothLegsPitchMetres + 1e-9
        ? ["both_legs"]
        : pitchMetres >= rockPitchMetres - 1e-9
          ? ["rock"]
          : [];
  if (plane === "both_sides") {
    return {
      ...{ tipCelsius: [400, 400], tipMetres: [5e-3, 5e-3], mostSeconds: 10, preheatCelsius: [100, 120] },
      help: ["preheat", "low_melt_then_clear", ...thick, ...legs],
    };
  }
  if (plane === "one_side") {
    return {
      ...{ tipCelsius: [380, 380], tipMetres: [3e-3, 4e-3], mostSeconds: 5, preheatCelsius: null },
      help: ["leaded_solder", ...thick, ...legs],
    };
  }
  return {
    tipCelsius: melt === "leaded" ? [330, 350] : [360, 380],
    ...{ tipMetres: [2e-3, 2e-3], mostSeconds: 3, preheatCelsius: null },
    help: [...thick, ...legs],
  };
}

/** Usual lead of a part; cans by their diameter. Rough. */
export function usualLeadMetres(kind: PartKind, diameterMetres: number | null): number {
  if (kind === "electrolytic") {
    const d = diameterMetres ?? 10e-3;
    // Snap-in cans stand on blades.
    return d >= 20e-3 ? 1.6e-3 : d > 6.3e-3 ? (d > 12.5e-3 ? 0.8e-3 : 0.6e-3) : 0.5e-3;
  }
  return leads[kind] ?? 0.6e-3;
}

const leads: Readonly<Partial<Record<PartKind, number>>> = {
  bridge: 1.3e-3,
  transistor: 1e-3,
  diode: 1e-3,
  choke: 1.2e-3,
  transformer: 0.9e-3,
  connector: 1e-3,
  relay: 1e-3,
  ntc: 1e-3,
  varistor: 0.9e-3,
  film: 0.8e-3,
  fuse: 0.8e-3,
  "heat-sink": 1.6e-3,
};

import type { TableRow } from "../numerics/interpolate";
import defaults from "./judgementDefaults.json";

type Row3 = readonly [number, number, number];
type Row4 = readonly [number, number, number, number];
type Band = { readonly low: number; readonly typ: number; readonly high: number };

/** Limits of one end-of-life school: C worn/failed as ratio, ESR worn/failed as multiple of `ref`. */
export interface EndOfLifeSchool {
  readonly c_w: number;
  readonly c_f: number;
  readonly r_w: number;
  readonly r_f: number;
  readonly ref: "typ" | "high";
  readonly s_init: number;
}

export type SchoolName = "ten" | "twenty" | "eol200" | "eol300";

/** v_warn, v_rej, cmin, cmax, esr_lo, esr_hi_warn, esr_hi_rej, ripple_warn, ripple_rej, polymer */
export type PositionLimitsRow = readonly [
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  number,
  "warn" | "reject",
];

/**
 * The engineering constants, one object per section of the formula specification. Keys are those of the reference
 * set (not house names), so that another set can be dropped in unchanged.
 */
export interface JudgementConstants {
  readonly A: {
    readonly f_ref_lo: number;
    readonly f_ref_hi: number;
    readonly T_ref_C: number;
    readonly tan_gp: readonly TableRow[];
    readonly tan_lowz: readonly TableRow[];
    readonly tan_slope_per_1000uF: number;
    readonly tan_knee_uF: number;
    readonly typ_over_max_120: number;
    readonly kappa100: number;
    readonly kappa_exp: number;
    readonly kappa_floor: number;
    readonly kappa_cap_lv: number;
    readonly kappa_cap_hv: number;
    readonly kappa_class: Readonly<Record<"gp" | "lowz" | "ultra", number>>;
    readonly tan_ox_floor: number;
    readonly tan_ox_polymer: number;
    readonly band_tan: { readonly low: number; readonly high: number };
    readonly band_max: Band;
    readonly kT_a: number;
    readonly kT_E: number;
    readonly kT_min_C: number;
    readonly kT_max_C: number;
    readonly can_lowz: readonly Row4[];
    readonly class_ratio: Readonly<Record<"gp" | "lowz" | "ultra", number>>;
    readonly volt_factor: readonly TableRow[];
    readonly power_law: { readonly k: number; readonly a: number; readonly b: number; readonly rms_ln: number };
    readonly h_pseudo: number;
    readonly dT0_pseudo: number;
    readonly can_poly: readonly Row3[];
    readonly poly_default: number;
    readonly poly_volt_factor: readonly TableRow[];
    readonly match_D_mm: number;
    readonly match_L_mm: number;
    readonly xc_guard: number;
    readonly small_D_mm: number;
    readonly small_D_factor: number;
  };
  readonly B: {
    readonly schools: Readonly<Record<SchoolName, EndOfLifeSchool>>;
    readonly s_limit_eol: number;
    readonly z90: number;
    readonly prior_fail: number;
    readonly prior_worn: number;
    readonly clip_lo: number;
    readonly clip_hi: number;
    readonly visual_floor: number;
    readonly mech_worn: number;
    readonly clear_cap: { readonly no_esr: number; readonly no_c: number; readonly full: number };
    readonly leak_sigma: number;
    readonly evidence: Readonly<Record<string, TableRow>>;
    readonly groups: Readonly<Record<string, readonly string[]>>;
    readonly damp: number;
    readonly vloss: readonly TableRow[];
    readonly vloss_worn_shift: number;
    readonly esr_low_factor: number;
    readonly c_high: number;
    readonly vloss_high: number;
    readonly leak_sig_llr: number;
    readonly cut_fail: number;
    readonly cut_worn: number;
    readonly cut_sound_fail: number;
    readonly cut_sound_worn: number;
    readonly n0_reestimate: number;
  };
  readonly C: {
    readonly r_lo: number;
    readonly r_hi: number;
    readonly r_worn: number;
    readonly r_fail: number;
    readonly k_cov: number;
    readonly R_floor: number;
    /** State: factor on ESR (null: open), factor on C, prior. */
    readonly states: Readonly<
      Record<string, readonly [esrFactor: number | null, capacitanceFactor: number, prior: number]>
    >;
    readonly chi2: Readonly<Record<"1" | "2", number>>;
    readonly scan_max: number;
    readonly scan_n: number;
  };
  readonly D: {
    readonly cap_h: number;
    readonly freq_pts: readonly number[];
    readonly freq_mult: Readonly<Record<RippleFrequencyClass, readonly number[]>>;
    readonly core_factor: readonly TableRow[];
    readonly h_handbook: readonly TableRow[];
    readonly h_still: number;
    readonly kv_floor: number;
    readonly kv_n_large: number;
    readonly kv_lin: readonly [number, number];
    readonly beta: number;
    readonly sigma_ln: number;
    readonly q_work: number;
    readonly theta: readonly TableRow[];
  };
  readonly E: {
    readonly v_std: readonly number[];
    readonly pos: Readonly<Record<string, PositionLimitsRow>>;
    readonly c_hard_lo: Readonly<Record<string, number>>;
    readonly c_hard_hi: Readonly<Record<string, number>>;
  };
  readonly F: {
    readonly e12: readonly number[];
    readonly parts: readonly (readonly [string, number, number, number])[];
    readonly v_margin: number;
    readonly n_max: number;
    readonly V_elv: number;
    readonly V_target: number;
    readonly da_low: number;
    readonly da_high: number;
  };
}

export type RippleFrequencyClass = "le33" | "le270" | "le680" | "le1800" | "gt1800" | "hv";

/** The default set. JSON import loses tuple lengths, hence the one cast. */
export const judgementConstants = defaults as unknown as JudgementConstants;

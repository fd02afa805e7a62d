import defaults from "./planningDefaults.json";

/**
 * Engineering constants of planning, proof, learning and stock, one object per section of the formula specification. Keys are
 * those of the reference set (not house names), so that another set can be dropped in unchanged.
 */
export interface PlanningConstants {
  readonly G: {
    readonly cap_h: number;
    readonly pitch_tol_mm: number;
    readonly max_parts: number;
    readonly max_places: number;
    readonly A: 5 | 10 | "split";
    readonly ratio_lo: number;
    readonly ratio_hi: number;
    readonly school: "exact" | "bound" | "rule";
    readonly clear_mm: number;
    readonly clear_lid_mm: number;
  };
  readonly H: { readonly q_work: number; readonly theta: readonly (readonly [number, number])[] };
  readonly I: {
    readonly conf: number;
    readonly beta0: number;
    readonly s_beta: number;
    readonly p_default: number;
    readonly n0: number;
    readonly cut_higher: number;
    readonly bins: number;
  };
  readonly J: {
    readonly kink_k: number;
    readonly kink_min_pct: number;
    readonly kink_first: number;
    readonly u_T_K: number;
    readonly tau_lo: number;
    readonly tau_hi: number;
    readonly trust_span_tau: number;
    readonly trust_u_K: number;
    readonly near_K: number;
    readonly conf: number;
    readonly p_max: number;
    readonly n_cap: number;
    readonly c_ok: number;
  };
  readonly K: {
    readonly log_clip: number;
    readonly slack: number;
    readonly brier_coin: number;
    readonly pass_mark: number;
    readonly fatal_points: number;
  };
  readonly L: {
    readonly rate_a0: number;
    readonly rate_b0_days: number;
    readonly service: number;
    readonly days_per_year: number;
    readonly bad_a0: number;
    readonly bad_b0: number;
    readonly p_accept: number;
    readonly p_reject: number;
  };
}

/** The default set. JSON import loses tuple lengths, hence the one cast. */
export const planningConstants = defaults as unknown as PlanningConstants;

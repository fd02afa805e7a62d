/** What was done with a part that lies loose, as far as its charge goes. In the order in which it happened. */
export type LooseChargeAct =
  /** Volts of a supply or of a tester stood on it: a leakage test, re-forming. */
  | { readonly kind: "volts_applied" }
  | { readonly kind: "drained"; readonly ohms: number }
  | { readonly kind: "volts_read"; readonly volts: number };

export type LooseCharge =
  /** Nothing was ever put on it here. */
  | "never_charged"
  /** Volts stood on it and nothing shows that they are gone. */
  | "covered"
  /** One reading below the limit since it was drained: the dielectric gives some back. */
  | "one_reading"
  | "two_readings";

/**
 * Whether a loose part still holds what was put on it. It counts as empty only after it was drained and read twice below the
 * limit; a reading above the limit, or volts again, begins anew. What lies about is not asked: only what was done here.
 *
 * @param limitVolts the house's limit for "low enough to touch"
 */
export function looseCharge(acts: readonly LooseChargeAct[], limitVolts: number): LooseCharge {
  let state: LooseCharge = "never_charged";
  let isDrained = false;
  for (const act of acts) {
    if (act.kind === "volts_applied") {
      state = "covered";
      isDrained = false;
    } else if (state === "never_charged") {
      // A reading above the limit on a part that nobody charged says that somebody did.
      if (act.kind === "volts_read" && Math.abs(act.volts) > limitVolts) state = "covered";
    } else if (act.kind === "drained") {
      isDrained = true;
      state = "covered";
    } else if (Math.abs(act.volts) > limitVolts) {
      state = "covered";
      isDrained = false;
    } else if (isDrained) state = state === "covered" ? "one_reading" : "two_readings";
  }
  return state;
}

/** What was done with a loose part, as its charge is folded: reading leakage and re-forming put volts on it. */
export function looseChargeActs(
  acts: readonly { readonly kind: string; readonly value: number | null }[],
): readonly LooseChargeAct[] {
  return acts.flatMap(({ kind, value }): LooseChargeAct[] => {
    if (kind === "leakage_read" || kind === "reform_step") return [{ kind: "volts_applied" }];
    if (kind === "drained" && value !== null) return [{ kind: "drained", ohms: value }];
    if (kind === "volts_read" && value !== null) return [{ kind: "volts_read", volts: value }];
    return [];
  });
}

/** Only an empty part goes back among others. */
export const mayGoInDrawer = (charge: LooseCharge): boolean => charge === "never_charged" || charge === "two_readings";

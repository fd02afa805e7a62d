import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requirePositive } from "../numerics/requireRange";
import { largestRippleEsr, type RippleEsrSchool, type RippleShape } from "../ripple/rippleEsr";

export interface EsrWindow {
  readonly leastOhms: number;
  readonly mostByLoopOhms: number;
  readonly mostByRippleOhms: number | null;
  /** Null where no ESR keeps the ripple. */
  readonly mostOhms: number | null;
  readonly isEmpty: boolean;
  readonly upperBy: "ripple" | "loop" | null;
}

const slack = 1e-9;

/**
 * Both ends of the ESR that an output bank may have: the zero of ESR and C may move by a ratio and no further, and the ripple
 * keeps its limit.
 *
 *     least = ESRold Cold / (C most ratio),  most = min(ESRold Cold / (C least ratio), most by ripple)
 *
 * The ripple is solid for its shapes, the ratios are rough; `loopPhase` says the same by degrees.
 *
 * @throws {OutOfRangeError} values not above 0, or ratios that do not rise
 */
export function esrWindow(question: {
  readonly shape: RippleShape;
  readonly capacitanceFarads: number;
  readonly switchingHertz: number;
  readonly rippleLimitVolts: number;
  /** The bank as new, never a reading. */
  readonly old: { readonly esrOhms: number; readonly capacitanceFarads: number };
  readonly leastZeroRatio?: number | null;
  readonly mostZeroRatio?: number | null;
  readonly school?: RippleEsrSchool | null;
}): EsrWindow {
  const least = requirePositive("leastZeroRatio", question.leastZeroRatio ?? planningConstants.G.ratio_lo);
  const most = requirePositive("mostZeroRatio", question.mostZeroRatio ?? planningConstants.G.ratio_hi);
  if (least > most) throw new OutOfRangeError("leastZeroRatio", least, "at most the other ratio");
  const product =
    requirePositive("esrOhms", question.old.esrOhms) *
    requirePositive("capacitanceFarads", question.old.capacitanceFarads);
  const ripple = largestRippleEsr(question);
  const school = question.school ?? planningConstants.G.school;
  const byRipple = { exact: ripple.exactOhms, bound: ripple.boundOhms, rule: ripple.ruleOhms }[school];
  const leastOhms = product / (question.capacitanceFarads * most);
  const mostByLoopOhms = product / (question.capacitanceFarads * least);
  const mostOhms = byRipple === null ? null : Math.min(byRipple, mostByLoopOhms);
  return {
    leastOhms,
    mostByLoopOhms,
    mostByRippleOhms: byRipple,
    mostOhms,
    isEmpty: mostOhms === null || mostOhms < leastOhms * (1 - slack),
    upperBy: byRipple === null ? null : byRipple < mostByLoopOhms ? "ripple" : "loop",
  };
}

/** Whether an ESR lies within a window; never within an empty one. */
export function isWithinEsrWindow(window: EsrWindow, esrOhms: number): boolean {
  const ohms = requirePositive("esrOhms", esrOhms);
  if (window.isEmpty || window.mostOhms === null) return false;
  return ohms >= window.leastOhms * (1 - slack) && ohms <= window.mostOhms * (1 + slack);
}

import { OutOfRangeError } from "../errors";
import { bracketedRoot } from "../numerics/bracketedRoot";
import { requireBetween, requirePositive } from "../numerics/requireRange";

/** What alternates into a bank: the triangle of a choke, or the pulse of a discontinuous flyback. */
export type RippleShape =
  | { readonly kind: "choke"; readonly swingAmps: number; readonly dutyRatio: number }
  | { readonly kind: "flyback"; readonly peakAmps: number; readonly fallRatio: number };

/** Which of the three answers to "how much ESR?" a shop goes by. */
export const rippleEsrSchools = ["exact", "bound", "rule"] as const;
export type RippleEsrSchool = (typeof rippleEsrSchools)[number];

export interface RippleEsr {
  /** What the capacitance alone leaves: below it no ESR helps. */
  readonly capacitiveVolts: number;
  /** Null where the capacitance alone is over the limit. */
  readonly exactOhms: number | null;
  /** Always on the safe side. */
  readonly boundOhms: number | null;
  /** As benches reckon; no bound. */
  readonly ruleOhms: number | null;
}

const slack = 1e-12;
const halvings = 200;

/**
 * Largest ESR of a bank that keeps the ripple within a limit; ideal C and ESR in series, no inductance, a load of constant current.
 *
 *     choke:   pp = h(D T) + h((1 - D) T),  h(a) = R dI/2 where R C >= a/2, else dI/(8 C) (a + 4 (R C)^2/a)
 *     flyback: a = d2 T, m = Ipk (1 - d2/2);  pp = R Io + (R m where R C >= a m/Ipk, else (m^2 a/Ipk + Ipk (R C)^2/a)/(2 C))
 *
 * Peak to peak counts both sides of the flyback's jump. Rises with R, hence one root. Solid for these shapes.
 *
 * @throws {OutOfRangeError} values not above 0, a duty outside 0..1, a fall longer than the period
 */
export function largestRippleEsr(question: {
  readonly shape: RippleShape;
  readonly capacitanceFarads: number;
  readonly switchingHertz: number;
  readonly rippleLimitVolts: number;
}): RippleEsr {
  const C = requirePositive("capacitanceFarads", question.capacitanceFarads);
  const period = 1 / requirePositive("switchingHertz", question.switchingHertz);
  const limit = requirePositive("rippleLimitVolts", question.rippleLimitVolts);
  const { peakToPeak, amps, ruleOhms } =
    question.shape.kind === "choke"
      ? chokeRipple(question.shape, C, period, limit)
      : flybackRipple(question.shape, C, period, limit);
  const capacitiveVolts = peakToPeak(0);
  if (capacitiveVolts > limit * (1 + slack)) return { capacitiveVolts, exactOhms: null, boundOhms: null, ruleOhms };
  // The step of the ESR alone already takes I x R: above limit / I no root can lie.
  const most = limit / amps;
  const excess = (ohms: number) => peakToPeak(ohms) - limit;
  const exactOhms = excess(0) >= 0 ? 0 : excess(most) <= 0 ? most : bracketedRoot(excess, 0, most, halvings);
  return { capacitiveVolts, exactOhms, boundOhms: (limit - capacitiveVolts) / amps, ruleOhms };
}

interface Ripple {
  readonly peakToPeak: (ohms: number) => number;
  readonly amps: number;
  readonly ruleOhms: number | null;
}

const orNull = (value: number): number | null => (value >= 0 ? value : null);

function chokeRipple(shape: Extract<RippleShape, { kind: "choke" }>, C: number, period: number, limit: number): Ripple {
  const amps = requirePositive("swingAmps", shape.swingAmps);
  const duty = requireBetween("dutyRatio", shape.dutyRatio, 0, 1);
  const half = (ohms: number, a: number) => {
    const tau = ohms * C;
    return tau >= a / 2 ? (ohms * amps) / 2 : (amps / (8 * C)) * (a + (4 * tau ** 2) / a);
  };
  const under = (limit / amps) ** 2 - (period / (8 * C)) ** 2;
  return {
    amps,
    peakToPeak: (ohms) => half(ohms, duty * period) + half(ohms, (1 - duty) * period),
    ruleOhms: under >= 0 ? Math.sqrt(under) : null,
  };
}

function flybackRipple(
  shape: Extract<RippleShape, { kind: "flyback" }>,
  C: number,
  period: number,
  limit: number,
): Ripple {
  const peak = requirePositive("peakAmps", shape.peakAmps);
  const fall = requirePositive("fallRatio", shape.fallRatio);
  if (fall > 1) throw new OutOfRangeError("fallRatio", fall, "at most 1");
  const load = (peak * fall) / 2;
  const a = fall * period;
  const m = peak * (1 - fall / 2);
  return {
    amps: peak,
    peakToPeak: (ohms) => {
      const tau = ohms * C;
      const rise = tau >= (a * m) / peak ? ohms * m : ((m ** 2 * a) / peak + (peak * tau ** 2) / a) / (2 * C);
      return ohms * load + rise;
    },
    ruleOhms: orNull((limit - (load * (1 - fall) * period) / C) / peak),
  };
}

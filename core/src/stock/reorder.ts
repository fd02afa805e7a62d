import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";

/** How much to order at once: by the cost of ordering against keeping, or by that of too few against too many. */
export type OrderRule =
  | { readonly kind: "eoq"; readonly orderCost: number; readonly holdCostPerYear: number }
  | { readonly kind: "newsvendor"; readonly underCost: number; readonly overCost: number; readonly coverDays: number };

export interface Reorder {
  readonly ratePerDay: number;
  readonly meanOverLead: number;
  readonly reorderPoint: number;
  readonly stockoutProbability: number;
  readonly safetyStock: number;
  readonly annualDemand: number;
  readonly orderCount: number;
  /** Null while nobody says what is there and on order. */
  readonly shouldOrder: boolean | null;
}

const slack = 1e-12;

/**
 * When to order a part again, and how many, from how many went out.
 *
 *     rate ~ Gamma(a0 + units, b0 + days);  demand in t days: P(0) = (b/(b + t))^a, P(n) = P(n - 1) (a + n - 1)/n t/(b + t)
 *     reorder at the least r with P(demand over the lead time <= r) >= service
 *
 * The method is solid; a0 and b0 (half a part in half a year, before anything was counted) are rough.
 *
 * @throws {OutOfRangeError} counts that are not whole, costs or days not above 0, a service outside 0..1
 */
export function reorder(
  question: {
    readonly units: number;
    readonly days: number;
    readonly leadDays: number;
    readonly service?: number | null;
    readonly rule: OrderRule;
    readonly leastOrder?: number | null;
    readonly packSize?: number | null;
    /** In stock and on order. */
    readonly position?: number | null;
    readonly priorUnits?: number | null;
    readonly priorDays?: number | null;
  },
  constants = planningConstants.L,
): Reorder {
  const a = requirePositive("priorUnits", question.priorUnits ?? constants.rate_a0) + whole("units", question.units, 0);
  const b =
    requirePositive("priorDays", question.priorDays ?? constants.rate_b0_days) +
    requireNonNegative("days", question.days);
  const lead = requirePositive("leadDays", question.leadDays);
  const service = requireBetween("service", question.service ?? constants.service, 0, 1);
  const least = whole("leastOrder", question.leastOrder ?? 1, 1);
  const pack = whole("packSize", question.packSize ?? 1, 1);
  const position = question.position == null ? null : whole("position", question.position, 0);
  const atLead = leastCovering(a, b, lead, service);
  const annualDemand = (constants.days_per_year * a) / b;
  const asked =
    question.rule.kind === "eoq"
      ? economicCount(question.rule, annualDemand)
      : coverCount(question.rule, a, b, position ?? 0);
  const orderCount = asked > 0 ? Math.ceil(Math.max(asked, least) / pack) * pack : 0;
  const meanOverLead = (a / b) * lead;
  return {
    ...{ ratePerDay: a / b, meanOverLead, reorderPoint: atLead.count, stockoutProbability: 1 - atLead.covered },
    ...{ safetyStock: atLead.count - meanOverLead, annualDemand, orderCount },
    shouldOrder: position === null ? null : position <= atLead.count,
  };
}

function whole(name: string, value: number, least: number): number {
  if (!Number.isInteger(value) || value < least) throw new OutOfRangeError(name, value, `whole, at least ${least}`);
  return value;
}

/** The least count that covers the demand of so many days with a chance. */
function leastCovering(
  a: number,
  b: number,
  days: number,
  chance: number,
): { readonly count: number; readonly covered: number } {
  let term = (b / (b + days)) ** a;
  let covered = term;
  let count = 0;
  while (covered < chance - slack) {
    count += 1;
    term *= ((a + count - 1) / count) * (days / (b + days));
    covered += term;
  }
  return { count, covered };
}

function economicCount(rule: Extract<OrderRule, { kind: "eoq" }>, annual: number): number {
  const K = requirePositive("orderCost", rule.orderCost);
  const h = requirePositive("holdCostPerYear", rule.holdCostPerYear);
  const low = Math.max(1, Math.floor(Math.sqrt((2 * K * annual) / h)));
  const cost = (n: number) => (K * annual) / n + (h * n) / 2;
  return cost(low + 1) < cost(low) ? low + 1 : low;
}

function coverCount(rule: Extract<OrderRule, { kind: "newsvendor" }>, a: number, b: number, position: number): number {
  const under = requirePositive("underCost", rule.underCost);
  const over = requirePositive("overCost", rule.overCost);
  const { count } = leastCovering(a, b, requirePositive("coverDays", rule.coverDays), under / (under + over));
  return Math.max(0, count - position);
}

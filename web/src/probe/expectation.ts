import type { JobDetail } from "@pale-cap/contract";
import { currentPart, expectedEsrOfPart, type JobRules, partForSchool, type QuantityKind } from "@pale-cap/core";
import type { ProbeSettings, ProbeTarget } from "../job/benchSlice";

/** What a probe point should read: good up to `goodTo`, doubtful to `badFrom`, bad beyond; null ends are open. */
export interface Expectation {
  readonly low: number;
  readonly high: number;
  /** From here the part or rail counts as bad; null where only the band decides. */
  readonly badFrom: number | null;
  /** True where a smaller value is worse (capacitance). */
  readonly isLowBad: boolean;
  readonly note: string;
}

/** Expected band of a quantity at a target, from core; null where nothing is known to compare with. */
export function expectation(
  detail: JobDetail,
  rules: JobRules,
  target: ProbeTarget | undefined,
  quantity: QuantityKind,
  settings: ProbeSettings,
): Expectation | null {
  if (!target) return null;
  return target.kind === "rail"
    ? railExpectation(detail, rules, target.id, quantity)
    : partExpectation(detail, rules, target.id, quantity, settings);
}

function railExpectation(
  detail: JobDetail,
  rules: JobRules,
  netId: string,
  quantity: QuantityKind,
): Expectation | null {
  const net = detail.nets.find((one) => one.id === netId);
  if (net?.nominalVolts == null || net.nominalVolts === 0) return null;
  if (quantity === "dc_voltage") {
    const width = Math.abs(net.nominalVolts) * (net.toleranceRatio ?? rules.rail.railToleranceRatio);
    const [low, high] = [net.nominalVolts - width, net.nominalVolts + width];
    return { low, high, badFrom: null, isLowBad: false, note: "rail limits" };
  }
  if (quantity !== "ripple_voltage") return null;
  const limit = net.rippleLimitVolts ?? Math.abs(net.nominalVolts) * rules.rail.rippleLimitRatio;
  return { low: 0, high: limit, badFrom: limit, isLowBad: false, note: "rail limit" };
}

function partExpectation(
  detail: JobDetail,
  rules: JobRules,
  positionId: string,
  quantity: QuantityKind,
  settings: ProbeSettings,
): Expectation | null {
  const part = currentPart(detail.fittedParts, positionId);
  if (!part) return null;
  if (quantity === "dc_voltage") {
    const { workingVolts } = rules.charge;
    return { low: 0, high: workingVolts, badFrom: workingVolts, isLowBad: false, note: "drained" };
  }
  if (quantity === "esr") {
    const esr = expectedEsrOfPart(partForSchool(part, rules.judgement.esrSourceSchool), settings.esrFrequencyHertz, 20);
    if (!esr) return null;
    const { lowOhms: low, highOhms: high, typicalOhms } = esr;
    return { low, high, badFrom: 3 * typicalOhms, isLowBad: false, note: "new, alone" };
  }
  if (quantity === "capacitance" && part.capacitanceFarads !== null) {
    const marked = part.capacitanceFarads;
    return {
      low: 0.8 * marked,
      high: 1.2 * marked,
      badFrom: 0.8 * marked,
      isLowBad: true,
      note: "20 % of the marking",
    };
  }
  if (quantity === "voltage_loss") return { low: 0, high: 0.05, badFrom: 0.1, isLowBad: false, note: "no leakage" };
  return null;
}

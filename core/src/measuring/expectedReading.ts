import { bankOf } from "../board/bank";
import { currentPart } from "../board/board";
import { deviceTestOf } from "../board/deviceTests";
import { railBand } from "../board/railBand";
import { rippleLimitVolts } from "../board/rippleLimit";
import type { ExpectedEsr } from "../capacitors/expectedEsr";
import { expectedEsrOfPart, partForSchool } from "../capacitors/expectedEsrOfPart";
import { leakageLimitAmps, usualLeakageOf } from "../capacitors/leakageLimit";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { bankImpedance } from "../incircuit/bankImpedance";
import type { CircuitState, QuantityKind } from "../readings/reading";

const {
  voltageLossSoundRatio,
  leakageBadFactor,
  lossBadFactor,
  runningLeastCelsius,
  runningBelowClassKelvin,
  tooNearClassKelvin,
} = tradeConstants.measuring;

/** What is probed, and how. */
export interface ProbeQuestion {
  readonly targetKind: "part" | "rail" | "unit";
  readonly targetId: string;
  readonly terminals: string | null;
  readonly quantity: QuantityKind;
  readonly circuitState: CircuitState | null;
  /** A part beside its place: the new one before it is soldered, the old one after it came out; null: the one that stands there. */
  readonly fittedPartId?: string | null;
  readonly frequencyHertz: number;
  readonly temperatureCelsius: number;
  /** What the leads add; 0 once they are zeroed. */
  readonly leadOhms: number;
  /** A rail under load. */
  readonly isLoaded?: boolean;
}

export type ExpectationBasis =
  | "new_alone"
  | "bank_in_circuit"
  | "rail_limits"
  | "rail_ripple"
  | "drained"
  | "marking"
  | "no_leakage"
  | "leakage_limit"
  | "loss_limit"
  | "device_test"
  | "temperature_class";

/** What a probe point should read: good from low to high, doubtful up to `badFrom`, bad beyond. */
export interface ExpectedReading {
  readonly low: number;
  readonly high: number;
  /** From here the part or rail counts as bad; null where only the band decides. */
  readonly badFrom: number | null;
  /** True where a smaller value is worse. */
  readonly isLowBad: boolean;
  readonly basis: ExpectationBasis;
  /** With a bank: how many parts the reading is about. */
  readonly partCount: number;
}

/**
 * The expected band of a reading, from what is known of the target; null where there is nothing to compare with.
 *
 * A part alone: core's ESR at the tester's frequency and temperature. In circuit: Re Z of its bank with every part new,
 * at its low and at its high end, from the bank formula. Leads that are not zeroed are added, not guessed away.
 */
export function expectedReading(
  facts: Pick<JobFacts, "nets" | "positions" | "fittedParts">,
  rules: JobRules,
  question: ProbeQuestion,
): ExpectedReading | null {
  if (question.targetKind === "unit") return null;
  return question.targetKind === "rail" ? ofRail(facts, rules, question) : ofPart(facts, rules, question);
}

const band = (
  low: number,
  high: number,
  basis: ExpectationBasis,
  more: Partial<ExpectedReading> = {},
): ExpectedReading => ({
  low,
  high,
  badFrom: null,
  isLowBad: false,
  partCount: 1,
  basis,
  ...more,
});

function ofRail(facts: Pick<JobFacts, "nets">, rules: JobRules, question: ProbeQuestion): ExpectedReading | null {
  const net = facts.nets.find((one) => one.id === question.targetId);
  if (!net) return null;
  if (question.quantity === "dc_voltage") {
    const limits = railBand(net, rules.rail, question.isLoaded === true);
    return limits && band(limits.low, limits.high, "rail_limits");
  }
  // A hand-held meter's AC ends at some hundred hertz: it only says "at least", and no value of it is good.
  if (question.quantity !== "ripple_voltage") return null;
  const high = rippleLimitVolts(net, rules.rail);
  return high === null ? null : band(0, high, "rail_ripple", { badFrom: high });
}

function ofPart(
  facts: Pick<JobFacts, "positions" | "fittedParts">,
  rules: JobRules,
  question: ProbeQuestion,
): ExpectedReading | null {
  const position = facts.positions.find((one) => one.id === question.targetId);
  if (!position) return null;
  if (position.kind !== "electrolytic") {
    const test = deviceTestOf(position.kind, question.terminals);
    if (!test?.band || test.quantity !== question.quantity) return null;
    const { low, high } = test.band;
    return band(low, high, "device_test", low > 0 && high > 1e6 ? { badFrom: low / 10, isLowBad: true } : {});
  }
  if (question.quantity === "dc_voltage") {
    return band(0, rules.charge.workingVolts, "drained", { badFrom: rules.charge.workingVolts });
  }
  const named = question.fittedPartId;
  const part =
    named == null
      ? currentPart(facts.fittedParts, position.id)
      : facts.fittedParts.find((one) => one.id === named && one.positionId === position.id);
  if (!part) return null;
  const { capacitanceFarads: marked, ratedVolts } = part;
  const partAt = (positionId: string) =>
    positionId === position.id ? part : currentPart(facts.fittedParts, positionId);
  const esrOf = (positionId: string): ExpectedEsr | null => {
    const own = partAt(positionId);
    if (!own) return null;
    return expectedEsrOfPart(
      partForSchool(own, rules.judgement.esrSourceSchool),
      question.frequencyHertz,
      question.temperatureCelsius,
    );
  };
  switch (question.quantity) {
    case "esr": {
      const alone = esrOf(position.id);
      if (!alone) return null;
      const members =
        question.circuitState === "in_circuit" ? bankOf(position, facts.positions, facts.fittedParts) : [position];
      const known = members.flatMap((one) => {
        const esr = esrOf(one.id);
        const farads = partAt(one.id)?.capacitanceFarads ?? null;
        return esr && farads !== null ? [{ esr, farads }] : [];
      });
      // A neighbour of unknown value could carry anything: then only the part itself is a measure.
      if (known.length < members.length || known.length < 2)
        return withLeads(ofEsr(alone, "new_alone", 1), question.leadOhms);
      const together = (pick: (esr: ExpectedEsr) => number) =>
        bankOhms(
          known.map(({ esr, farads }) => ({ esrOhms: pick(esr), capacitanceFarads: farads })),
          question.frequencyHertz,
        );
      const bank = {
        lowOhms: together((esr) => esr.lowOhms),
        typicalOhms: together((esr) => esr.typicalOhms),
        highOhms: together((esr) => esr.highOhms),
      };
      return withLeads(ofEsr(bank, "bank_in_circuit", known.length), question.leadOhms);
    }
    case "capacitance": {
      if (marked === null) return null;
      const tolerance = part.toleranceRatio ?? tradeConstants.capacitors.usualToleranceRatio;
      const members =
        question.circuitState === "in_circuit" ? bankOf(position, facts.positions, facts.fittedParts) : [position];
      const farads = members.map((one) => partAt(one.id)?.capacitanceFarads ?? null);
      if (farads.some((one) => one === null)) return null;
      const sum = farads.reduce((total: number, one) => total + (one ?? 0), 0);
      const low = (1 - tolerance) * sum;
      return band(low, (1 + tolerance) * sum, members.length > 1 ? "bank_in_circuit" : "marking", {
        badFrom: low,
        isLowBad: true,
        partCount: members.length,
      });
    }
    case "dissipation": {
      const esr = esrOf(position.id);
      if (!esr || marked === null) return null;
      const omegaC = 2 * Math.PI * question.frequencyHertz * marked;
      return band(0, esr.highOhms * omegaC, "loss_limit", { badFrom: lossBadFactor * esr.typicalOhms * omegaC });
    }
    case "voltage_loss":
      return band(0, voltageLossSoundRatio, "no_leakage", {
        badFrom: tradeConstants.judgement.voltageLossFailedRatio,
      });
    case "leakage_current": {
      if (marked === null || ratedVolts === null) return null;
      const limit = leakageLimitAmps({
        capacitanceFarads: marked,
        ratedVolts,
        ...usualLeakageOf({ ...part, ratedVolts }),
      });
      return band(0, limit, "leakage_limit", { badFrom: leakageBadFactor * limit });
    }
    case "temperature": {
      const limit = part.temperatureClassCelsius;
      return limit === null
        ? null
        : band(runningLeastCelsius, limit - runningBelowClassKelvin, "temperature_class", {
            badFrom: limit - tooNearClassKelvin,
          });
    }
    default:
      return null;
  }
}

function ofEsr(
  esr: { readonly lowOhms: number; readonly typicalOhms: number; readonly highOhms: number },
  basis: ExpectationBasis,
  partCount: number,
): ExpectedReading {
  const { r_f: failedRatio } = judgementConstants.B.schools.twenty;
  return band(esr.lowOhms, esr.highOhms, basis, {
    badFrom: Math.max(failedRatio * esr.typicalOhms, esr.highOhms),
    partCount,
  });
}

function withLeads(expected: ExpectedReading, leadOhms: number): ExpectedReading {
  const { low, high, badFrom } = expected;
  return {
    ...expected,
    low: low + leadOhms,
    high: high + leadOhms,
    badFrom: badFrom === null ? null : badFrom + leadOhms,
  };
}

/** Re Z of parts joined at the probe; beyond eight their resistances alone. */
function bankOhms(
  parts: readonly { readonly esrOhms: number; readonly capacitanceFarads: number }[],
  hertz: number,
): number {
  if (parts.length <= 8) return bankImpedance(parts, hertz).resistanceOhms;
  return 1 / parts.reduce((sum, part) => sum + 1 / part.esrOhms, 0);
}

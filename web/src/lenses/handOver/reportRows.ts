import type { JobDetail } from "@pale-cap/contract";
import {
  combineRepeats,
  type JobFacts,
  latestSigns,
  type PartJudgement,
  type QuantityKind,
  standingReadings,
  type VerdictWord,
  type VisualSign,
  visualSigns,
} from "@pale-cap/core";
import { capacitorsInOrder } from "../../job/parts";

interface Values {
  readonly esr: number | null;
  readonly capacitance: number | null;
}

/** One line of the findings. */
export interface ReportRow {
  readonly designator: string;
  readonly rail: string;
  readonly farads: number | null;
  readonly volts: number | null;
  readonly seen: readonly VisualSign[];
  readonly verdict: VerdictWord;
  /** What the readings alone came to, and why a person decided otherwise; null where nobody did. */
  readonly overruled: { readonly computed: VerdictWord; readonly reason: string } | null;
  readonly before: Values;
  readonly after: Values;
  readonly isReplaced: boolean;
}

/** Every part that was measured, seen bad or replaced, with what it and its successor read. */
export function reportRows(
  detail: JobDetail,
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
): readonly ReportRow[] {
  return capacitorsInOrder(detail).flatMap(({ position, net, found, current }): ReportRow[] => {
    const judgement = judgements.get(position.id);
    const isReplaced = current?.origin === "replacement";
    if (!found || !judgement || (judgement.verdict === "not_measured" && !isReplaced)) return [];
    const signs = latestSigns(facts.signs, found.id);
    return [
      {
        designator: position.designator,
        rail: net?.name ?? "–",
        farads: found.capacitanceFarads,
        volts: found.ratedVolts,
        seen: visualSigns.filter((sign) => signs[sign] === "seen"),
        verdict: judgement.verdict,
        overruled: judgement.overrule && {
          computed: judgement.computedVerdict,
          reason: judgement.overrule.reason,
        },
        before: valuesOf(facts, found.id),
        after: isReplaced ? valuesOf(facts, current.id) : { esr: null, capacitance: null },
        isReplaced,
      },
    ];
  });
}

function valuesOf(facts: JobFacts, fittedPartId: string): Values {
  const own = standingReadings(facts.readings).filter((reading) => reading.fittedPartId === fittedPartId);
  return { esr: best(own, "esr"), capacitance: best(own, "capacitance") };
}

/** Out of circuit before in circuit, repeats combined. */
function best(readings: JobFacts["readings"], quantity: QuantityKind): number | null {
  const own = readings.filter((one) => one.quantity === quantity && one.value !== null && one.value >= 0);
  const out = own.filter((one) => one.circuitState !== "in_circuit");
  const chosen = out.length > 0 ? out : own;
  return chosen.length > 0 ? combineRepeats(chosen.map((one) => one.value as number)).value : null;
}

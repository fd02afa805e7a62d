import { capacitorsInOrder, type JobDetail } from "@pale-cap/contract";
import {
  type CoarseCode,
  combineRepeats,
  currentPart,
  type DeviceJudgement,
  type DeviceLine,
  type JobFacts,
  latestSigns,
  type PartJudgement,
  type PartKind,
  type QuantityKind,
  standingReadings,
  type VerdictWord,
  type VisualSign,
  visualSigns,
} from "@pale-cap/core";

interface Values {
  readonly esr: number | null;
  readonly capacitance: number | null;
  /** What a coarse tester said last; null where none was used. */
  readonly band: CoarseCode | null;
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
  readonly note: string | null;
}

/** One line of the findings on a part that is no capacitor. */
export interface DeviceRow {
  readonly designator: string;
  readonly kind: PartKind;
  readonly seen: readonly VisualSign[];
  /** What was read, test by test. */
  readonly lines: readonly DeviceLine[];
  /** null where it was only looked at. */
  readonly verdict: VerdictWord | null;
  readonly note: string | null;
  /** What its successor reads; null where it stays in, undefined while the new one was not read. */
  readonly after: VerdictWord | null | undefined;
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
        after: isReplaced ? valuesOf(facts, current.id) : { esr: null, capacitance: null, band: null },
        isReplaced,
        note: position.note ?? null,
      },
    ];
  });
}

function valuesOf(facts: JobFacts, fittedPartId: string): Values {
  const own = standingReadings(facts.readings).filter((reading) => reading.fittedPartId === fittedPartId);
  const band = own.filter((one) => one.quantity === "tester_band").at(-1)?.coarseCode ?? null;
  return { esr: best(own, "esr"), capacitance: best(own, "capacitance"), band };
}

/**
 * Every other part that was tested, seen bad, noted or replaced, in the order of their names: as it was found, and what the one that
 * took its place reads.
 */
export function deviceRows(
  { positions, fittedParts }: Pick<JobDetail, "positions" | "fittedParts">,
  devices: ReadonlyMap<string, DeviceJudgement>,
  now: ReadonlyMap<string, DeviceJudgement> = devices,
): readonly DeviceRow[] {
  return positions
    .filter((one) => one.kind !== "electrolytic")
    .sort((a, b) => a.designator.localeCompare(b.designator, "en", { numeric: true }))
    .flatMap((position): DeviceRow[] => {
      const judgement = devices.get(position.id);
      const { designator, kind, note = null } = position;
      const seen = judgement?.seen ?? [];
      const lines = judgement?.lines.filter((one) => one.reading !== null) ?? [];
      const isReplaced = currentPart(fittedParts, position.id)?.origin === "replacement";
      if (seen.length === 0 && lines.length === 0 && note === null && !isReplaced) return [];
      const fresh = now.get(position.id)?.verdict;
      const after = isReplaced ? (fresh === "not_measured" ? undefined : fresh) : null;
      const isJudged = judgement !== undefined && judgement.verdict !== "not_measured";
      return [{ designator, kind, seen, lines, verdict: isJudged ? judgement.verdict : null, note, after }];
    });
}

/** Out of circuit before in circuit, repeats combined. */
function best(readings: JobFacts["readings"], quantity: QuantityKind): number | null {
  const own = readings.filter((one) => one.quantity === quantity && one.value !== null && one.value >= 0);
  const out = own.filter((one) => one.circuitState !== "in_circuit");
  const chosen = out.length > 0 ? out : own;
  return chosen.length > 0 ? combineRepeats(chosen.map((one) => one.value as number)).value : null;
}

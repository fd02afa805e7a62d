import type { ConverterDescription } from "../board/converterDescription";
import { tradeConstants } from "../constants/tradeConstants";
import { type Assumption, converterSource, type DescribedSource } from "./converter";
import {
  type FilterState,
  filterStates,
  type RailRipple,
  type RippleBoard,
  railFilter,
  railRipple,
} from "./railRipple";
import type { SourceCurrent } from "./sourceCurrent";

const { worthRenewingRatio } = tradeConstants.ripple;

export interface PredictionQuestion {
  readonly board: RippleBoard;
  readonly netId: string;
  readonly converter: ConverterDescription;
  readonly railVolts: number | null;
  readonly loadAmps: number | null;
  readonly temperatureCelsius: number;
}

/** What one assumption does to the ripple at the load, everything else as it is. */
export interface AssumptionEffect extends Assumption {
  readonly lowVolts: number;
  readonly highVolts: number;
}

export interface RipplePrediction {
  readonly described: DescribedSource;
  readonly states: Readonly<Record<FilterState, RailRipple>>;
  /** Band of the ripple as measured, over all assumptions one at a time; equal to it where nothing was assumed. */
  readonly lowVolts: number;
  readonly highVolts: number;
  readonly effects: readonly AssumptionEffect[];
  /** Renewing this one part lowers the measured ripple most; null where none does. */
  readonly bestSingle: { readonly positionId: string; readonly peakToPeakVolts: number } | null;
}

/**
 * Ripple of a rail as new, as read and as replaced, with the band of what had to be assumed and the one part whose
 * renewal lowers it most.
 *
 * @returns null where no capacitor of the rail can be reckoned with
 * @throws {ImpossibleConverterError} where the converter cannot be
 */
export function predictRipple(question: PredictionQuestion): RipplePrediction | null {
  const { converter, railVolts, loadAmps } = question;
  const described = converterSource(converter, { volts: railVolts, loadAmps });
  const all = filterStates.map((state) => rippleOf(question, described, state));
  if (all.some((one) => one === null)) return null;
  const [healthy, measured, replaced] = all as [RailRipple, RailRipple, RailRipple];
  const effects = described.assumptions.map((one): AssumptionEffect => {
    const at = (value: number) => {
      const other = converterSource(converter, { volts: railVolts, loadAmps }, { [one.key]: value });
      return rippleOf(question, other, "measured")?.loadPeakToPeakVolts ?? 0;
    };
    const ends = [at(one.low), at(one.high)].sort((a, b) => a - b) as [number, number];
    return { ...one, lowVolts: ends[0], highVolts: ends[1] };
  });
  const own = measured.loadPeakToPeakVolts;
  const renewed = measured.filter.parts
    .filter((part) => part.source === "read")
    .map((part) => ({
      positionId: part.positionId,
      peakToPeakVolts: rippleOf(question, described, "measured", [part.positionId])?.loadPeakToPeakVolts ?? own,
    }))
    .sort((a, b) => a.peakToPeakVolts - b.peakToPeakVolts)[0];
  return {
    described,
    states: { healthy, measured, replaced },
    lowVolts: Math.min(own, ...effects.map((one) => one.lowVolts)),
    highVolts: Math.max(own, ...effects.map((one) => one.highVolts)),
    effects,
    bestSingle: renewed && renewed.peakToPeakVolts < worthRenewingRatio * own ? renewed : null,
  };
}

function rippleOf(
  question: PredictionQuestion,
  described: DescribedSource,
  state: FilterState,
  renewedIds: readonly string[] = [],
): RailRipple | null {
  const filter = railFilter(question.board, question.netId, {
    state,
    switchingHertz: described.switchingHertz,
    temperatureCelsius: question.temperatureCelsius,
    renewedIds,
    loadFarads: question.converter.loadFarads,
  });
  return filter && railRipple(filter, described.source);
}

type Swept = { readonly loadAmps: number } & Readonly<Record<FilterState, number>>;

/**
 * Ripple at the load over loads, for each state. The filter is linear: where a load only scales what alternates in the
 * source, so it does the ripple, and the filter is solved once; any other load is solved by itself.
 */
export function sweepLoads(question: PredictionQuestion, loads: readonly number[]): readonly Swept[] {
  let solved: { readonly source: SourceCurrent; readonly volts: Omit<Swept, "loadAmps"> } | null = null;
  return loads.map((loadAmps): Swept => {
    const described = converterSource(question.converter, { volts: question.railVolts, loadAmps });
    const factor = solved && alternatingFactor(described.source, solved.source);
    if (solved && factor !== null) {
      const { healthy, measured, replaced } = solved.volts;
      return { loadAmps, healthy: factor * healthy, measured: factor * measured, replaced: factor * replaced };
    }
    const at = (state: FilterState) => rippleOf(question, described, state)?.loadPeakToPeakVolts ?? 0;
    const volts = { healthy: at("healthy"), measured: at("measured"), replaced: at("replaced") };
    solved = { source: described.source, volts };
    return { loadAmps, ...volts };
  });
}

/** By what factor the alternating part of a source is that of another; null where it has another shape. */
function alternatingFactor(source: SourceCurrent, other: SourceCurrent): number | null {
  const deviations = ({ segments, meanAmps }: SourceCurrent) =>
    segments.flatMap((one) => [one.startAmps - meanAmps, one.endAmps - meanAmps]);
  const isSameGrid =
    source.segments.length === other.segments.length &&
    source.segments.every(
      (one, n) => Math.abs(one.endSeconds - (other.segments[n]?.endSeconds ?? 0)) < 1e-9 * source.periodSeconds,
    );
  if (!isSameGrid) return null;
  const [own, theirs] = [deviations(source), deviations(other)];
  const largest = theirs.reduce((best, one, n) => (Math.abs(one) > Math.abs(theirs[best] ?? 0) ? n : best), 0);
  const factor = (own[largest] ?? 0) / (theirs[largest] ?? 1);
  const scale = Math.max(...own.map(Math.abs), 1e-30);
  return own.every((one, n) => Math.abs(one - factor * (theirs[n] ?? 0)) < 1e-6 * scale) ? factor : null;
}

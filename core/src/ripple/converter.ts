import { type ConverterDescription, isFullWave, type OutputConverter } from "../board/converterDescription";
import { tradeConstants } from "../constants/tradeConstants";
import {
  flybackContinuousCurrent,
  flybackDiscontinuousCurrent,
  halfSineCurrent,
  inductorCurrent,
  type SourceCurrent,
} from "./sourceCurrent";

const { leastEdgeSeconds } = tradeConstants.ripple;

type AssumedKey = "switchingHertz" | "dutyRatio" | "rippleRatio" | "riseSeconds" | "loadAmps";

/** A value that was taken because nobody entered one, with the range that usual supplies keep to. */
export interface Assumption {
  readonly key: AssumedKey;
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

export type ImpossibleCode =
  | "output_above_input"
  | "no_time_left"
  | "negative_current"
  | "swing_above_mean"
  | "no_load"
  | "input_above_output"
  | "switches_nothing"
  | "edges_too_slow";

/** A converter that cannot be: which rule it breaks, and by what numbers. */
export class ImpossibleConverterError extends Error {
  override readonly name = "ImpossibleConverterError";
  constructor(
    readonly impossible: ImpossibleCode,
    readonly numbers: Readonly<Record<string, number>>,
  ) {
    super(`Impossible converter: ${impossible} ${JSON.stringify(numbers)}`);
  }
}

/** What stands in for what nobody entered: usual bench supplies, rough. */
const usual: Readonly<
  Record<OutputConverter, Readonly<Partial<Record<AssumedKey, readonly [number, number, number]>>>>
> = {
  flyback_discontinuous: {
    switchingHertz: [65e3, 45e3, 130e3],
    dutyRatio: [0.4, 0.25, 0.55],
    riseSeconds: [100e-9, 30e-9, 300e-9],
    loadAmps: [1, 0.3, 3],
  },
  flyback_continuous: {
    switchingHertz: [65e3, 45e3, 130e3],
    dutyRatio: [0.4, 0.25, 0.55],
    rippleRatio: [0.6, 0.3, 1],
    riseSeconds: [100e-9, 30e-9, 300e-9],
    loadAmps: [2, 0.5, 5],
  },
  flyback_quasi_resonant: {
    switchingHertz: [70e3, 40e3, 130e3],
    dutyRatio: [0.5, 0.35, 0.65],
    riseSeconds: [100e-9, 30e-9, 300e-9],
    loadAmps: [2, 0.5, 5],
  },
  forward: {
    switchingHertz: [67e3, 50e3, 130e3],
    dutyRatio: [0.35, 0.2, 0.45],
    rippleRatio: [0.3, 0.15, 0.5],
    loadAmps: [5, 1, 15],
  },
  half_bridge: {
    switchingHertz: [90e3, 60e3, 200e3],
    dutyRatio: [0.7, 0.5, 0.9],
    rippleRatio: [0.25, 0.1, 0.5],
    loadAmps: [5, 1, 15],
  },
  push_pull: {
    switchingHertz: [50e3, 30e3, 100e3],
    dutyRatio: [0.7, 0.5, 0.9],
    rippleRatio: [0.25, 0.1, 0.5],
    loadAmps: [5, 1, 15],
  },
  resonant: {
    switchingHertz: [90e3, 60e3, 150e3],
    loadAmps: [5, 1, 15],
  },
  boost: {
    switchingHertz: [180e3, 100e3, 400e3],
    dutyRatio: [0.5, 0.3, 0.75],
    rippleRatio: [0.5, 0.2, 1],
    riseSeconds: [50e-9, 15e-9, 150e-9],
    loadAmps: [0.5, 0.1, 1.5],
  },
  linear: {},
  buck: {
    switchingHertz: [300e3, 100e3, 600e3],
    dutyRatio: [0.4, 0.15, 0.7],
    rippleRatio: [0.3, 0.15, 0.5],
    loadAmps: [2, 0.5, 5],
  },
};

const edgeOf = (seconds: number) => Math.max(seconds, leastEdgeSeconds);

export interface DescribedSource {
  readonly source: SourceCurrent;
  readonly switchingHertz: number;
  readonly assumptions: readonly Assumption[];
}

/**
 * The current into the first bank as a converter makes it, with what had to be assumed.
 *
 *     discontinuous and quasi-resonant flyback: Ipk = 2 I / (d2 + rise/T); the latter rests only for its valley
 *     continuous flyback:    mean while it flows = I / (1 - D), swing = ripple ratio x that mean
 *     boost:                 the same through its diode; D = 1 - Vin / V where the input is known
 *     resonant:              half sines at twice the switching frequency, (pi/2) I high
 *     choke at the output:   swing = V (1 - D) / (L f), or ripple ratio x I; D = V / Vin where the input is known
 *
 * What rectifies both halves sees twice the switching frequency. A linear regulator switches nothing: `throughRegulator`
 * has its ripple. Usual defaults, rough; each is told with its range.
 *
 * @param instead values to take in place of the usual ones, to see what an assumption does
 * @throws {ImpossibleConverterError} where no such converter can be
 */
export function converterSource(
  description: ConverterDescription,
  rail: { readonly volts: number | null; readonly loadAmps: number | null },
  instead: Readonly<Partial<Record<AssumedKey, number>>> = {},
): DescribedSource {
  const { kind } = description;
  const assumptions: Assumption[] = [];
  const known = (key: AssumedKey, entered: number | null): number => {
    if (entered !== null) return entered;
    const [value, low, high] = usual[kind][key] ?? [0, 0, 0];
    assumptions.push({ key, value, low, high });
    return instead[key] ?? value;
  };
  if (kind === "linear") throw new ImpossibleConverterError("switches_nothing", {});
  const loadAmps = known("loadAmps", rail.loadAmps);
  if (loadAmps < 0) throw new ImpossibleConverterError("negative_current", { loadAmps });
  if (loadAmps === 0) throw new ImpossibleConverterError("no_load", {});
  const switchingHertz = known("switchingHertz", description.switchingHertz);
  if (!(switchingHertz > 0)) throw new ImpossibleConverterError("no_time_left", { switchingHertz });
  const common = { assumptions, switchingHertz };
  const period = 1 / switchingHertz;

  if (kind === "resonant") {
    return { ...common, source: halfSineCurrent({ halfHertz: 2 * switchingHertz, meanAmps: loadAmps }) };
  }
  if (kind === "flyback_discontinuous" || kind === "flyback_quasi_resonant") {
    const fallRatio = known("dutyRatio", description.dutyRatio);
    const riseSeconds = Math.min(edgeOf(known("riseSeconds", description.riseSeconds)), 0.2 * period);
    if (!(fallRatio > 0 && fallRatio + riseSeconds / period <= 1)) {
      throw new ImpossibleConverterError("no_time_left", { fallRatio });
    }
    const peakAmps = (2 * loadAmps) / (fallRatio + riseSeconds / period);
    return { ...common, source: flybackDiscontinuousCurrent({ switchingHertz, peakAmps, fallRatio, riseSeconds }) };
  }
  const { inputVolts, inductanceHenrys } = description;
  const volts = rail.volts === null ? null : Math.abs(rail.volts);
  if (kind === "flyback_continuous" || kind === "boost") {
    if (kind === "boost" && inputVolts !== null && volts !== null && volts <= inputVolts) {
      throw new ImpossibleConverterError("input_above_output", { railVolts: volts, inputVolts });
    }
    const byVolts = kind === "boost" && inputVolts !== null && volts !== null ? 1 - inputVolts / volts : null;
    const dutyRatio = known("dutyRatio", description.dutyRatio ?? byVolts);
    const rippleRatio = known("rippleRatio", description.rippleRatio);
    const edge = Math.min(edgeOf(known("riseSeconds", description.riseSeconds)), 0.1 * period);
    if (!(dutyRatio > 0 && dutyRatio < 0.95)) throw new ImpossibleConverterError("no_time_left", { dutyRatio });
    if (!(rippleRatio >= 0 && rippleRatio <= 2))
      throw new ImpossibleConverterError("swing_above_mean", { rippleRatio });
    const conducting = 1 - dutyRatio;
    if (2 * edge >= conducting * period) throw new ImpossibleConverterError("edges_too_slow", { riseSeconds: edge });
    const flowing = { switchingHertz, dutyRatio, riseSeconds: edge, fallSeconds: edge };
    const mean = loadAmps / conducting;
    const shape = flybackContinuousCurrent({
      ...flowing,
      peakAmps: mean * (1 + rippleRatio / 2),
      valleyAmps: mean * (1 - rippleRatio / 2),
    });
    // The edges take or add a little charge: the whole is scaled so that the load gets what it draws.
    const scale = loadAmps / shape.meanAmps;
    const source = flybackContinuousCurrent({
      ...flowing,
      peakAmps: mean * (1 + rippleRatio / 2) * scale,
      valleyAmps: mean * (1 - rippleRatio / 2) * scale,
    });
    return { ...common, source };
  }
  if (inputVolts !== null && volts !== null && volts >= inputVolts) {
    throw new ImpossibleConverterError("output_above_input", { railVolts: volts, inputVolts });
  }
  const entered = description.dutyRatio ?? (inputVolts !== null && volts !== null ? volts / inputVolts : null);
  const dutyRatio = known("dutyRatio", entered);
  const mostDuty = kind === "forward" ? 0.75 : 1;
  if (!(dutyRatio > 0 && dutyRatio < mostDuty)) {
    throw new ImpossibleConverterError("output_above_input", { dutyRatio, mostDuty });
  }
  const chokeHertz = isFullWave(kind) ? 2 * switchingHertz : switchingHertz;
  const swingAmps =
    inductanceHenrys !== null && volts !== null
      ? (volts * (1 - dutyRatio)) / (inductanceHenrys * chokeHertz)
      : known("rippleRatio", description.rippleRatio) * loadAmps;
  if (swingAmps < 0) throw new ImpossibleConverterError("negative_current", { swingAmps });
  return { ...common, source: inductorCurrent({ switchingHertz: chokeHertz, loadAmps, swingAmps, dutyRatio }) };
}

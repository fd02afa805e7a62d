import { OutOfRangeError } from "../../src/errors";
import type { FilterCapacitor } from "../../src/ripple/filterNetwork";
import { mainsBulk } from "../../src/ripple/mainsBulk";
import { type SourceCurrent, sourceFromCorners } from "../../src/ripple/sourceCurrent";
import { steadyRipple } from "../../src/ripple/steadyRipple";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, list, number, record, word } from "../inputs";

function source(inputs: Inputs): SourceCurrent {
  const segments = list(record(inputs.source, "source"), "segments") as readonly (readonly number[])[];
  const corners = segments.flatMap(([t0, i0, t1, i1]): (readonly [number, number])[] => [
    [t0 as number, i0 as number],
    [t1 as number, i1 as number],
  ]);
  return sourceFromCorners(corners);
}

/** The source of the same case with ideal edges where the case calls for parts without inductance: the case keeps its ramps. */
function bank(inputs: Inputs, key: string, withEsl = true): readonly FilterCapacitor[] {
  return list(inputs, key).map((entry) => {
    const part = record(entry, key);
    return {
      capacitanceFarads: number(part, "C"),
      esrOhms: number(part, "ESR"),
      eslHenrys: withEsl ? number(part, "ESL") : 0,
    };
  });
}

const hasEsl = (inputs: Inputs, keys: readonly string[]) =>
  keys.some((key) => bank(inputs, key).some((part) => (part.eslHenrys ?? 0) > 0));

function oneNode(inputs: Inputs) {
  const answer = (key: string, withEsl: boolean) => {
    const { nodeVolts, capacitorAmps } = steadyRipple(source(inputs), {
      before: bank(inputs, key, withEsl),
      choke: null,
      after: [],
    });
    return {
      ripple_pp: nodeVolts[0]?.peakToPeak,
      ripple_rms: nodeVolts[0]?.rms,
      cap_irms: capacitorAmps.map((one) => one.rms),
    };
  };
  return variants(inputs, ["bank"], answer, ["bank", "bank_degraded"]);
}

function piFilter(inputs: Inputs) {
  const filter = record(inputs.pi_filter, "pi_filter");
  const answer = (key: string, withEsl: boolean) => {
    const [a, b] = key.split("+") as [string, string];
    const before = bank(inputs, a, withEsl);
    const { nodeVolts, capacitorAmps } = steadyRipple(source(inputs), {
      before,
      choke: { inductanceHenrys: number(filter, "Lf"), resistanceOhms: number(filter, "DCR") },
      after: bank(inputs, b, withEsl),
    });
    const amps = capacitorAmps.map((one) => one.rms);
    return {
      ripple_pp_A: nodeVolts[0]?.peakToPeak,
      ripple_rms_A: nodeVolts[0]?.rms,
      ripple_pp_B: nodeVolts[1]?.peakToPeak,
      ripple_rms_B: nodeVolts[1]?.rms,
      cap_irms_A: amps.slice(0, before.length),
      cap_irms_B: amps.slice(before.length),
    };
  };
  return variants(inputs, ["bank_A", "bank_B"], answer, ["bank_A+bank_B", "bank_A_degraded+bank_B_degraded"]);
}

function variants(
  inputs: Inputs,
  banks: readonly string[],
  answer: (key: string, withEsl: boolean) => unknown,
  [asBuilt, aged]: readonly [string, string],
) {
  const withoutEsl = hasEsl(inputs, banks)
    ? { original_esl0: answer(asBuilt, false), degraded_esl0: answer(aged, false) }
    : {};
  return { original: answer(asBuilt, true), degraded: answer(aged, true), ...withoutEsl };
}

function bulk(inputs: Inputs) {
  const diode = record(inputs.diode, "diode");
  if (number(diode, "Vd") !== 0.9 || number(diode, "Rd") !== 0.02) {
    throw new OutOfRangeError("diode", diode, "the model of the circuit");
  }
  const topology = word(inputs, "topology", ["bridge", "doubler"] as const);
  const result = mainsBulk({
    topology,
    mainsVoltsRms: number(inputs, "Vrms"),
    mainsHertz: number(inputs, "f"),
    sourceOhms: number(inputs, "Rs"),
    capacitanceFarads: number(inputs, "C"),
    esrOhms: number(inputs, "ESR"),
    loadWatts: number(inputs, "P"),
    dropoutVolts: number(inputs, "Vdropout"),
  });
  const single = <T>(values: readonly T[]) => (topology === "doubler" ? values : values[0]);
  return {
    Vmax: result.highestVolts,
    Vmin: result.lowestVolts,
    ripple_pp: result.peakToPeakVolts,
    Vmean: result.meanVolts,
    cap_irms: single(result.capacitorAmpsRms),
    cap_ripple_pp: single(result.capacitorPeakToPeakVolts),
    conduction_ms: result.conductionSeconds * 1e3,
    source_irms: result.sourceAmpsRms,
    source_ipeak: result.sourcePeakAmps,
    holdup_trough_ms: result.holdUpFromTrough.seconds * 1e3,
    vc_at_trough: single(result.holdUpFromTrough.capacitorVolts),
    holdup_peak_ms: result.holdUpFromPeak.seconds * 1e3,
    vc_at_peak: single(result.holdUpFromPeak.capacitorVolts),
  };
}

export const rippleFamilies: Readonly<Record<string, FamilyAdapter>> = {
  flyback_dcm: oneNode,
  flyback_ccm: oneNode,
  buck_forward: oneNode,
  pi_filter: piFilter,
  mains_bulk: bulk,
};

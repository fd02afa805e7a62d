import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import { clamp } from "../numerics/clamp";
import { requirePositive } from "../numerics/requireRange";
import { canImpedance } from "./canImpedance";
import { type CapacitorClass, hasPolymer, type LiquidCapacitorClass } from "./capacitorClass";
import { dissipationFactorLimitRatio } from "./dissipationFactorLimit";
import { seriesResistanceTemperatureFactor } from "./seriesResistanceTemperatureFactor";

const { leastSeriesShare } = tradeConstants.capacitors;

export interface EsrQuestion {
  readonly capacitanceFarads: number;
  readonly ratedVolts: number;
  readonly capacitorClass: CapacitorClass;
  readonly frequencyHertz: number;
  readonly temperatureCelsius: number;
  readonly diameterMetres?: number | null;
  readonly heightMetres?: number | null;
  /** Maximum ESR at 100 kHz, 20 degrees C from the part's own series sheet. */
  readonly datasheetEsrOhms?: number | null;
}

export type EsrSource = "datasheet" | "polymer_can" | "polymer_default" | "can_table" | "can_power_law" | "tan_delta";

export type EsrFlag = "temperature_clamped" | "xc_dominates" | "rs_floor";

export interface ExpectedEsr {
  readonly lowOhms: number;
  readonly typicalOhms: number;
  readonly highOhms: number;
  readonly source: EsrSource;
  readonly seriesResistance20CelsiusOhms: number;
  readonly oxideLossRatio: number;
  readonly flags: readonly EsrFlag[];
}

/** The catalogue maximum at 100 kHz, where one is known, and where it comes from. */
interface Maximum {
  readonly maxOhms: number | null;
  readonly source: EsrSource;
  readonly hasDominantReactance: boolean;
}

/**
 * Low, typical and catalogue-maximum ESR of a new part at a frequency and temperature.
 *
 *     ESR(f, T) = Rs kR(T) + tan_ox / (2 pi f C)
 *
 * Best source first: data sheet, can size, dissipation factor. 0.7 of a catalogue maximum counts as typical. `high`
 * meets the catalogue maximum at 100 kHz and the tan d limit at 120 Hz (20 degrees C) unless a floor acts.
 * Valid 50 Hz to 200 kHz where the part's own inductance does not matter. Data sheet and can: usual; from tan d at
 * 100 kHz: rough (factor 2, worst below 10 uF); polymer: rough.
 *
 * @throws {OutOfRangeError} if a given number is not finite and above 0 (temperature: above absolute zero)
 */
export function expectedEsr(
  question: EsrQuestion,
  constants: JudgementConstants["A"] = judgementConstants.A,
): ExpectedEsr {
  requirePositive("capacitanceFarads", question.capacitanceFarads);
  requirePositive("ratedVolts", question.ratedVolts);
  requirePositive("frequencyHertz", question.frequencyHertz);
  for (const key of ["diameterMetres", "heightMetres", "datasheetEsrOhms"] as const) {
    const value = question[key];
    if (value != null) requirePositive(key, value);
  }
  const { capacitorClass } = question;
  return hasPolymer(capacitorClass)
    ? polymerEsr(question, constants)
    : liquidEsr({ ...question, capacitorClass }, constants);
}

function angular(frequencyHertz: number): number {
  return 2 * Math.PI * frequencyHertz;
}

function polymerEsr(question: EsrQuestion, constants: JudgementConstants["A"]): ExpectedEsr {
  seriesResistanceTemperatureFactor(question.temperatureCelsius, "polymer", constants);
  const { maxOhms, source } = polymerMaximum(question, constants);
  const { low, typ, high } = constants.band_max;
  const reactanceOhms = 1 / (angular(constants.f_ref_hi) * question.capacitanceFarads);
  const atReference = typ * maxOhms;
  const oxideLossRatio = constants.tan_ox_polymer;
  const seriesOhms = Math.max(atReference - oxideLossRatio * reactanceOhms, leastSeriesShare * atReference);
  const typicalOhms = seriesOhms + oxideLossRatio / (angular(question.frequencyHertz) * question.capacitanceFarads);
  return {
    lowOhms: (typicalOhms * low) / typ,
    typicalOhms,
    highOhms: (typicalOhms * high) / typ,
    source,
    seriesResistance20CelsiusOhms: seriesOhms,
    oxideLossRatio,
    flags: [],
  };
}

function polymerMaximum(
  question: EsrQuestion,
  constants: JudgementConstants["A"],
): { readonly maxOhms: number; readonly source: EsrSource } {
  if (question.datasheetEsrOhms != null) return { maxOhms: question.datasheetEsrOhms, source: "datasheet" };
  const { diameterMetres, heightMetres } = question;
  const row =
    diameterMetres != null && heightMetres != null
      ? constants.can_poly.find(
          ([d, l]) =>
            Math.abs(diameterMetres * 1e3 - d) <= constants.match_D_mm + 1e-9 &&
            Math.abs(heightMetres * 1e3 - l) <= constants.match_L_mm + 1e-9,
        )
      : undefined;
  const factors = constants.poly_volt_factor;
  const voltRow = factors.find(([volts]) => question.ratedVolts <= volts) ?? factors.at(-1);
  return {
    maxOhms: (row ? row[2] : constants.poly_default) * (voltRow?.[1] ?? 1),
    source: row ? "polymer_can" : "polymer_default",
  };
}

type LiquidQuestion = EsrQuestion & { readonly capacitorClass: LiquidCapacitorClass };

function liquidEsr(question: LiquidQuestion, constants: JudgementConstants["A"]): ExpectedEsr {
  const C = question.capacitanceFarads;
  const omegaLow = angular(constants.f_ref_lo);
  const omegaHigh = angular(constants.f_ref_hi);
  const omega = angular(question.frequencyHertz);
  const limitRatio = dissipationFactorLimitRatio(question, constants);
  const temperature = seriesResistanceTemperatureFactor(
    question.temperatureCelsius,
    question.capacitorClass,
    constants,
  );
  const kR = temperature.factorRatio;
  const maximum = liquidMaximum(question, 1 / (omegaHigh * C), constants);
  const flags: EsrFlag[] = [];
  if (maximum.hasDominantReactance) flags.push("xc_dominates");
  if (temperature.isClamped) flags.push("temperature_clamped");

  let seriesOhms: number;
  let oxideLossRatio: number;
  if (maximum.maxOhms === null) {
    seriesOhms = (kappa(question, constants) * limitRatio) / (omegaLow * C);
    oxideLossRatio = Math.max(
      constants.tan_ox_floor,
      constants.typ_over_max_120 * limitRatio - omegaLow * C * seriesOhms,
    );
  } else {
    const atReference = constants.band_max.typ * maximum.maxOhms;
    oxideLossRatio = oxideLoss(constants.typ_over_max_120 * limitRatio, atReference);
    seriesOhms = atReference - oxideLossRatio / (omegaHigh * C);
    if (seriesOhms < leastSeriesShare * atReference) {
      seriesOhms = leastSeriesShare * atReference;
      flags.push("rs_floor");
    }
  }
  const typicalOhms = seriesOhms * kR + oxideLossRatio / (omega * C);
  const result = {
    typicalOhms,
    source: maximum.source,
    seriesResistance20CelsiusOhms: seriesOhms,
    oxideLossRatio,
    flags: flags.sort(),
  };
  if (maximum.maxOhms === null) {
    const { low, high } = constants.band_tan;
    return { ...result, lowOhms: low * typicalOhms, highOhms: high * typicalOhms };
  }
  const oxideLossHigh = oxideLoss(limitRatio, maximum.maxOhms);
  const seriesHighOhms = Math.max(
    maximum.maxOhms - oxideLossHigh / (omegaHigh * C),
    leastSeriesShare * maximum.maxOhms,
  );
  const { low, typ, high } = constants.band_max;
  return {
    ...result,
    lowOhms: (typicalOhms * low) / typ,
    highOhms: Math.max(typicalOhms, high * (seriesHighOhms * kR + oxideLossHigh / (omega * C))),
  };

  function oxideLoss(lossAt120Ratio: number, esrAt100kOhms: number): number {
    const loss = (lossAt120Ratio - omegaLow * C * esrAt100kOhms) / (1 - omegaLow / omegaHigh);
    return Math.max(constants.tan_ox_floor, loss);
  }
}

function liquidMaximum(question: LiquidQuestion, reactanceOhms: number, constants: JudgementConstants["A"]): Maximum {
  if (question.datasheetEsrOhms != null) {
    return { maxOhms: question.datasheetEsrOhms, source: "datasheet", hasDominantReactance: false };
  }
  const { diameterMetres, heightMetres, ratedVolts, capacitorClass } = question;
  const none = { maxOhms: null, source: "tan_delta", hasDominantReactance: false } as const;
  if (capacitorClass === "gp" || diameterMetres == null || heightMetres == null || ratedVolts > 100) return none;
  const can = canImpedance({ diameterMetres, heightMetres, ratedVolts, capacitorClass }, constants);
  const z = can.impedanceMaxOhms;
  if (z < constants.xc_guard * reactanceOhms) return { ...none, hasDominantReactance: true };
  return {
    maxOhms: Math.sqrt(z * z - reactanceOhms * reactanceOhms),
    source: can.source === "table" ? "can_table" : "can_power_law",
    hasDominantReactance: false,
  };
}

/** Share of the 120 Hz loss that sits in the series resistance, where no catalogue maximum is known. */
function kappa(question: LiquidQuestion, constants: JudgementConstants["A"]): number {
  const microfarads = question.capacitanceFarads * 1e6;
  const cap = question.ratedVolts <= 100 ? constants.kappa_cap_lv : constants.kappa_cap_hv;
  const share = constants.kappa100 * (microfarads / 100) ** constants.kappa_exp;
  return clamp(share, constants.kappa_floor, cap) * constants.kappa_class[question.capacitorClass];
}

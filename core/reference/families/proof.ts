import { protectionClasses } from "../../src/facts/jobActs";
import { coldStarts } from "../../src/proof/coldStarts";
import { earthAndInsulation } from "../../src/proof/earthAndInsulation";
import { loadLine } from "../../src/proof/loadLine";
import { loadStepResponse } from "../../src/proof/loadStep";
import { measuredHoldUp } from "../../src/proof/measuredHoldUp";
import { droopPoints, outputDroop } from "../../src/proof/outputDroop";
import { thermalSettle } from "../../src/proof/thermalSettle";
import type { FamilyAdapter } from "../adapter";
import { list, number, optionalNumber, record, word } from "../inputs";

const scaled = (value: number | null, factor: number) => (value === null ? null : value * factor);
/** What is left out stays so: the default is core's. */
const given = <K extends string>(key: K, value: number | null, factor = 1) =>
  (value === null ? {} : { [key]: value * factor }) as Partial<Record<K, number>>;

export const proofFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "j-droop": (inputs) => {
    const found = outputDroop({
      ...{ lightAmps: number(inputs, "I1_A"), lightVolts: number(inputs, "V1") },
      ...{ heavyAmps: number(inputs, "I2_A"), heavyVolts: number(inputs, "V2") },
      point: word(inputs, "where", droopPoints),
      nominalVolts: number(inputs, "V_nom"),
      ...{ voltsDeviation: number(inputs, "u_V"), ampsDeviation: number(inputs, "u_I") },
      voltsGainDeviation: (optionalNumber(inputs, "g_V_pct") ?? 0) / 100,
      ampsGainDeviation: (optionalNumber(inputs, "g_I_pct") ?? 0) / 100,
      leadOhms: optionalNumber(inputs, "R_lead"),
      leadDeviationOhms: optionalNumber(inputs, "u_lead") ?? 0,
      limitOhms: scaled(optionalNumber(inputs, "limit_mohm"), 1e-3),
    });
    return {
      ...{ R_mohm: found.outputOhms * 1e3, u_mohm: found.deviationOhms * 1e3 },
      ...{ regulation_pct: found.regulationRatio * 100, u_regulation_pct: found.regulationDeviationRatio * 100 },
      ...{ valid: found.isTelling, negative: found.isNegative, verdict: found.verdict },
    };
  },
  "j-load-line": (inputs) => {
    const points = list(inputs, "points").map((one) => {
      const row = record(one, "points");
      return { loadAmps: number(row, "I"), volts: number(row, "V"), voltsDeviation: number(row, "u_V") };
    });
    const found = loadLine(points, {
      ...given("leadOhms", optionalNumber(inputs, "R_lead")),
      ...given("kneeDeviations", optionalNumber(inputs, "k")),
      ...given("kneeRatio", optionalNumber(inputs, "kink_min_pct"), 0.01),
    });
    return {
      ...{ V0: found.unloadedVolts, R_mohm: found.outputOhms * 1e3, u_V0: found.unloadedDeviationVolts },
      ...{ u_R_mohm: found.outputDeviationOhms * 1e3, n_used: found.fittedCount, chi2: found.chiSquared },
      ...{ chi2_red: found.reducedChiSquared, kink: found.kneeAt, I_lo: found.kneeLowAmps, I_hi: found.kneeHighAmps },
    };
  },
  "j-thermal-settle": (inputs) => {
    const samples = list(inputs, "samples").map((one) => {
      const row = record(one, "samples");
      const ambientCelsius = optionalNumber(row, "Ta_C");
      return { seconds: number(row, "t_s"), celsius: number(row, "T_C"), ambientCelsius };
    });
    const found = thermalSettle(samples, {
      isAmbientOff: word(inputs, "drift", ["none", "ambient"], "none") === "ambient",
      ...given("deviationKelvin", optionalNumber(inputs, "u_T_K")),
    });
    return {
      ...{ Tinf_C: found.settledCelsius, Tinf_now_C: found.settledNowCelsius, tau_s: found.timeConstantSeconds },
      ...{ u_Tinf_K: found.deviationKelvin, remaining_K: found.remainingKelvin, t_near_s: found.nearInSeconds },
      ...{ trust: found.isTrusted, flags: [...found.flags].sort() },
    };
  },
  "j-cold-starts": (inputs) => {
    const found = coldStarts(number(inputs, "n"), number(inputs, "k"), {
      ...given("confidenceRatio", optionalNumber(inputs, "conf")),
      ...given("mostFailingRatio", optionalNumber(inputs, "p_max")),
    });
    return {
      ...{ p_hat: found.failedRatio, p_upper: found.upperRatio, enough: found.isEnough },
      ...{ n_needed: found.neededCount, more: found.moreCount },
    };
  },
  "j-step": (inputs) => {
    const found = loadStepResponse({
      ...{ capacitanceFarads: number(inputs, "C_F"), esrOhms: number(inputs, "esr"), stepAmps: number(inputs, "dI_A") },
      ...{ crossoverHertz: number(inputs, "fc_Hz"), integratorHertz: number(inputs, "fi_Hz") },
      ...{ slewAmpsPerSecond: optionalNumber(inputs, "slew_A_s"), bandVolts: number(inputs, "band_V") },
    });
    return {
      ...{ step_esr_V: found.esrVolts, step_C_V: found.capacitanceVolts, step_slew_V: found.slewVolts },
      ...{ bound_V: found.boundVolts, model_V: found.dipVolts, t_min_s: found.dipAfterSeconds },
      t_recover_s: found.recoveredAfterSeconds,
    };
  },
  "j-holdup-measured": (inputs) => {
    const found = measuredHoldUp({
      ...{ outputWatts: number(inputs, "P_W"), efficiencyRatio: number(inputs, "eff") },
      ...{ holdUpSeconds: number(inputs, "t_s"), fromVolts: number(inputs, "V1"), toVolts: number(inputs, "V2") },
      voltsDeviation: optionalNumber(inputs, "u_V") ?? 0,
      secondsDeviation: optionalNumber(inputs, "u_t_s") ?? 0,
      wattsDeviationRatio: (optionalNumber(inputs, "u_P_pct") ?? 0) / 100,
      ...{ esrOhms: optionalNumber(inputs, "esr"), markedFarads: optionalNumber(inputs, "C_nom") },
      ...given("leastRatio", optionalNumber(inputs, "c_ok")),
    });
    return {
      ...{ C_eff: found.capacitanceFarads, u_C: found.deviationFarads },
      ...{ ratio: found.markedRatio, verdict: found.verdict },
    };
  },
  "j-insulation": (inputs) => {
    const found = earthAndInsulation({
      protectionClass: word(inputs, "cls", protectionClasses),
      ...{ earthOhms: optionalNumber(inputs, "earth_ohm"), mostEarthOhms: optionalNumber(inputs, "earth_max_ohm") },
      insulationOhms: scaled(optionalNumber(inputs, "ins_Mohm"), 1e6),
      leastInsulationOhms: number(inputs, "ins_min_Mohm") * 1e6,
      testVolts: optionalNumber(inputs, "V_test"),
      earthGainDeviation: (optionalNumber(inputs, "u_earth_pct") ?? 0) / 100,
      earthDeviationOhms: optionalNumber(inputs, "u_earth_ohm") ?? 0,
      leadOhms: optionalNumber(inputs, "earth_lead_ohm") ?? 0,
      insulationDeviationRatio: (optionalNumber(inputs, "u_ins_pct") ?? 0) / 100,
      isOverRange: inputs.ins_over === true,
    });
    return {
      ...{ earth: found.earth, insulation: found.insulation, overall: found.overall },
      ...{ earth_margin_ohm: found.earthMarginOhms, ins_factor: found.insulationFactor },
      leak_uA: scaled(found.leakAmps, 1e6),
    };
  },
};

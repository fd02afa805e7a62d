import { leakageLimitAmps } from "../../src/capacitors/leakageLimit";
import { type Evidence, evidenceLikelihood } from "../../src/judgement/evidenceLikelihood";
import { gradePart } from "../../src/judgement/gradePart";
import { posteriorMeanProbability } from "../../src/judgement/posteriorMean";
import { voltageLossLikelihood } from "../../src/judgement/voltageLossLikelihood";
import type { FamilyAdapter } from "../adapter";
import { type Inputs, number, optionalNumber, record, word } from "../inputs";

const evidenceOf = (inputs: Inputs) => record(inputs.evidence, "evidence") as Evidence;

const percent = (value: number | null) => (value === null ? null : value / 100);

export const judgementFamilies: Readonly<Record<string, FamilyAdapter>> = {
  "b-evidence": (inputs) => {
    const result = evidenceLikelihood(evidenceOf(inputs));
    return { llr: result.logLikelihoodRatio, parts: result.parts };
  },
  "b-vloss-llr": (inputs) => ({ llr: voltageLossLikelihood(number(inputs, "vloss_pct") / 100) }),
  "b-reestimate": (inputs) => ({
    p: posteriorMeanProbability(
      number(inputs, "p_default"),
      { events: number(inputs, "k"), trials: number(inputs, "n") },
      optionalNumber(inputs, "n0"),
    ),
  }),
  "b-leak-limit": (inputs) => ({
    I_limit_uA:
      leakageLimitAmps({
        capacitanceFarads: number(inputs, "C_uF") / 1e6,
        ratedVolts: number(inputs, "Vr_V"),
        factorRatio: number(inputs, "factor"),
        floorAmps: number(inputs, "floor_uA") / 1e6,
      }) * 1e6,
  }),
  "b-verdict": (inputs) => {
    const expected = record(inputs.exp, "exp");
    const result = gradePart({
      school: word(inputs, "school", ["ten", "twenty", "eol200", "eol300"]),
      capacitanceRatio: optionalNumber(inputs, "c_ratio"),
      capacitanceUncertaintyRatio: number(inputs, "u_c"),
      esrOhms: optionalNumber(inputs, "esr"),
      esrUncertaintyRatio: number(inputs, "u_esr_rel"),
      expected: {
        lowOhms: number(expected, "low"),
        typicalOhms: number(expected, "typ"),
        highOhms: number(expected, "high"),
      },
      leakageRatio: optionalNumber(inputs, "leak_ratio"),
      voltageLossRatio: percent(optionalNumber(inputs, "vloss_pct")),
      evidence: evidenceOf(inputs),
      priorFailed: optionalNumber(inputs, "prior_fail"),
      priorWorn: optionalNumber(inputs, "prior_worn"),
    });
    return {
      grade: result.grade,
      score: result.score,
      P_fail: result.failedProbability,
      P_worn: result.wornProbability,
      P_param_f: result.parameterFailedProbability,
      P_param_w: result.parameterWornProbability,
      llr_param_f: result.parameterLogOdds,
      llr_evidence: result.evidenceLogLikelihoodRatio,
      llr_leak: result.leakageLogLikelihoodRatio,
      flags: result.flags,
    };
  },
};

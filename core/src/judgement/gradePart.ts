import type { EndOfLifeSchool, JudgementConstants, SchoolName } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";
import { clamp } from "../numerics/clamp";
import { logistic, logit } from "../numerics/logistic";
import { normalDistribution } from "../numerics/normalDistribution";
import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";
import { esrLimitOhms } from "./esrLimit";
import { type Evidence, evidenceLikelihood } from "./evidenceLikelihood";
import { voltageLossLikelihood } from "./voltageLossLikelihood";

export type Grade = "sound" | "worn" | "failed" | "inconclusive";

export type GradeFlag =
  | "c_high_unexplained"
  | "conflict"
  | "esr_low_unexplained"
  | "leakage_signature"
  | "replace_mechanical";

/** One combined reading of each kind, the expectation at the same frequency and temperature, and what was seen. */
export interface PartFindings {
  readonly school: SchoolName;
  readonly capacitanceRatio: number | null;
  /** One standard deviation, in ratio units. */
  readonly capacitanceUncertaintyRatio: number;
  readonly esrOhms: number | null;
  /** One standard deviation of ln(ESR). */
  readonly esrUncertaintyRatio: number;
  readonly expected: { readonly lowOhms: number; readonly typicalOhms: number; readonly highOhms: number };
  /** Measured leakage over its catalogue limit. */
  readonly leakageRatio: number | null;
  readonly voltageLossRatio: number | null;
  readonly evidence: Evidence;
  readonly priorFailed?: number | null;
  readonly priorWorn?: number | null;
}

export interface PartGrade {
  readonly grade: Grade;
  /** 100: surely sound; 0: surely failed. */
  readonly score: number;
  readonly failedProbability: number;
  readonly wornProbability: number;
  readonly parameterFailedProbability: number;
  readonly parameterWornProbability: number;
  readonly parameterLogOdds: number;
  readonly evidenceLogLikelihoodRatio: number;
  readonly leakageLogLikelihoodRatio: number | null;
  readonly flags: readonly GradeFlag[];
}

type Level = "failed" | "worn";

/**
 * Grades one part from its parameters, leakage and looks against an end-of-life school.
 *
 * Each known parameter gives a probability of lying beyond the school's limit; their disjunction is taken as odds,
 * added to the prior's and the evidence's. Half an examination is capped so that it cannot clear a part. A reading far
 * below expectation, or capacitance far above the marking, is dropped and flagged rather than believed. A vent, leak or
 * pushed-out base condemns whatever the readings say. Limits usual; priors and widths rough; calibrated in simulation.
 *
 * @throws {OutOfRangeError} for readings below 0, uncertainties not above 0, a band that is not low <= typical <= high
 */
export function gradePart(
  findings: PartFindings,
  constants: JudgementConstants["B"] = judgementConstants.B,
): PartGrade {
  const school = checked(findings, constants);
  const flags: GradeFlag[] = [];
  const evidence = evidenceLikelihood(findings.evidence, constants).logLikelihoodRatio;
  let leakage = findings.voltageLossRatio === null ? null : voltageLossLikelihood(findings.voltageLossRatio, constants);

  let capacitanceRatio = findings.capacitanceRatio;
  if (capacitanceRatio !== null && capacitanceRatio > constants.c_high) {
    capacitanceRatio = null;
    if (leakage !== null && (findings.voltageLossRatio ?? 0) * 100 > constants.vloss_high) {
      leakage += constants.leak_sig_llr;
      flags.push("leakage_signature");
    } else flags.push("c_high_unexplained");
  }
  let esrOhms = findings.esrOhms;
  if (esrOhms !== null && esrOhms < constants.esr_low_factor * findings.expected.lowOhms) {
    esrOhms = null;
    flags.push("esr_low_unexplained");
  }

  const cap = esrOhms === null ? "no_esr" : capacitanceRatio === null ? "no_c" : "full";
  const parameters = { ...findings, esrOhms, capacitanceRatio, leakage };
  const failed = beyondLimit("failed", parameters, school, constants.clear_cap[cap], constants);
  const worn = beyondLimit("worn", parameters, school, constants.clear_cap[cap], constants);
  const posterior = (prior: number, logOdds: number) => logistic(logit(prior) + logOdds + evidence);
  const failedProbability = posterior(findings.priorFailed ?? constants.prior_fail, failed.logOdds);
  let wornProbability = Math.max(
    posterior(findings.priorWorn ?? constants.prior_worn, worn.logOdds),
    failedProbability,
  );
  const isMechanical = ["bulge", "leak", "base_rubber"].some((sign) => findings.evidence[sign] === true);
  if (isMechanical) wornProbability = Math.max(wornProbability, constants.mech_worn);

  let grade: Grade = "inconclusive";
  if (failedProbability >= constants.cut_fail) grade = "failed";
  else if (wornProbability >= constants.cut_worn) grade = "worn";
  else if (
    failedProbability <= constants.cut_sound_fail &&
    wornProbability <= constants.cut_sound_worn &&
    esrOhms !== null &&
    !flags.includes("c_high_unexplained")
  ) {
    grade = "sound";
  }
  if (isMechanical) {
    grade = failedProbability >= 0.5 ? "failed" : "worn";
    flags.push("replace_mechanical");
    if (failed.logOdds < -2) flags.push("conflict");
  }
  return {
    grade,
    score: 100 * (1 - failedProbability / 2 - wornProbability / 2),
    failedProbability,
    wornProbability,
    parameterFailedProbability: failed.probability,
    parameterWornProbability: worn.probability,
    parameterLogOdds: failed.logOdds,
    evidenceLogLikelihoodRatio: evidence,
    leakageLogLikelihoodRatio: leakage,
    flags: flags.sort(),
  };
}

function checked(findings: PartFindings, constants: JudgementConstants["B"]): EndOfLifeSchool {
  const { lowOhms, typicalOhms, highOhms } = findings.expected;
  requirePositive("expected.lowOhms", lowOhms);
  requirePositive("expected.highOhms", highOhms);
  if (!(lowOhms <= typicalOhms && typicalOhms <= highOhms)) {
    throw new OutOfRangeError("expected.typicalOhms", typicalOhms, "between low and high");
  }
  requirePositive("capacitanceUncertaintyRatio", findings.capacitanceUncertaintyRatio);
  requirePositive("esrUncertaintyRatio", findings.esrUncertaintyRatio);
  for (const key of ["capacitanceRatio", "esrOhms", "voltageLossRatio"] as const) {
    const value = findings[key];
    if (value !== null) requireNonNegative(key, value);
  }
  if (findings.leakageRatio !== null) requirePositive("leakageRatio", findings.leakageRatio);
  if (findings.priorFailed != null) requireBetween("priorFailed", findings.priorFailed, 0, 1);
  if (findings.priorWorn != null) requireBetween("priorWorn", findings.priorWorn, 0, 1);
  const school = Object.hasOwn(constants.schools, findings.school) ? constants.schools[findings.school] : undefined;
  if (!school) throw new OutOfRangeError("school", findings.school, "a known school");
  return school;
}

/** Probability that some parameter lies beyond the school's limit, and its capped log-odds. */
function beyondLimit(
  level: Level,
  parameters: PartFindings & { readonly leakage: number | null },
  school: EndOfLifeSchool,
  clearCap: number,
  constants: JudgementConstants["B"],
): { readonly probability: number; readonly logOdds: number } {
  const { expected } = parameters;
  const chances: number[] = [];
  if (parameters.esrOhms !== null) {
    const limit = esrLimitOhms(school, expected, level);
    const spread =
      school.ref === "high"
        ? constants.s_limit_eol
        : Math.log(expected.highOhms / expected.lowOhms) / (2 * constants.z90);
    const distance = Math.log(parameters.esrOhms) - Math.log(limit);
    chances.push(normalDistribution(distance / Math.hypot(parameters.esrUncertaintyRatio, spread)));
  }
  if (parameters.capacitanceRatio !== null) {
    const limit = level === "failed" ? school.c_f : school.c_w;
    const spread = Math.hypot(parameters.capacitanceUncertaintyRatio, school.s_init);
    chances.push(normalDistribution((limit - parameters.capacitanceRatio) / spread));
  }
  if (parameters.leakageRatio !== null) {
    chances.push(normalDistribution(Math.log(parameters.leakageRatio) / constants.leak_sigma));
  }
  if (parameters.leakage !== null) {
    chances.push(logistic(parameters.leakage + (level === "worn" ? constants.vloss_worn_shift : 0)));
  }
  if (chances.length === 0) return { probability: 0.5, logOdds: 0 };
  const probability = chances.some((q) => q >= 1)
    ? 1
    : -Math.expm1(chances.reduce((sum, q) => sum + Math.log1p(-q), 0));
  const clipped = clamp(probability, logistic(constants.clip_lo), logistic(constants.clip_hi));
  return { probability, logOdds: Math.max(logit(clipped), clearCap) };
}

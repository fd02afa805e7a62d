import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { OutOfRangeError } from "../errors";

/** What was seen (true), looked for and not seen (false), or not examined (null or absent), by evidence name. */
export type Evidence = Readonly<Record<string, boolean | null | undefined>>;

/**
 * Log-likelihood ratio (failed against sound) of what the eye and the record say.
 *
 * Signs of one group are correlated: the strongest counts fully, the rest damped. The total never falls below the
 * visual floor: a clean look never clears a part. Rough.
 *
 * @throws {OutOfRangeError} for a name that is not in the constants, or a value other than true, false or null
 */
export function evidenceLikelihood(
  evidence: Evidence,
  constants: JudgementConstants["B"] = judgementConstants.B,
): { readonly logLikelihoodRatio: number; readonly parts: Readonly<Record<string, number>> } {
  const parts: Record<string, number> = {};
  for (const [name, seen] of Object.entries(evidence)) {
    const row = Object.hasOwn(constants.evidence, name) ? constants.evidence[name] : undefined;
    if (!row) throw new OutOfRangeError("evidence", name, "a known sign");
    if (seen == null) continue;
    if (typeof seen !== "boolean") throw new OutOfRangeError(name, seen, "true, false or null");
    const [failed, sound] = row;
    parts[name] = seen ? Math.log(failed / sound) : Math.log((1 - failed) / (1 - sound));
  }
  let total = 0;
  for (const names of Object.values(constants.groups)) {
    const weights = names.filter((name) => name in parts).map((name) => parts[name] as number);
    weights.sort((a, b) => Math.abs(b) - Math.abs(a));
    weights.forEach((weight, index) => {
      total += index === 0 ? weight : weight * constants.damp;
    });
  }
  return { logLikelihoodRatio: Math.max(total, constants.visual_floor), parts };
}

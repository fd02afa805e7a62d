import type { SignState, VisualSign } from "../facts/visualSigns";
import { visualSigns } from "../facts/visualSigns";
import type { Evidence } from "./evidenceLikelihood";

/** The one map from the application's signs to the evidence names of the constants; null: no weight of its own yet. */
export const evidenceOfSign: Readonly<Record<VisualSign, string | null>> = {
  domed: "bulge",
  vented: "bulge",
  burst: "bulge",
  crust: "leak",
  leak: "leak",
  base_lifted: "base_rubber",
  sleeve_damaged: "sleeve",
  board_browned: "board_stain",
  cracked_joint: null,
  adhesive_brown: null,
};

/**
 * Evidence from observed signs. Several signs can stand for one evidence name: seen wins over not seen, and not seen
 * counts only when something was looked for.
 */
export function evidenceFromSigns(observed: Readonly<Partial<Record<VisualSign, SignState>>>): Evidence {
  const evidence: Record<string, boolean | null> = {};
  for (const sign of visualSigns) {
    const name = evidenceOfSign[sign];
    const state = observed[sign];
    if (name === null || state === undefined || state === "not_looked") continue;
    evidence[name] = evidence[name] === true || state === "seen";
  }
  return evidence;
}

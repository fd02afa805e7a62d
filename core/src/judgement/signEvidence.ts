import type { Evidence } from "./evidenceLikelihood";

/** Visual signs of a part, in the order in which one looks. */
export const visualSigns = [
  "domed",
  "vented",
  "burst",
  "crust",
  "leak",
  "base_lifted",
  "sleeve_damaged",
  "board_browned",
  "cracked_joint",
  "adhesive_brown",
] as const;
export type VisualSign = (typeof visualSigns)[number];

export type SignState = "seen" | "not_seen" | "not_looked";

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

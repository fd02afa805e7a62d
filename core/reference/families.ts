import { OutOfRangeError } from "../src/errors";
import type { FamilyAdapter } from "./adapter";
import { capacitorFamilies } from "./families/capacitors";
import { casebookFamilies } from "./families/casebook";
import { inCircuitFamilies } from "./families/incircuit";
import { judgementFamilies } from "./families/judgement";
import { lifeFamilies } from "./families/life";
import { planningFamilies } from "./families/planning";
import { practiceFamilies } from "./families/practice";
import { proofFamilies } from "./families/proof";
import { replacementFamilies } from "./families/replacement";
import { rippleFamilies } from "./families/ripple";
import { safetyFamilies } from "./families/safety";
import type { Inputs } from "./inputs";

export const families: Readonly<Record<string, FamilyAdapter>> = {
  ...capacitorFamilies,
  ...casebookFamilies,
  ...judgementFamilies,
  ...inCircuitFamilies,
  ...lifeFamilies,
  ...planningFamilies,
  ...practiceFamilies,
  ...proofFamilies,
  ...replacementFamilies,
  ...rippleFamilies,
  ...safetyFamilies,
};

/** Runs a case; only core's range error counts as invalid input, any other throw is the caller's to report. */
export function runFamily(family: string, inputs: Inputs): unknown {
  const adapter = Object.hasOwn(families, family) ? families[family] : undefined;
  if (!adapter) throw new Error(`unknown family ${family}`);
  try {
    return encode(adapter(inputs));
  } catch (error) {
    if (error instanceof OutOfRangeError) return { error: "invalid_input" };
    throw error;
  }
}

/** Infinity travels as the string "inf". */
function encode(value: unknown): unknown {
  if (value === Infinity) return "inf";
  if (Array.isArray(value)) return value.map(encode);
  if (typeof value === "object" && value !== null) {
    return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, encode(inner)]));
  }
  return value;
}

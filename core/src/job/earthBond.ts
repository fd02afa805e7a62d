import { type JobAct, lastActOf } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { closingList } from "../facts/teardown";
import type { ProtectionClass } from "../proof/earthAndInsulation";
import { inOrder } from "../readings/factMoment";

/** As it was told last; nobody said: with protective earth. */
export function protectionClassOf(acts: readonly JobAct[]): ProtectionClass {
  return lastActOf(acts, "protection_class", null)?.word === "II" ? "II" : "I";
}

/** By house rule for a unit with earth; a doubly insulated one has nothing but its insulation and asks twice. */
export function leastInsulationOhms(acts: readonly JobAct[], rules: JobRules): number {
  return (protectionClassOf(acts) === "II" ? 2 : 1) * rules.safety.leastInsulationOhms;
}

/** What was read last of earth and insulation and lies beyond its limit: a fault that no reason accepts away. */
export function earthFaults(facts: JobFacts, rules: JobRules): readonly ("earth_bond_high" | "insulation_low")[] {
  const bond = inOrder(facts.powerEvents.filter((one) => one.item === "earth_bond")).at(-1)?.values?.[0];
  const isHigh = bond === "open" || (typeof bond === "number" && bond > rules.safety.earthBondOhms);
  const insulation = lastActOf(facts.acts, "insulation_read", null)?.value ?? null;
  const isLow = insulation !== null && insulation < leastInsulationOhms(facts.acts, rules);
  return [...(isHigh ? (["earth_bond_high"] as const) : []), ...(isLow ? (["insulation_low"] as const) : [])];
}

/**
 * Whether the protective earth was measured within its limit on the closed case: by the last bond test, stored after
 * everything but the earth's own screws had gone back. Local rules come first; the limit is a house rule, with the cord.
 */
export function isEarthBonded(facts: JobFacts, rules: JobRules): boolean {
  const test = inOrder(facts.powerEvents.filter((one) => one.item === "earth_bond")).at(-1);
  const [ohms] = test?.values ?? [];
  if (!test || typeof ohms !== "number" || ohms > rules.safety.earthBondOhms) return false;
  const isOpen = closingList(facts.teardownSteps, facts.teardownReturns).some(
    ({ step, missingCount }) => step.kind !== "earth_screws" && missingCount > 0,
  );
  if (isOpen) return false;
  const order = ({ sequence }: { readonly sequence: number | null }) => sequence ?? Number.POSITIVE_INFINITY;
  return facts.teardownReturns.every((one) => order(one) <= order(test));
}

import type { InCircuitSchool, JobRules, SchoolName, VoltageSchool } from "@pale-cap/core";

/** One rule of the shop: what it is by default, where that comes from, and why. */
export interface HouseRule<T> {
  readonly value: T;
  readonly unit: string;
  readonly source: string;
  readonly why: string;
}

const rule = <T>(value: T, unit: string, source: string, why: string): HouseRule<T> => ({ value, unit, source, why });

/** Every rule with its default. What the shop changed is stored apart and folded over these. */
export const houseRules = {
  "charge.workingVolts": rule(10, "V", "bench habit", "d.c. that a hand can touch without noticing it"),
  "charge.reverifyMinutes": rule(30, "min", "bench habit", "dielectric absorption brings voltage back"),
  "charge.mustProveMeter": rule(true, "", "proving a tester before and after", "a broken lead reads zero too"),
  "judge.school": rule<SchoolName>("twenty", "", "usual repair rule", "C -20 %, ESR three times typical"),
  "judge.inCircuit": rule<InCircuitSchool>(
    "condemn_only",
    "",
    "bench practice",
    "in circuit condemns; a lifted lead clears, because a good neighbour hides a bad part",
  ),
  "judge.esrUncertaintyRatio": rule(0.1, "", "usual hand-held meter", "spread of contact and meter"),
  "judge.contactOhms": rule(0.003, "Ω", "usual probe tips", "left after zeroing the leads"),
  "judge.capacitanceUncertaintyRatio": rule(0.03, "", "usual hand-held meter", "accuracy of the range"),
  "choose.voltageSchool": rule<VoltageSchool>("both", "", "bench practice", "marking or higher, and the rail's margin"),
  "prove.railToleranceRatio": rule(0.05, "", "common rail tolerance", "where the rail has no limit of its own"),
  "prove.rippleLimitRatio": rule(0.01, "", "common rail limit", "1 % of the rail, peak to peak"),
  "shop.warrantyMonths": rule(6, "months", "shop's promise", "long enough to see a weak neighbour fail"),
  "shop.currency": rule("EUR", "", "ISO 4217", "money is stored in its minor unit"),
  "shop.timeZone": rule("Europe/Berlin", "", "IANA time zone", "days of due dates and warranty"),
} as const;

export type HouseRuleKey = keyof typeof houseRules;
export type HouseRuleValues = { readonly [K in HouseRuleKey]: (typeof houseRules)[K]["value"] };

/** The defaults with the shop's changes over them; a key that is no longer known is ignored. */
export function foldHouseRules(changes: readonly { readonly key: string; readonly value: unknown }[]): HouseRuleValues {
  const values: Record<string, unknown> = Object.fromEntries(
    Object.entries(houseRules).map(([key, { value }]) => [key, value]),
  );
  for (const change of changes) if (change.key in houseRules) values[change.key] = change.value;
  return values as HouseRuleValues;
}

/** The rules as core's functions take them. */
export function jobRules(values: HouseRuleValues): JobRules {
  return {
    judgement: {
      school: values["judge.school"],
      inCircuitSchool: values["judge.inCircuit"],
      esrUncertaintyRatio: values["judge.esrUncertaintyRatio"],
      contactOhms: values["judge.contactOhms"],
      capacitanceUncertaintyRatio: values["judge.capacitanceUncertaintyRatio"],
    },
    charge: {
      workingVolts: values["charge.workingVolts"],
      reverifySeconds: values["charge.reverifyMinutes"] * 60,
      mustProveMeter: values["charge.mustProveMeter"],
    },
    rail: {
      railToleranceRatio: values["prove.railToleranceRatio"],
      rippleLimitRatio: values["prove.rippleLimitRatio"],
    },
  };
}

import type { EndOfLifeSchool } from "../constants/judgementConstants";

/** ESR from which a school calls a part worn or failed: its multiple of what it refers to, typical or catalogue maximum. */
export function esrLimitOhms(
  school: EndOfLifeSchool,
  expected: { readonly typicalOhms: number; readonly highOhms: number },
  level: "worn" | "failed",
): number {
  const reference = school.ref === "high" ? expected.highOhms : expected.typicalOhms;
  return reference * (level === "failed" ? school.r_f : school.r_w);
}

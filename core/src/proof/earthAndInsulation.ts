import { OutOfRangeError } from "../errors";
import { protectionClasses } from "../facts/jobActs";
import { requireBetween, requireNonNegative, requirePositive } from "../numerics/requireRange";

/** With protective earth, or doubly insulated. */
export type ProtectionClass = (typeof protectionClasses)[number];

export interface EarthQuestion {
  readonly protectionClass: ProtectionClass;
  /** null: not read. */
  readonly earthOhms: number | null;
  readonly mostEarthOhms: number | null;
  readonly insulationOhms: number | null;
  readonly leastInsulationOhms: number;
  readonly testVolts: number | null;
  readonly earthGainDeviation?: number;
  readonly earthDeviationOhms?: number;
  /** Of the tester's own leads. */
  readonly leadOhms?: number;
  readonly insulationDeviationRatio?: number;
  /** The tester showed the end of its range: at least so much. */
  readonly isOverRange?: boolean;
}

export type EarthVerdict = "fail" | "missing" | "unclear" | "pass";

export interface EarthAndInsulation {
  /** null in class II: there is none. */
  readonly earth: EarthVerdict | null;
  readonly insulation: EarthVerdict;
  /** The worst of both. */
  readonly overall: EarthVerdict;
  readonly earthMarginOhms: number | null;
  readonly insulationFactor: number | null;
  readonly leakAmps: number | null;
}

const slack = 1e-12;
const worstFirst: readonly EarthVerdict[] = ["fail", "missing", "unclear", "pass"];

/**
 * Protective earth and insulation against limits that the house sets. Arithmetic only: which limits hold is for local rules.
 *
 *     r = max(ohm - lead, 0), u = ohm share + u_ohm: pass r + u <= most, fail r - u > most
 *     insulation: pass value (1 - share) >= least, fail value (1 + share) < least unless beyond the tester's range
 *
 * @throws {OutOfRangeError} no limit for the earth of class I, limits not above 0, shares outside 0 to 1
 */
export function earthAndInsulation(question: EarthQuestion): EarthAndInsulation {
  const { protectionClass, earthOhms, mostEarthOhms, insulationOhms, leastInsulationOhms, testVolts } = question;
  const { earthGainDeviation = 0, earthDeviationOhms = 0, leadOhms = 0, isOverRange = false } = question;
  const insulationDeviationRatio = question.insulationDeviationRatio ?? 0;
  if (!protectionClasses.includes(protectionClass)) {
    throw new OutOfRangeError("protectionClass", protectionClass, "I or II");
  }
  const hasEarth = protectionClass === "I";
  if (hasEarth) requirePositive("mostEarthOhms", mostEarthOhms ?? Number.NaN);
  requirePositive("leastInsulationOhms", leastInsulationOhms);
  if (insulationDeviationRatio !== 0) requireBetween("insulationDeviationRatio", insulationDeviationRatio, 0, 1);
  for (const [name, value] of Object.entries({ earthGainDeviation, earthDeviationOhms, leadOhms })) {
    requireNonNegative(name, value);
  }
  if (earthOhms !== null) requireNonNegative("earthOhms", earthOhms);
  if (insulationOhms !== null) requireNonNegative("insulationOhms", insulationOhms);
  if (testVolts !== null) requirePositive("testVolts", testVolts);
  let [earth, earthMarginOhms]: [EarthVerdict | null, number | null] = [hasEarth ? "missing" : null, null];
  if (hasEarth && earthOhms !== null) {
    const most = mostEarthOhms as number;
    const ohms = Math.max(earthOhms - leadOhms, 0);
    const deviation = earthOhms * earthGainDeviation + earthDeviationOhms;
    earthMarginOhms = most - (ohms + deviation);
    earth = earthMarginOhms >= -slack ? "pass" : ohms - deviation > most ? "fail" : "unclear";
  }
  const low = insulationOhms === null ? null : insulationOhms * (1 - insulationDeviationRatio);
  const high = (insulationOhms ?? 0) * (1 + insulationDeviationRatio);
  const factor = low === null ? null : low / leastInsulationOhms;
  const insulation: EarthVerdict =
    factor === null
      ? "missing"
      : factor >= 1 - slack
        ? "pass"
        : high < leastInsulationOhms && !isOverRange
          ? "fail"
          : "unclear";
  return {
    ...{ earth, insulation, earthMarginOhms, insulationFactor: factor },
    overall: worstFirst.find((one) => one === earth || one === insulation) ?? "missing",
    leakAmps: insulationOhms === null || insulationOhms === 0 || testVolts === null ? null : testVolts / insulationOhms,
  };
}

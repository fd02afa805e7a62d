import type { FittedPart } from "../board/board";
import type { Section } from "../board/sections";
import type { CapacitorClass } from "../capacitors/capacitorClass";
import { hasPolymer } from "../capacitors/capacitorClass";
import { type EsrSourceSchool, expectedEsrOfPart, partForSchool } from "../capacitors/expectedEsrOfPart";
import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";

const { series } = tradeConstants.judgement;

/** ln of a series' own new ESR over the expected one: the steps at which it is asked. */
export const seriesSteps: readonly number[] = Array.from({ length: 15 }, (_, n) => -1.2 + 0.2 * n);

/**
 * How the new ESR of a part's series lies to what its marking lets expect: series of one class differ by about a third, and a
 * class may be unknown or wrong. One factor for all parts of a bank, for they were bought together. Rough.
 *
 * @param commonSpreadRatio what the readings of a bank share beside it: an air temperature that nobody wrote down
 * @returns one share for each of `seriesSteps`, together 1
 */
export function seriesPrior(
  part: FittedPart,
  section: Section,
  commonSpreadRatio: number,
  school: EsrSourceSchool,
  constants: JudgementConstants["A"],
): readonly number[] {
  const known = partForSchool(part, school);
  const asked = (capacitorClass: CapacitorClass | null) =>
    expectedEsrOfPart({ ...known, capacitorClass }, 100e3, 20, constants)?.typicalOhms ?? 1;
  const typical = asked(part.capacitorClass);
  const own =
    known.datasheetEsrOhms !== null
      ? series.spreadBySheet
      : known.diameterMetres === null || known.heightMetres === null
        ? series.spreadWithoutSize
        : series.spreadRatio;
  const spread = Math.hypot(own, commonSpreadRatio);
  const weights = seriesSteps.map((step) =>
    classShares(part.capacitorClass, section).reduce(
      (sum, [name, share]) => sum + share * Math.exp(-(((step - Math.log(asked(name) / typical)) / spread) ** 2) / 2),
      0,
    ),
  );
  const total = weights.reduce((sum, one) => sum + one, 0);
  return weights.map((one) => one / total);
}

/** Which classes a part may be of: as entered with a doubt, else as usual where it sits. */
function classShares(entered: CapacitorClass | null, section: Section): readonly (readonly [CapacitorClass, number])[] {
  if (entered !== null) {
    if (hasPolymer(entered)) return [[entered, 1]];
    const others = (["gp", "lowz", "ultra"] as const).filter((one) => one !== entered);
    return [
      [entered, 1 - series.wrongClassShare],
      ...others.map((one) => [one, series.wrongClassShare / others.length] as const),
    ];
  }
  const { gp, lowz, ultra } =
    section === "bulk" || section === "pfc" || section === "feedback"
      ? series.classOfMains
      : section === "vcc"
        ? series.classOfVcc
        : series.classOfOutput;
  return [
    ["gp", gp],
    ["lowz", lowz],
    ["ultra", ultra],
  ];
}

import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import type { CapacitorClass } from "./capacitorClass";
import { type ExpectedEsr, expectedEsr } from "./expectedEsr";
import { hybridEsrMaximumOhms } from "./hybridEsr";
import { extrapolationFactor, type TableBasis, tableBasis } from "./tableBasis";

/** `best_first`: data sheet, then can size, then tan delta. `tan_delta`: as on a chart, whatever the size. */
export type EsrSourceSchool = "best_first" | "tan_delta";

/** A capacitor as its marking, its size and its sheet tell of it; null: not known. */
export interface MarkedCapacitor {
  readonly capacitanceFarads: number | null;
  readonly ratedVolts: number | null;
  readonly capacitorClass: CapacitorClass | null;
  readonly diameterMetres: number | null;
  readonly heightMetres: number | null;
  readonly datasheetEsrOhms: number | null;
}

/** Expected ESR with what it stands on; beyond the tables its band is wider. */
export interface PartExpectation extends ExpectedEsr {
  readonly basis: TableBasis;
}

/** The part as far as a school looks at it: tan delta knows neither size nor data sheet. */
export function partForSchool<T extends MarkedCapacitor>(part: T, school: EsrSourceSchool): T {
  if (school === "best_first") return part;
  return { ...part, diameterMetres: null, heightMetres: null, datasheetEsrOhms: null };
}

/** Expected ESR of a fitted part at a tester's frequency; null while value or voltage are unknown. */
export function expectedEsrOfPart(
  part: MarkedCapacitor,
  frequencyHertz: number,
  temperatureCelsius: number,
  constants: JudgementConstants["A"] = judgementConstants.A,
): PartExpectation | null {
  const { capacitanceFarads, ratedVolts } = part;
  if (capacitanceFarads === null || ratedVolts === null || !(frequencyHertz > 0)) return null;
  const capacitorClass = part.capacitorClass ?? "lowz";
  const question = { ...part, capacitanceFarads, ratedVolts, capacitorClass, frequencyHertz, temperatureCelsius };
  if (capacitorClass === "hybrid" && part.datasheetEsrOhms === null) {
    const datasheetEsrOhms = hybridEsrMaximumOhms({ diameterMetres: part.diameterMetres, ratedVolts });
    return { ...expectedEsr({ ...question, datasheetEsrOhms }, constants), source: "polymer_can", basis: "row" };
  }
  const expected = expectedEsr(question, constants);
  const basis = tableBasis(question, expected, constants);
  if (basis !== "extrapolated") return { ...expected, basis };
  const { lowOhms, highOhms } = expected;
  return { ...expected, lowOhms: lowOhms / extrapolationFactor, highOhms: highOhms * extrapolationFactor, basis };
}

import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { EsrQuestion, ExpectedEsr } from "./expectedEsr";

const { sameVoltsRatio } = tradeConstants.capacitors;

/** How far an expectation stands on rows of its tables: on one, between two, beyond the last. */
export type TableBasis = "sheet" | "row" | "interpolated" | "extrapolated";

/** Beyond its tables a band is widened by this factor each way. Rough. */
export const extrapolationFactor = 1.5;
/** Where the two-term model of ESR holds. */
const [lowestHertz, highestHertz] = [50, 200e3];

/**
 * Names what an expected ESR stands on: a data sheet, a row of the tables, between rows, or beyond them. Frequencies
 * outside 50 Hz to 200 kHz and temperatures beyond the model's ends are beyond as well.
 */
export function tableBasis(
  question: EsrQuestion,
  expected: ExpectedEsr,
  constants: JudgementConstants["A"] = judgementConstants.A,
): TableBasis {
  const { frequencyHertz, ratedVolts, diameterMetres, heightMetres, capacitorClass } = question;
  if (frequencyHertz < lowestHertz || frequencyHertz > highestHertz) return "extrapolated";
  if (expected.flags.includes("temperature_clamped")) return "extrapolated";
  switch (expected.source) {
    case "datasheet":
      return "sheet";
    case "can_table":
    case "polymer_can":
    case "polymer_default":
      return "row";
    case "can_power_law": {
      const isWithin = (value: number | null | undefined, column: 0 | 1) => {
        const all = constants.can_lowz.map((row) => row[column]);
        const millimetres = (value ?? 0) * 1e3;
        return millimetres >= Math.min(...all) - 1e-9 && millimetres <= Math.max(...all) + 1e-9;
      };
      return isWithin(diameterMetres, 0) && isWithin(heightMetres, 1) ? "interpolated" : "extrapolated";
    }
    case "tan_delta": {
      const rows = (capacitorClass === "gp" ? constants.tan_gp : constants.tan_lowz).map(([volts]) => volts);
      if (rows.some((volts) => Math.abs(volts - ratedVolts) <= sameVoltsRatio * volts)) return "row";
      return ratedVolts > Math.min(...rows) && ratedVolts < Math.max(...rows) ? "interpolated" : "extrapolated";
    }
  }
}

import { type JobDetail, noIntakeDetails } from "@pale-cap/contract";
import { sampleNet } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { unitRating } from "./unitRating";

const rail = { name: null, volts: -12, amps: 2 };
const job = (labelPlate: Partial<typeof noIntakeDetails.labelPlate>, nets: readonly object[] = []) =>
  ({
    job: { intakeDetails: { ...noIntakeDetails, labelPlate: { ...noIntakeDetails.labelPlate, ...labelPlate } } },
    nets,
  }) as unknown as JobDetail;

describe("unitRating", () => {
  it("believes the label's input, then its rails, then the promise", () => {
    const nets = [sampleNet({ nominalVolts: 12, fullLoadAmps: 4 })];
    const input = { inputVoltsLow: 100, inputVoltsHigh: 240, inputAmps: 1.5 };
    expect(unitRating(job({ ...input, rails: [rail] }, nets))).toEqual({ watts: 150, source: "label_input" });
    expect(unitRating(job({ inputAmps: 1.5, rails: [rail] }, nets))).toEqual({ watts: 24, source: "label_rails" });
    expect(unitRating(job({}, nets))).toEqual({ watts: 48, source: "promised_rails" });
    expect(unitRating(job({}))).toBeNull();
  });
});

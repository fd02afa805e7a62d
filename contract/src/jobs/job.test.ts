import { describe, expect, it } from "vitest";
import { intakeDetailsSchema, noIntakeDetails } from "./job";

describe("intakeDetailsSchema", () => {
  it("takes an intake of which nothing is known", () => {
    expect(intakeDetailsSchema.validateSync(noIntakeDetails, { strict: true })).toEqual(noIntakeDetails);
  });
  it("refuses a day of 30 hours", () => {
    const purpose = { ...noIntakeDetails.purpose, hoursPerDay: 20, standbyHoursPerDay: 10 };
    const day = (more: object) => () =>
      intakeDetailsSchema.validateSync({ ...noIntakeDetails, purpose: { ...purpose, ...more } });
    expect(day({})).toThrow(expect.objectContaining({ errors: [{ code: "day_too_long" }] }));
    expect(day({ standbyHoursPerDay: 4 })).not.toThrow();
  });
});

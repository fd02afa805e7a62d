import type { JobDetail } from "@pale-cap/contract";
import { sampleNet } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { anotherName, matchingNet, railChanges } from "./useAddRails";

const detail = {
  nets: [
    { ...sampleNet({ id: "n12", name: "12 V", fullLoadAmps: null }), version: 3 },
    { ...sampleNet({ id: "n5a", name: "5 V standby", nominalVolts: 5, section: "standby" }), version: 1 },
    { ...sampleNet({ id: "n5b", name: "5 V logic", nominalVolts: 5 }), version: 1 },
  ],
} as unknown as JobDetail;

describe("rails that were promised", () => {
  it("find their net by name, or by volts where only one fits", () => {
    expect(matchingNet(detail, { name: "12 v", volts: null, amps: 4 })?.id).toBe("n12");
    expect(matchingNet(detail, { name: null, volts: 12, amps: 4 })?.id).toBe("n12");
    expect(matchingNet(detail, { name: " ", volts: 5, amps: 1 })).toBeUndefined();
    // A name that is given and not found is another rail, whatever its volts.
    expect(matchingNet(detail, { name: "12 V standby", volts: 12, amps: 1.5 })).toBeUndefined();
  });
  it("lay the load on a net that stands, make one that does not, and change nothing twice", () => {
    expect(railChanges(detail, { name: null, volts: 12, amps: 4 })).toMatchObject([
      { operation: "update", id: "n12", version: 3, values: { name: "12 V", fullLoadAmps: 4 } },
    ]);
    expect(railChanges(detail, { name: "3.3 V standby", volts: 3.3, amps: 1 })).toMatchObject([
      { operation: "insert", values: { section: "standby", nominalVolts: 3.3 } },
    ]);
    expect(railChanges(detail, { name: "12 V", volts: 12, amps: null })).toEqual([]);
  });
  it("call a second rail of a name by the next free number", () => {
    expect(anotherName(detail, "12 V")).toBe("12 V 2");
    expect(anotherName({ nets: [{ ...detail.nets[0], name: "12 v 2" }] as typeof detail.nets }, "12 V")).toBe("12 V 3");
  });
});

import { sampleDetail } from "@pale-cap/contract/testing";
import { describe, expect, it } from "vitest";
import { intakeOf } from "./intakeOf";
import { areWords, mergeIntake, settledIntake } from "./mergeIntake";

const base = { ...intakeOf(sampleDetail().job), complaint: "dead", deviceModel: null, dueOn: null };
const details = base.intakeDetails;

describe("intake that two people change", () => {
  it("takes what only one of the two touched, from both", () => {
    const mine = { ...base, complaint: "dead, hums" };
    const theirs = { ...base, deviceModel: "KR-4", intakeDetails: { ...details, isKnownGood: true } };
    const { values, conflicts } = mergeIntake(base, mine, theirs);
    expect(conflicts).toEqual([]);
    expect(values).toEqual({ ...theirs, complaint: "dead, hums" });
  });
  it("keeps what was typed and tells both where both touched one field, inside the details too", () => {
    const mine = { ...base, complaint: "hums", intakeDetails: { ...details, isKnownGood: !details.isKnownGood } };
    const theirs = { ...base, complaint: "clicks", intakeDetails: { ...details, isKnownGood: details.isKnownGood } };
    const { values, conflicts } = mergeIntake(base, mine, theirs);
    expect(conflicts).toEqual([{ field: "complaint", theirs: "clicks", mine: "hums" }]);
    expect([values.complaint, values.intakeDetails.isKnownGood]).toEqual(["hums", !details.isKnownGood]);
    const [conflict] = conflicts as [(typeof conflicts)[number]];
    expect(settledIntake(values, conflict, "theirs").complaint).toBe("clicks");
    expect(settledIntake(values, conflict, "both").complaint).toBe("clicks\nhums");
    const inner = mergeIntake(
      base,
      { ...base, intakeDetails: { ...details, topology: "flyback" } },
      { ...base, intakeDetails: { ...details, topology: "buck" as never } },
    );
    expect(inner.conflicts.map((one) => one.field)).toEqual(["intakeDetails.topology"]);
    expect(settledIntake(inner.values, inner.conflicts[0] as never, "theirs").intakeDetails.topology).toBe("buck");
  });
  it("is no conflict where both typed the same, or one emptied what was empty", () => {
    const both = { ...base, complaint: "hums" };
    expect(mergeIntake(base, { ...both, deviceModel: "" }, both).conflicts).toEqual([]);
  });
  it("offers both only where both are words", () => {
    expect(areWords({ field: "complaint", theirs: "a", mine: "b" })).toBe(true);
    expect(areWords({ field: "dueOn", theirs: null, mine: "2027-01-01" })).toBe(false);
    expect(areWords({ field: "priceLimitMinor", theirs: 3, mine: 4 })).toBe(false);
  });
});

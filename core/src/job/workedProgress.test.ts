import { describe, expect, it } from "vitest";
import { sampleRules } from "../../testing/sampleJob";
import { line } from "../../testing/told";
import { workedJobs } from "../../testing/workedJobs";
import { jobChargeStates } from "./jobCharge";
import { lensProgress, lensReached } from "./lensProgress";
import { openPoints } from "./openPoints";

const now = Date.UTC(2026, 10, 23, 10, 40);

/** What stands open on four jobs and how far each lens is. */
describe.each(Object.entries(workedJobs))("%s", (_name, facts) => {
  it("has its open points", () => {
    expect(openPoints(facts, sampleRules, now).map((one) => line(one))).toMatchSnapshot();
  });
  it("has its lenses", () => {
    const progress = lensProgress(facts, sampleRules, now);
    expect([...progress.map((one) => line(one)), lensReached(progress)]).toMatchSnapshot();
  });
  it("has its charge", () => {
    expect(line(jobChargeStates(facts, sampleRules.charge, now))).toMatchSnapshot();
  });
});

import { describe, expect, it } from "vitest";
import { sampleJob, samplePart, samplePosition } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { JobAct, JobActKind } from "../facts/jobActs";
import type { JobFacts } from "../facts/jobFacts";
import { workPoints } from "./workPoints";

const now = Date.UTC(2026, 11, 1, 12);
let count = 0;
const act = (kind: JobActKind, word: string | null, more: Partial<JobAct> = {}): JobAct => {
  count += 1;
  return {
    ...{ ...sampleMoment, sequence: count, at: "2026-12-01T10:00:00Z", kind, subjectId: "at-C1", word, note: null },
    ...more,
  };
};
const tick = (step: "removed" | "fitted") => {
  count += 1;
  return { ...sampleMoment, sequence: count, at: "2026-12-01T10:00:00Z", positionId: "at-C1", step, isDone: true };
};
const codes = (more: Partial<JobFacts>) =>
  workPoints({ ...sampleJob(), acts: [], ticks: [], ...more }, now).map((one) => `${one.code} ${one.subject}`);

describe("what the work leaves open", () => {
  it("is a part that is in for now, until it is said to be for good", () => {
    const ticks = [tick("removed"), tick("fitted")];
    const forNow = act("temporary_part", "for_now");
    expect(codes({ ticks, acts: [forNow] })).toEqual(["temporary_part C1"]);
    expect(codes({ ticks: [], acts: [forNow] })).toEqual([]);
    expect(codes({ ticks, acts: [forNow, act("temporary_part", "for_good")] })).toEqual([]);
  });
  it("is damage that nothing mends, and a mend that nothing shows", () => {
    const damage = act("damage", "pad");
    expect(codes({ acts: [damage] })).toEqual(["damage_open C1"]);
    const mended = [damage, act("mended", "wire", { value: 0.5e-6 })];
    expect(codes({ acts: mended })).toEqual(["mend_not_shown C1"]);
    expect(codes({ acts: [...mended, act("mend_read", null, { value: 0.2 })] })).toEqual(["mend_not_shown C1"]);
    expect(codes({ acts: [...mended, act("mend_read", null, { value: 0.02 })] })).toEqual([]);
  });
  it("is glue until it has cured, by the server's clock", () => {
    const glue = (seconds: number, more: Partial<JobAct> = {}) =>
      codes({ acts: [act("glue_set", null, { value: seconds, ...more })] });
    expect(glue(3 * 3600)).toEqual(["glue_curing C1"]);
    expect(glue(2 * 3600)).toEqual([]);
    // A clock that runs an hour behind set it at eleven.
    expect(glue(90 * 60, { clockAheadSeconds: -3600 })).toEqual(["glue_curing C1"]);
  });
  it("is a transistor on its sink whose insulation was not read, or reads low, and an insulator that nobody ticked", () => {
    const positions = [samplePosition("C1", { kind: "transistor", heatSource: "sink" })];
    const ticks = [tick("removed"), tick("fitted")];
    const unit = { positions, ticks, fittedParts: [samplePart("C1", { origin: "replacement" })] };
    expect(codes(unit)).toEqual(["sink_insulation_not_read C1", "work_check_open C1"]);
    const insulator = act("work_done", "insulator_in");
    const read = (value: number) =>
      codes({ ...unit, acts: [insulator, act("work_done", "sink_insulation", { value })] });
    expect(read(5e6)).toEqual(["sink_insulation_low C1"]);
    expect(read(500e6)).toEqual([]);
  });
  it("does not ask for trimmed leads and paste as if they were faults", () => {
    expect(codes({ ticks: [tick("removed"), tick("fitted")] })).toEqual([]);
  });
});

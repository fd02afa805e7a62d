import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { JobAct } from "../facts/jobActs";
import type { ReworkStep, ReworkTick } from "../facts/jobFacts";
import type { RailRippleFinding } from "../waveform/rippleFindings";
import { capturePoints } from "./railPoints";

const at = "2026-11-23T11:00:00Z";
const finding = (unexplainedVolts: number | null, switchingVolts: number | null = 0.1): RailRippleFinding =>
  ({
    netId: "net-12",
    capture: { ...sampleMoment, sequence: 5, capturedAt: at },
    attribution: { unexplainedVolts, switchingVolts },
  }) as unknown as RailRippleFinding;
const tick = (sequence: number, step: ReworkStep): ReworkTick => ({
  ...{ positionId: "at-C9", step, isDone: true, ...sampleMoment, sequence, at },
});
const trim = (sequence: number, subjectId: string): JobAct => ({
  ...{ kind: "trim_turned", subjectId, word: null, note: null, ...sampleMoment, sequence, at },
});
const points = (found: RailRippleFinding, ticks: readonly ReworkTick[] = [], acts: readonly JobAct[] = []) =>
  capturePoints(sampleJob({ nets: [sampleNet()], ticks, acts }), [found]).map((one) => [one.code, one.subject]);
const open = [["ripple_unexplained", "12 V"]];

describe("captured ripple that no capacitor explains", () => {
  it("is open from a share of what switches on, and where nothing was told apart it is not", () => {
    expect(points(finding(0.09))).toEqual(open);
    expect(points(finding(0.001))).toEqual([]);
    expect(points(finding(null))).toEqual([]);
    expect(points(finding(0.09, null))).toEqual([]);
  });
  it("says nothing of the unit once a part went in or out, or the trim of its rail was turned", () => {
    expect(points(finding(0.09), [tick(6, "fitted")])).toEqual([]);
    expect(points(finding(0.09), [tick(6, "removed")])).toEqual([]);
    expect(points(finding(0.09), [tick(6, "polarity_part_mark")])).toEqual(open);
    expect(points(finding(0.09), [tick(4, "fitted")])).toEqual(open);
    expect(points(finding(0.09), [], [trim(6, "net-12")])).toEqual([]);
    expect(points(finding(0.09), [], [trim(6, "net-5"), trim(4, "net-12")])).toEqual(open);
  });
});

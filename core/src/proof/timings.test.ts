import { describe, expect, it } from "vitest";
import { sampleNet } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { JobAct } from "../facts/jobActs";
import { likelyRail } from "./likelyRail";
import { timingRigOf, timings } from "./timings";

let sequence = 0;
const timing = (word: string, value: number, most = 0, note = "none"): JobAct => ({
  ...{ kind: "timing", subjectId: null, word, note, value, numbers: [most] },
  ...{ ...sampleMoment, sequence: ++sequence, at: "2026-11-23T11:00:00Z" },
});
const rig = { isSeriesLamp: false, isElectronicLimiter: false, isIsolationTransformer: false };

describe("a time", () => {
  const states = (...acts: JobAct[]) => timings({ acts, ticks: [] }).map((one) => [one.name, one.state]);
  it("stands by its name against the most that it may be; what was read last counts", () => {
    expect(states(timing("rails_up", 2.1, 2), timing("rails_up", 2, 2), timing("power_good", 0.6, 0.5))).toEqual([
      ["rails_up", "within"],
      ["power_good", "above"],
    ]);
    expect(states(timing("standby_up", 1))).toEqual([["standby_up", "no_limit"]]);
  });
  it("at an output is asked for again without what stood in the way, on the primary never without its transformer", () => {
    for (const way of ["series_lamp", "electronic_limiter", "isolation_transformer"]) {
      expect(timings({ acts: [timing("rails_up", 1, 2, way)], ticks: [] })[0]).toMatchObject({
        state: "repeat",
        by: way,
      });
    }
    expect(states(timing("vcc_up", 1, 2, "isolation_transformer"))).toEqual([["vcc_up", "within"]]);
    expect(states(timing("vcc_up", 1, 2, "series_lamp"))).toEqual([["vcc_up", "repeat"]]);
  });
  it("from before the last work says nothing of the unit as it is", () => {
    const before = timing("rails_up", 1, 2);
    const fitted = {
      positionId: "C1",
      step: "fitted" as const,
      isDone: true,
      ...sampleMoment,
      sequence: ++sequence,
      at: before.at,
    };
    expect(timings({ acts: [before], ticks: [fitted] })).toEqual([]);
    expect(timings({ acts: [before, timing("rails_up", 1, 2)], ticks: [fitted] })).toHaveLength(1);
  });
  it("takes down what it was read through, the lamp before all", () => {
    expect(timingRigOf(rig)).toBe("none");
    expect(timingRigOf({ ...rig, isIsolationTransformer: true })).toBe("isolation_transformer");
    expect(timingRigOf({ ...rig, isIsolationTransformer: true, isElectronicLimiter: true })).toBe("electronic_limiter");
    expect(timingRigOf({ ...rig, isIsolationTransformer: true, isSeriesLamp: true })).toBe("series_lamp");
  });
});

describe("volts that belong to another rail", () => {
  const rails = [
    sampleNet({ id: "12", nominalVolts: 12 }),
    sampleNet({ id: "5", nominalVolts: 5 }),
    sampleNet({ id: "-12", nominalVolts: -12 }),
    sampleNet({ id: "bulk", nominalVolts: 5.1, section: "bulk" }),
  ] as const;
  const at = (volts: number) => likelyRail(rails[0], volts, rails)?.id ?? null;
  it("are told where they are far from its own and near those of one other output", () => {
    expect([5.05, 5.19, -12.1].map(at)).toEqual(["5", "5", "-12"]);
    expect([12, 9.6, 14.4, 5.3, 7, 0].map(at)).toEqual([null, null, null, null, null, null]);
    expect(likelyRail(rails[0], 5, [...rails, sampleNet({ id: "5 too", nominalVolts: 5.1 })])).toBeNull();
    expect(likelyRail(sampleNet({ id: "x", nominalVolts: null }), 5, rails)).toBeNull();
  });
});

import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading } from "../../testing/sampleJob";
import { unknownConverter } from "../board/converterDescription";
import type { JobFacts } from "../facts/jobFacts";
import { asNewRippleVolts, fittedRippleVolts } from "./asNewRipple";

const asNew = (more: Partial<JobFacts>, netId = "net-12", loadAmps = 4) =>
  asNewRippleVolts(sampleJob(more), netId, loadAmps);
const of = (capacitanceFarads: number) => ({ fittedParts: [samplePart("C1", { capacitanceFarads })] });

describe("the ripple of a rail as new", () => {
  it("is what its capacitors make of the load, whatever they read now and whatever was promised", () => {
    const volts = asNew({}) as number;
    expect(volts).toBeGreaterThan(0);
    expect(volts).toBeLessThan(12);
    expect(asNew({ readings: [sampleReading("C1", { value: 5 })] })).toBe(volts);
    expect(asNew(of(100e-6))).toBeGreaterThan(asNew(of(2200e-6)) as number);
    expect(asNew({}, "net-12", 8)).toBeGreaterThan(volts);
    expect(asNew({ nets: [sampleNet({ fullLoadAmps: null })] })).toBe(volts);
  });
  it("with what was fitted follows its sheet and its neighbours' own readings, not the old part's", () => {
    const unit = (more: Partial<JobFacts> = {}) =>
      sampleJob({ positions: [samplePosition("C1"), samplePosition("C2")], ...more });
    const with_ = (esrOhms: number, more: Partial<JobFacts> = {}) =>
      fittedRippleVolts(
        unit(more),
        new Map([["at-C1", { capacitanceFarads: 1e-3, esrOhms, ratedRippleAmpsRms: null }]]),
        "net-12",
        4,
      ) as number;
    expect(with_(0.1)).toBeGreaterThan(with_(0.02));
    const bad = sampleReading("C1", { value: 3, circuitState: "out" });
    expect(with_(0.02, { readings: [bad] })).toBe(with_(0.02));
    const beside = sampleReading("C2", { value: 3, circuitState: "out", fittedPartId: "part-C2" });
    expect(with_(0.02, { readings: [beside] })).toBeGreaterThan(with_(0.02));
    expect(fittedRippleVolts(unit(), new Map(), "net-12", 0)).toBeNull();
  });
  it("behind a choke is the smoothed one, made by the rail before it", () => {
    const behind = { arrangement: "parallel", behindNetId: "net-12", chokeHenrys: 2.2e-6, chokeOhms: 0.01 } as const;
    const post = {
      nets: [sampleNet(), sampleNet({ id: "post", section: "output-post", network: behind, nominalVolts: null })],
      positions: [samplePosition("C1"), samplePosition("C2", { netId: "post" })],
    };
    const smoothed = asNew(post, "post") as number;
    expect(smoothed).toBeGreaterThan(0);
    expect(smoothed).toBeLessThan(asNew({ positions: [samplePosition("C1")] }) as number);
  });
  it("is unknown without load, of no rail, and where no converter could make it", () => {
    expect(asNew({}, "net-12", 0)).toBeNull();
    expect(asNew({}, "gone")).toBeNull();
    const converter = { ...unknownConverter("buck"), inputVolts: 10 };
    expect(asNew({ nets: [sampleNet({ section: "board-regulator", converter })] })).toBeNull();
  });
});

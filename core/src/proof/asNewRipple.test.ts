import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading } from "../../testing/sampleJob";
import { unknownConverter } from "../board/converterDescription";
import type { JobFacts } from "../facts/jobFacts";
import { asNewRippleVolts } from "./asNewRipple";

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

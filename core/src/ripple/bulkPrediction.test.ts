import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading } from "../../testing/sampleJob";
import type { NetNetwork } from "../board/board";
import { OutOfRangeError } from "../errors";
import { boostSwitchingAmpsRms, resonantPrimaryAmpsRms } from "./boostSwitching";
import { type BulkQuestion, isTooWeak, predictBulk } from "./bulkPrediction";

const series: NetNetwork = { arrangement: "series", behindNetId: null, chokeHenrys: null, chokeOhms: null };
const can = {
  capacitanceFarads: 120e-6,
  ratedVolts: 400,
  capacitorClass: "gp" as const,
  diameterMetres: 0.018,
  heightMetres: 0.04,
};
function question(
  more: Partial<BulkQuestion> = {},
  section: "bulk" | "pfc" = "bulk",
  network: NetNetwork | null = null,
): BulkQuestion {
  const facts = sampleJob({
    nets: [sampleNet({ id: "bulk", section, nominalVolts: section === "pfc" ? 385 : 325, network }), sampleNet()],
    positions: [samplePosition("C1", { netId: "bulk" }), samplePosition("C2", { netId: "bulk" })],
    fittedParts: [samplePart("C1", can), samplePart("C2", can)],
    readings: ["C1", "C2"].map((at) =>
      sampleReading(at, { quantity: "capacitance", value: 40e-6, frequencyHertz: 120, circuitState: "out" }),
    ),
  });
  return {
    board: { ...facts, chosen: new Map() },
    netId: "bulk",
    mainsVoltsRms: 230,
    mainsHertz: 50,
    loadWatts: null,
    temperatureCelsius: 45,
    supplyTopology: null,
    ...more,
  };
}

describe("predictBulk", () => {
  it("has more ripple, a deeper valley and less hold-up where capacitance was lost", () => {
    const found = predictBulk(question());
    const { healthy, measured } = found?.states ?? {};
    if (!healthy || !measured) throw new Error("no prediction");
    expect(measured.peakToPeakVolts).toBeGreaterThan(2 * healthy.peakToPeakVolts);
    expect(measured.valleyVolts).toBeLessThan(healthy.valleyVolts);
    expect(measured.holdUpSeconds).toBeLessThan(healthy.holdUpSeconds / 2);
    expect(healthy.conductionRatio).toBeGreaterThan(0.05);
    // 12 V at 4 A through 85 %: what the outputs were promised.
    expect(found?.loadWatts).toBeCloseTo(48 / 0.85, 9);
    expect(found?.effects.map((one) => one.key)).toEqual(["sourceOhms", "efficiencyRatio"]);
    for (const one of found?.effects ?? []) {
      expect(one.lowVolts <= measured.peakToPeakVolts && measured.peakToPeakVolts <= one.highVolts).toBe(true);
    }
  });
  it("falls back to the new ripple when both are replaced", () => {
    const asked = question();
    const chosen = new Map(
      ["at-C1", "at-C2"].map(
        (id) => [id, { capacitanceFarads: 120e-6, esrOhms: null, ratedRippleAmpsRms: null }] as const,
      ),
    );
    const { healthy, replaced } = predictBulk({ ...asked, board: { ...asked.board, chosen } })?.states ?? {};
    expect(replaced?.peakToPeakVolts).toBeCloseTo(healthy?.peakToPeakVolts ?? 0, 6);
  });
  it("takes a series bank for a doubler: twice the volts", () => {
    const found = predictBulk(question({ mainsVoltsRms: 115 }, "bulk", series));
    expect([found?.topology, Math.round((found?.states.healthy.meanVolts ?? 0) / 100)]).toEqual(["doubler", 3]);
  });
  it("reckons with power over bus volts behind a boost stage", () => {
    const found = predictBulk(question({ loadWatts: 150 }, "pfc"));
    expect(found?.topology).toBe("boost");
    expect(found?.states.healthy.lowFrequencyAmpsRms).toBeCloseTo(150 / 385 / Math.SQRT2, 9);
  });
  it("holds up until that kind of converter gives up, with the range of usual ones", () => {
    // 200 uF at 382 V, 147 W: C (V^2 - Vd^2) / 2P with Vd at 82 % of the bus.
    const state = (supplyTopology: BulkQuestion["supplyTopology"], section: "bulk" | "pfc" = "pfc") =>
      predictBulk(question({ loadWatts: 147, supplyTopology }, section))?.states.healthy;
    const resonant = state("pfc_resonant_with_standby");
    expect(resonant?.holdUpSeconds).toBeCloseTo((240e-6 * 385 ** 2 * (1 - 0.82 ** 2)) / 294, 4);
    const [least, most] = resonant?.holdUpRangeSeconds ?? [0, 0];
    expect(least).toBeLessThan(resonant?.holdUpSeconds ?? 0);
    expect(most).toBeGreaterThan(resonant?.holdUpSeconds ?? 1);
    expect(state("pfc_forward_with_standby")?.holdUpSeconds).toBeGreaterThan(1.3 * (resonant?.holdUpSeconds ?? 1));
    // A wide-range flyback runs down to 90 V: longer than to half of the crest.
    const wide = state("flyback", "bulk");
    expect(wide?.holdUpSeconds).toBeGreaterThan(1.2 * (wide?.holdUpRangeSeconds[0] ?? 9));
  });
  it("adds what the boost stage itself brings to the converter's pulses, as squares", () => {
    // 200 W at 390 V: 0.375 A from 230 V, 0.822 A from 115 V; with flyback pulses 0.868 and 1.135 A, resonant half sines 0.621 A.
    const boost = (mainsVoltsRms: number) => boostSwitchingAmpsRms({ loadWatts: 200, busVolts: 390, mainsVoltsRms });
    expect(boost(230)).toBeCloseTo(0.375, 3);
    expect(boost(115)).toBeCloseTo(0.822, 3);
    expect(resonantPrimaryAmpsRms(200, 390)).toBeCloseTo(0.621, 3);
    expect(() => boost(280)).toThrow(OutOfRangeError);
    const at = (supplyTopology: BulkQuestion["supplyTopology"], mainsVoltsRms: number) => {
      const asked = question({ loadWatts: 200, supplyTopology, mainsVoltsRms }, "pfc");
      const nets = asked.board.nets.map((net) => (net.id === "bulk" ? { ...net, nominalVolts: 390 } : net));
      return predictBulk({ ...asked, board: { ...asked.board, nets } })?.states.healthy.highFrequencyAmpsRms;
    };
    expect(at("pfc_forward_with_standby", 230)).toBeCloseTo(0.868, 2);
    expect(at("pfc_forward_with_standby", 115)).toBeCloseTo(1.135, 2);
    expect(at("pfc_resonant_with_standby", 230)).toBeCloseTo(Math.hypot(0.375, 0.621), 2);
  });
  it("says where nothing can be reckoned with, and where the mains is too weak", () => {
    expect(predictBulk(question({ netId: "nowhere" }))).toBeNull();
    let failure: unknown;
    try {
      predictBulk(question({ loadWatts: 50e3 }));
    } catch (error) {
      failure = error;
    }
    expect(isTooWeak(failure)).toBe(true);
  });
  it("takes a bank that reads no capacitance for open, not for new", () => {
    const { board, ...rest } = question({ loadWatts: 100 });
    const readings = board.readings.map((one) => ({ ...one, value: 0 }));
    let failure: unknown;
    try {
      predictBulk({ ...rest, board: { ...board, readings } });
    } catch (error) {
      failure = error;
    }
    expect(isTooWeak(failure)).toBe(true);
  });
});

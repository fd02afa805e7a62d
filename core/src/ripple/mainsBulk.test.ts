import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { type BulkCircuit, mainsBulk } from "./mainsBulk";

const adapter: BulkCircuit = {
  topology: "bridge",
  mainsVoltsRms: 230,
  mainsHertz: 50,
  sourceOhms: 2,
  capacitanceFarads: 100e-6,
  esrOhms: 0.35,
  loadWatts: 75,
  dropoutVolts: 120,
};

describe("mainsBulk", () => {
  it("feeds as much charge as the load takes", () => {
    const { busVolts, sourceAmpsRms, sourcePeakAmps } = mainsBulk(adapter);
    const meanLoadAmps = busVolts.reduce((sum, volts) => sum + 75 / volts, 0) / busVolts.length;
    expect(sourceAmpsRms).toBeGreaterThan(meanLoadAmps * 2);
    expect(sourcePeakAmps).toBeGreaterThan(sourceAmpsRms * 2);
  });
  it("ripples more and holds up less as the capacitor dries", () => {
    const fresh = mainsBulk(adapter);
    const dry = mainsBulk({ ...adapter, capacitanceFarads: 40e-6, esrOhms: 5 });
    expect(dry.peakToPeakVolts).toBeGreaterThan(2 * fresh.peakToPeakVolts);
    expect(dry.holdUpFromTrough.seconds).toBeLessThan(0.5 * fresh.holdUpFromTrough.seconds);
  });
  it("says that a load is too much, and refuses what is no circuit", () => {
    expect(() => mainsBulk({ ...adapter, sourceOhms: 500 })).toThrow(/what this mains/);
    expect(() => mainsBulk({ ...adapter, capacitanceFarads: 1e-7 })).toThrow(OutOfRangeError);
    expect(() => mainsBulk({ ...adapter, loadWatts: 0 })).toThrow(OutOfRangeError);
  });
});

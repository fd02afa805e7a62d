import { describe, expect, it } from "vitest";
import { sampleReading } from "../../testing/sampleJob";
import { tradeConstants } from "../constants/tradeConstants";
import type { ReadingGroup } from "../readings/groupReadings";
import type { Reading } from "../readings/reading";
import { doRepeatsConflict, isReadBadThenGood } from "./conflicts";

const { conflictFactor, restHours } = tradeConstants.readings;
const isBad = ({ value }: Reading) => (value ?? 0) > 0.1;
const start = Date.parse("2026-11-23T08:00:00Z");
const read = (value: number, more: Partial<Reading> = {}, seconds = 0) =>
  sampleReading("C1", { value, measuredAt: new Date(start + 1000 * seconds).toISOString(), ...more });
const inCircuit = { circuitState: "in_circuit" } as const;

describe("repeats", () => {
  const group = (count: number, spreadRatio: number) => ({ count, spreadRatio }) as ReadingGroup;
  it("contradict one another beyond what their meter explains, and one alone never does", () => {
    expect(doRepeatsConflict(group(2, 0.01 + conflictFactor * 0.1), 0.1)).toBe(true);
    expect(doRepeatsConflict(group(2, conflictFactor * 0.1), 0.1)).toBe(false);
    expect(doRepeatsConflict(group(1, 9), 0.1)).toBe(false);
  });
});

describe("a part that was bad in circuit and is good with its lead up", () => {
  const bad = read(0.5, inCircuit);
  const asked = (...readings: readonly Reading[]) => isReadBadThenGood(readings, isBad);
  it("is not settled until a good reading half a day later", () => {
    expect(asked(bad, read(0.03))).toBe(true);
    expect(asked(bad, read(0.03), read(0.03, {}, restHours * 3600 - 1))).toBe(true);
    expect(asked(bad, read(0.03), read(0.03, {}, restHours * 3600))).toBe(false);
    // A tester's band says it too.
    expect(asked(read(0.5, { ...inCircuit, quantity: "tester_band" }), read(0.03))).toBe(true);
  });
  it("is none where it was never bad in circuit, still is bad, was only read in circuit or was bad after the iron", () => {
    expect(asked(read(0.03, inCircuit), read(0.03))).toBe(false);
    expect(asked(bad, read(0.5))).toBe(false);
    expect(asked(bad, read(0.03, inCircuit))).toBe(false);
    expect(asked(read(0.03), bad, read(0.03))).toBe(false);
    expect(asked(bad)).toBe(false);
    // Ohms and farads are no such readings.
    expect(asked({ ...bad, quantity: "resistance" }, read(0.03))).toBe(false);
  });
  it("rests by the server's receipts where two clocks took the readings, and not at all where those are not known", () => {
    const later = (receivedAt: string | null) => read(0.03, { clockId: "clock-2", receivedAt }, restHours * 3600);
    const first = (receivedAt: string | null) => read(0.03, { receivedAt });
    const at = (hours: number) => new Date(start + hours * 3600e3).toISOString();
    expect(asked(bad, first(at(0)), later(at(restHours)))).toBe(false);
    expect(asked(bad, first(at(0)), later(at(restHours - 1)))).toBe(true);
    expect(asked(bad, first(null), later(at(restHours)))).toBe(true);
    expect(asked(bad, first(at(0)), later(null))).toBe(true);
  });
});

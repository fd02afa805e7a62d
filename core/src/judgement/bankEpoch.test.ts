import { describe, expect, it } from "vitest";
import { samplePart, samplePosition, sampleReading } from "../../testing/sampleJob";
import type { Reading } from "../readings/reading";
import { bankEpoch } from "./bankEpoch";

const bank = ["C1", "C2"].map((name) => samplePosition(name));
const parts = [
  samplePart("C1"),
  samplePart("C2"),
  samplePart("C2", { id: "new-C2", origin: "replacement" }),
  samplePart("C9"),
];
const tick = (name: string, step: "removed" | "fitted", sequence: number) => ({
  ...{ positionId: `at-${name}`, step, isDone: true, at: "2026-11-23T10:00:00Z", sequence },
  ...{
    clockId: null,
    receivedAt: null,
    clockAheadSeconds: null,
    fittedPartId: step === "fitted" ? `new-${name}` : null,
  },
});
/** C2 goes out at 10 and its new one in at 20; given out of order, as they may come. */
const ticks = [tick("C2", "fitted", 20), tick("C2", "removed", 10)];
const read = (name: string, sequence: number, more: Partial<Reading> = {}) =>
  sampleReading(name, { circuitState: "in_circuit", sequence, ...more });
const ofBank = (sequence: number, targetId: string | null) =>
  read("none", sequence, { targetKind: "bank", targetId: targetId ?? "", fittedPartId: null });
const epoch = (subject: number, standing: readonly Reading[], of = ticks) =>
  bankEpoch({ position: bank[subject] as never, part: parts[subject] as never }, bank, parts, of, standing);
const members = (found: ReturnType<typeof epoch>) => found?.members.map((one) => one.part.id);

describe("the stretch of a bank that a part is judged in", () => {
  it("is none where nothing of the bank was changed", () => {
    expect(epoch(0, [read("C1", 5)], [])).toBeNull();
    expect(epoch(0, [read("C1", 5)], [tick("C9", "removed", 3)])).toBeNull();
  });
  it("is the last in which the part itself was read in circuit", () => {
    const found = epoch(0, [read("C1", 5), ofBank(25, bank[0]?.netId ?? null)]);
    expect([found?.number, members(found)]).toEqual([0, ["part-C1", "part-C2"]]);
    expect([found?.holds(read("C1", 6)), found?.holds(read("C1", 15)), found?.holds(read("C1", 25))]).toEqual([
      ...[true, false, false],
    ]);
    const between = epoch(0, [read("C1", 5), read("C1", 15)]);
    expect([between?.number, members(between)]).toEqual([1, ["part-C1"]]);
    // Read off the board it says nothing of the bank.
    const off = epoch(0, [read("C1", 5), read("C1", 25, { circuitState: "out" })]);
    expect(off?.number).toBe(0);
  });
  it("is else the last in which its bank was read, by a part of it or as a whole", () => {
    const whole = epoch(0, [ofBank(15, bank[0]?.netId ?? null)]);
    expect(whole?.number).toBe(1);
    expect(epoch(0, [ofBank(15, "another net")])?.number).toBe(2);
    expect(epoch(0, [read("C2", 5)])?.number).toBe(0);
    expect(epoch(0, [read("C2", 5, { circuitState: "out" })])?.number).toBe(2);
    expect(epoch(0, [read("C9", 5)])?.number).toBe(2);
  });
  it("is else the last in which it stood there, and never one in which it did not", () => {
    expect(members(epoch(0, []))).toEqual(["part-C1", "new-C2"]);
    const old = epoch(1, []);
    expect([old?.number, members(old)]).toEqual([0, ["part-C1", "part-C2"]]);
    // A bank reading from after it was out is none of its own.
    expect(epoch(1, [ofBank(25, bank[1]?.netId ?? null)])?.number).toBe(0);
  });
});

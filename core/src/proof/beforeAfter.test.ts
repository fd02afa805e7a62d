import { describe, expect, it } from "vitest";
import { sampleReading } from "../../testing/sampleJob";
import { sampleMoment } from "../../testing/sampleMoment";
import type { JobAct } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import type { Reading } from "../readings/reading";
import { beforeAfter } from "./beforeAfter";

const at = "2026-11-23T11:00:00Z";
const tick = (sequence: number, step: ReworkTick["step"] = "fitted"): ReworkTick => ({
  ...{ positionId: "at-C9", step, isDone: true, ...sampleMoment, sequence, at },
});
const heat = (sequence: number, value: number, more: Partial<Reading> = {}) =>
  sampleReading("C1", { id: `r${sequence}`, quantity: "temperature", value, sequence, ...more });
const rows = (readings: readonly Reading[], ticks: readonly ReworkTick[] = [], acts: readonly JobAct[] = []) =>
  beforeAfter({ readings, ticks, acts }).map(({ quantity, before, after, afterVoidedBy }) => [
    ...[quantity, before?.value ?? null, after?.value ?? null, afterVoidedBy],
  ]);

describe("heat, times and power", () => {
  it("stand as received and since the last part went in, the last of each", () => {
    const readings = [heat(1, 80), heat(2, 85), heat(4, 41), heat(5, 43)];
    expect(rows(readings, [tick(3)])).toEqual([["temperature", 85, 43, null]]);
    // Another part out: nothing of the unit as it is was read yet.
    expect(rows(readings, [tick(3), tick(6, "removed")])).toEqual([["temperature", 43, null, null]]);
    // A tick of polarity changes nothing in the unit.
    expect(rows(readings, [tick(3), tick(6, "polarity_part_mark")])).toEqual([["temperature", 85, 43, null]]);
    expect(rows(readings)).toEqual([["temperature", null, 43, null]]);
  });
  it("count a trim for its own rail alone, and say through what a time was read", () => {
    const rig = { ...heat(1, 1).rig, isIsolationTransformer: true };
    const time = heat(2, 0.07, { quantity: "time", targetKind: "rail", targetId: "net-5", isPowered: true, rig });
    const trim = (subjectId: string): JobAct => ({
      ...{ kind: "trim_turned", subjectId, word: null, note: null, ...sampleMoment, sequence: 3, at },
    });
    expect(rows([time], [], [trim("net-5")])).toEqual([["time", 0.07, null, null]]);
    expect(rows([time], [], [trim("net-12")])).toEqual([["time", null, 0.07, "isolation_transformer"]]);
  });
  it("leave out what has limits of its own", () => {
    expect(rows([heat(1, 12, { quantity: "dc_voltage" })])).toEqual([]);
  });
});

import { describe, expect, it } from "vitest";
import { sampleJob, samplePart, sampleReading, sampleRules, shopRecord } from "../../testing";
import { ageBandOf, type RecordLevel, seriesSubject } from "../facts/shopRecord";
import { judgeBoard } from "./judgeBoard";
import { partHistory } from "./partHistory";

const tally = (level: RecordLevel, subject: string, failedCount: number, seenCount: number) => ({
  ...{ level, subject, failedCount, seenCount },
});
const part = { series: " Midge  HK " };

describe("what the record says of a part", () => {
  it("is that of the nearest kind of which enough were seen: its place, its series at its age, its series", () => {
    const all = [
      tally("place", "C1", 3, 5),
      tally("series_age", "midge hk|output|to_6", 4, 9),
      tally("series", "midge hk|output", 9, 40),
    ];
    const ask = (parts: typeof all, band: "to_6" | null = "to_6") =>
      partHistory(shopRecord(parts, [], band), "C1", part, "output");
    expect(ask(all)).toMatchObject({ level: "place", subject: "C1", failedCount: 3, seenCount: 5, defaultWeight: 20 });
    expect(ask([tally("place", "C1", 3, 4), ...all.slice(1)])).toMatchObject({ level: "series_age", seenCount: 9 });
    expect(ask(all.slice(1), null)).toMatchObject({ level: "series", seenCount: 40 });
    expect(ask([tally("place", "C2", 3, 9)])).toBeNull();
    expect(partHistory(shopRecord(all.slice(2)), "C9", part, "vcc")).toBeNull();
    expect(partHistory(shopRecord(all.slice(2)), "C9", { series: null }, "output")).toBeNull();
    const ofMaker = shopRecord([tally("maker", "mirelund|output", 5, 60)]);
    expect(partHistory(ofMaker, "C9", { series: null, maker: "Mirelund " }, "output")).toMatchObject({ seenCount: 60 });
    expect(partHistory(ofMaker, "C9", { series: "Midge HK", maker: null }, "output")).toBeNull();
  });

  it("moves the chance of what was found there, by the default as twenty parts, and never of what went in new", () => {
    const record = shopRecord([tally("place", "C1", 10, 10)]);
    const doubtful = {
      value: null,
      coarseCode: "band_doubtful",
      quantity: "tester_band",
      frequencyHertz: null,
    } as const;
    const facts = sampleJob({ readings: [sampleReading("C1", doubtful)] });
    const entry = (origin: "found" | "replacement", more = {}) => {
      const fittedParts = [samplePart("C1", { origin, fittedAt: origin === "found" ? null : "2026-11-23T09:00:00Z" })];
      const job = { ...facts, positions: facts.positions.slice(0, 1), fittedParts, ...more };
      return judgeBoard(job, sampleRules.judgement, "current")
        .get("at-C1")
        ?.ledger.find((one) => one.kind === "record");
    };
    const found = entry("found", { record });
    expect(found).toMatchObject({ code: "record_place", value: 1, source: "record:10:10:C1" });
    // ln odds of (10 + 20 x 0.2)/30 less those of 0.2.
    expect(found?.weight).toBeCloseTo(Math.log(14 / 16) - Math.log(0.25), 6);
    expect(entry("replacement", { record })).toMatchObject({ code: "record_neutral", weight: 0 });
    expect(entry("found")).toMatchObject({ code: "record_neutral", weight: 0 });
  });

  it("counts ages in bands and series however they were typed", () => {
    expect([null, 0, 2.9, 3, 5.9, 6, 9.9, 10, 30].map(ageBandOf)).toEqual([
      ...[null, "to_3", "to_3", "to_6", "to_6", "to_10", "to_10", "older", "older"],
    ]);
    expect(seriesSubject(part, "output", "to_3")).toBe("midge hk|output|to_3");
    expect(seriesSubject({ series: "  " }, "output")).toBeNull();
    expect(seriesSubject(part, null)).toBeNull();
  });
});

import { describe, expect, it } from "vitest";
import { CaptureReader, isCaptureProblem, isIntervalOdd } from "./captureReader";
import { captureShape } from "./captureShape";

const rowsOf = (text: string, separator = ",") => text.split("\n").map((line) => line.split(separator));
const read = (text: string, separator = ",") => {
  const rows = rowsOf(text, separator);
  const shape = captureShape(rows);
  if (!shape) throw new Error("no table");
  const reader = new CaptureReader(shape.mapping);
  reader.take(rows);
  return { shape, result: reader.finish() };
};
const lines = (count: number, line: (n: number) => string) =>
  Array.from({ length: count }, (_, n) => line(n)).join("\n");

describe("captureShape", () => {
  it("recognises a time column with units in the titles, and two channels", () => {
    const { shape, result } = read(`Model,X1\nTime (us),CH1 (mV),CH2 (V)\n${lines(30, (n) => `${n * 2},${n},1`)}`);
    expect(shape).toMatchObject({ isCertain: true, mapping: { headerRows: 2, timeColumn: 0, timeScaleSeconds: 1e-6 } });
    if (isCaptureProblem(result)) throw new Error(result.code);
    expect(result.intervalSeconds).toBeCloseTo(2e-6, 12);
    expect(result.channels.map((one) => one.name)).toEqual(["CH1 (mV)", "CH2 (V)"]);
    expect(result.channels[0]?.samples[10]).toBeCloseTo(0.01, 6);
  });
  it("takes semicolons, decimal commas and units in a row of their own", () => {
    const { result } = read(`t;rail\ns;V\n${lines(20, (n) => `${(n * 0.001).toFixed(3).replace(".", ",")};0,5`)}`, ";");
    if (isCaptureProblem(result)) throw new Error(result.code);
    expect(result.intervalSeconds).toBeCloseTo(1e-3, 9);
    expect(result.channels[0]?.samples[3]).toBe(0.5);
  });
  it.each([
    ["Sample Interval,4.0E-07\nvolts", 4e-7],
    ["Sample rate,2.5 MSa/s\nvolts", 4e-7],
    ["dt: 400 ns\nvolts", 4e-7],
  ])("finds the interval in the header: %s", (head, seconds) => {
    const { shape, result } = read(`${head}\n${lines(20, (n) => String(n % 3))}`);
    expect(shape.isCertain).toBe(true);
    if (isCaptureProblem(result)) throw new Error(result.code);
    expect(result.intervalSeconds).toBeCloseTo(seconds, 12);
  });
  it("asks where neither time nor interval can be told, or columns are many", () => {
    expect(captureShape(rowsOf(lines(10, (n) => String(n % 4))))?.isCertain).toBe(false);
    expect(captureShape(rowsOf(lines(10, (n) => `${n},1,2,3,4`)))?.isCertain).toBe(false);
    expect(captureShape(rowsOf("a letter\nof two lines"))).toBeNull();
  });
});

describe("captures as scopes write them", () => {
  it("takes a column that counts for a count, with the increment from the head", () => {
    const head = "X,CH1,Start,Increment\nSequence,VOLT,-6.0e-03,2.0e-06";
    const { shape, result } = read(`${head}\n${lines(40, (n) => `${n},${(n % 5) / 100},,`)}`);
    expect(shape).toMatchObject({ isCertain: true, mapping: { timeColumn: null, intervalSeconds: 2e-6 } });
    if (isCaptureProblem(result)) throw new Error(result.code);
    expect([result.intervalSeconds, result.channels.length, result.channels[0]?.name]).toEqual([2e-6, 1, "CH1"]);
    expect(result.channels[0]?.samples[3]).toBeCloseTo(0.03, 6);
  });
  it("asks for the interval of a count, and never takes it for seconds; whole seconds with their unit stay time", () => {
    const { shape } = read(`n,v\n${lines(30, (n) => `${n},0.1`)}`);
    expect(shape).toMatchObject({ isCertain: false, mapping: { timeColumn: null, intervalSeconds: null } });
    expect(shape.mapping.channels.map((one) => one.column)).toEqual([1]);
    expect(read(`time (s),v\n${lines(30, (n) => `${n},0.1`)}`).shape.mapping.timeColumn).toBe(0);
  });
  it("loses no row to what stands beside the data", () => {
    const told = ["Record Length,2500,Points", "Sample Interval,4.0E-07,s", "Vertical Units,V,"];
    const text = lines(30, (n) => `${told[n] ?? ",,"},${(n * 4e-7).toExponential()},${n / 100}`);
    const { shape, result } = read(text);
    expect(shape.mapping).toMatchObject({ headerRows: 0, timeColumn: 3 });
    if (isCaptureProblem(result)) throw new Error(result.code);
    expect([result.channels[0]?.samples.length, result.channels[0]?.samples[0]]).toEqual([30, 0]);
    expect(result.intervalSeconds).toBeCloseTo(4e-7, 12);
  });
  it("names channels by their titles and not by a scale", () => {
    const head = "Source,CH1,CH2\nVertical Scale,0.02,5\nSecond,Volt,Volt";
    const { result } = read(`${head}\n${lines(30, (n) => `${n * 1e-6},0.1,1`)}`);
    if (isCaptureProblem(result)) throw new Error(result.code);
    expect(result.channels.map((one) => one.name)).toEqual(["CH1", "CH2"]);
  });
  it("keeps what lies beyond the range at its end, and counts it", () => {
    const value = (n: number) => (n === 7 ? "inf" : n === 9 ? "-Inf" : n === 11 ? "9.9E+37" : String((n % 5) / 10));
    const { result } = read(`time,v\n${lines(40, (n) => `${n}e-6,${value(n)}`)}`);
    if (isCaptureProblem(result)) throw new Error(result.code);
    const [channel] = result.channels;
    expect(channel?.clippedCount).toBe(3);
    expect([channel?.samples[7], channel?.samples[9], channel?.samples[11]].map((one) => one?.toFixed(2))).toEqual([
      "0.40",
      "0.00",
      "0.40",
    ]);
  });
  it("finds an interval odd that cannot show the rail's switching", () => {
    expect(isIntervalOdd(1e-6, 1000, 65e3)).toBe(false);
    expect(isIntervalOdd(1e-3, 1000, 65e3)).toBe(true);
    expect(isIntervalOdd(1e-9, 1000, 65e3)).toBe(true);
    expect([isIntervalOdd(1e-4, 5000, null), isIntervalOdd(0.1, 5000, null)]).toEqual([false, true]);
  });
});

describe("CaptureReader", () => {
  const good = lines(40, (n) => `${n}e-6,0.1`);
  it.each([
    ["not_a_number", `time,v\n${good}\n41e-6,NaN\n42e-6,1`],
    ["truncated", `time,v\n${good}\n41e-6`],
    ["truncated", `time,v\n${good}\n41e-6\n42e-6,1`],
    ["time_runs_back", `time,v\n${good}\n3e-6,1\n42e-6,1`],
    ["time_runs_back", `time,v\n${good}\n39e-6,1`],
    ["time_uneven", `time,v\n${good}\n80e-6,1`],
    ["too_short", `time,v\n${lines(5, (n) => `${n},1`)}`],
    ["implausible_volts", `time,v\n${good}\n40e-6,12000`],
  ])("ends with %s", (code, text) => {
    expect(read(text).result).toMatchObject({ code });
  });
  it("says the row, and knows an interval of zero for none", () => {
    expect(read(`time,v\n${good}\n41e-6,oops`).result).toMatchObject({ row: 42, text: "oops" });
    const rows = rowsOf(lines(20, () => "1"));
    const shape = captureShape(rows);
    const reader = new CaptureReader({ ...(shape?.mapping as never as object), intervalSeconds: 0 } as never);
    reader.take(rows);
    expect(reader.finish()).toMatchObject({ code: "no_interval" });
  });
});

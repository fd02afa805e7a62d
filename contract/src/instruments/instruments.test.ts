import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { instrumentSchema } from "./instrument";
import { parseNumberAnswer, parseWaveform, printWaveform } from "./protocol";

describe("an answer of an instrument", () => {
  it("is a value, nothing to read, or garbled", () => {
    expect(parseNumberAnswer(" +1.25E-3\r")).toEqual({ kind: "value", value: 1.25e-3 });
    expect(parseNumberAnswer("9.9e37")).toEqual({ kind: "over_range" });
    for (const text of ["", "nan", "Infinity", "1,5", "0x10", "12 V", "1".repeat(60), "1e999"]) {
      expect(parseNumberAnswer(text).kind, text).not.toBe("value");
    }
  });
  test.prop([fc.string()])("never throws, and never gives a number that is none", (text) => {
    const answer = parseNumberAnswer(text);
    if (answer.kind === "value") expect(Number.isFinite(answer.value)).toBe(true);
    parseWaveform(text);
  });
});

describe("a waveform on the line", () => {
  test.prop([
    fc.double({ min: 1e-9, max: 1, noNaN: true }),
    fc.array(fc.double({ min: -400, max: 400, noNaN: true }), { minLength: 1, maxLength: 50 }),
  ])("comes back as it was sent, to five digits", (intervalSeconds, volts) => {
    const back = parseWaveform(printWaveform({ intervalSeconds, volts }));
    expect(back?.volts).toHaveLength(volts.length);
    back?.volts.forEach((volt, n) => {
      expect(Math.abs(volt - (volts[n] ?? 0))).toBeLessThanOrEqual(1e-4 * Math.abs(volts[n] ?? 0));
    });
    expect((back?.intervalSeconds ?? 0) / intervalSeconds).toBeCloseTo(1, 5);
  });
  it("cut short, overlong, or with a word in it is none", () => {
    const whole = printWaveform({ intervalSeconds: 1e-6, volts: [1, 2, 3] });
    expect(parseWaveform(whole.slice(0, -1))).toBeNull();
    expect(parseWaveform(`${whole}4`)).toBeNull();
    expect(parseWaveform("#500009" + "1e-6;1,x")).toBeNull();
    expect(parseWaveform("#500005" + "0;1,2")).toBeNull();
  });
});

describe("the set-up of an instrument", () => {
  const meter = {
    name: "Meter",
    kind: "multimeter",
    driver: "read_only_lines",
    transport: "tcp",
    host: "127.0.0.1",
    port: 5025,
    devicePath: null,
    baudRate: null,
    isEnabled: true,
  };
  const isValid = (more: object) => instrumentSchema.isValidSync({ ...meter, ...more });
  it("needs what its way of being reached needs, and nothing of the others", () => {
    expect(isValid({})).toBe(true);
    expect(isValid({ host: "  " })).toBe(false);
    expect(isValid({ port: 70_000 })).toBe(false);
    expect(isValid({ transport: "serial", host: null, port: null, devicePath: "/dev/ttyUSB0", baudRate: 9600 })).toBe(
      true,
    );
    expect(isValid({ transport: "serial" })).toBe(false);
    expect(isValid({ transport: "simulated", host: null, port: null })).toBe(true);
    expect(isValid({ kind: "toaster" })).toBe(false);
  });
});

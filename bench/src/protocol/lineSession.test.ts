import { connect } from "node:net";
import { parseNumberAnswer, parseWaveform } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { Bench, instruments, LineSession, loadScenarios } from "../index";
import { serveInstrument } from "./lineServer";

const bench = () => new Bench(loadScenarios(), () => 0);
const session = (kind: keyof typeof instruments) => new LineSession(instruments[kind](bench()));

describe("a line", () => {
  it("is answered, kept as an error, or refused, and never throws", () => {
    const meter = session("multimeter");
    expect(meter.take("*idn?")).toContain("Multimeter");
    for (const bad of [
      "FUNC NONSENSE",
      "ROUT:PROB C999",
      "MEAS:NONE?",
      "!!",
      "x".repeat(1000),
      "ROUT:PROB",
      "constructor?",
    ]) {
      meter.take(bad);
      expect(meter.take("SYST:ERR?"), bad).not.toContain("No error");
    }
    expect(meter.take("SYST:ERR?")).toContain("No error");
  });
  it("that asks is answered even when it fails, so that nobody waits", () => {
    const meter = session("lcr");
    expect(parseNumberAnswer(meter.take("READ?") ?? "")).toEqual({ kind: "over_range" });
  });
  it("gives a waveform as a block of known length, and none where the channels straddle the barrier", () => {
    const scope = session("oscilloscope");
    scope.take("ROUT:PROB 14 V");
    const block = scope.take("WAV:DATA?") ?? "";
    expect(parseWaveform(block)?.volts).toHaveLength(1000);
    expect(parseWaveform(block.slice(0, -5))).toBeNull();
    scope.take("CHAN2:PROB Bulk");
    scope.take("WAV:DATA?");
    expect(scope.take("SYST:ERR?")).toContain("straddle");
  });
});

describe("the port", () => {
  it("answers on loopback, ends an endless line, and closes at once", async () => {
    const server = await serveInstrument(instruments.thermometer(bench()), 0);
    const socket = connect(server.port, "127.0.0.1");
    const answer = await new Promise<string>((resolve) => {
      socket.once("data", (chunk) => resolve(chunk.toString()));
      socket.write("*IDN?\r\n");
    });
    expect(answer).toContain("thermometer");
    const gone = new Promise((resolve) => socket.once("close", resolve));
    socket.on("error", () => undefined);
    socket.write("x".repeat(100_000));
    await gone;
    await server.close();
  });
});

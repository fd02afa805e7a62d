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

describe("a page of the web that sends lines to the port", () => {
  async function say(text: string) {
    const virtual = bench();
    const mains = instruments.mains(virtual);
    const server = await serveInstrument(mains, 0);
    const socket = connect(server.port, "127.0.0.1");
    socket.on("error", () => undefined);
    const gone = new Promise((resolve) => socket.once("close", () => resolve("hung up")));
    socket.write(text);
    const outcome = await Promise.race([gone, new Promise((resolve) => setTimeout(() => resolve("listens"), 300))]);
    socket.destroy();
    const other = new LineSession(mains);
    const output = other.take("OUTP?");
    await server.close();
    return [outcome, output];
  }

  it("is hung up on before any of its lines is carried out", async () => {
    expect(await say("OUTP ON\n")).toEqual(["listens", "ON"]);
    for (const method of ["POST", "GET", "OPTIONS"]) {
      expect(await say(`${method} / HTTP/1.1\r\nHost: x\r\n\r\nOUTP ON\r\n`), method).toEqual(["hung up", "OFF"]);
    }
    expect(await say("Host: 127.0.0.1\r\n\r\nOUTP ON\r\n")).toEqual(["hung up", "OFF"]);
  });

  it("is hung up on after three lines that no instrument knows, and not after two", async () => {
    expect(await say("!!\n!!\n*CLS\n!!\n!!\nOUTP ON\n")).toEqual(["listens", "ON"]);
    expect(await say("!!\n!!\n!!\nOUTP ON\n")).toEqual(["hung up", "OFF"]);
  });
});

import { benchPort, instrumentKinds, mostLoads, parseWaveform } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { Bench, instruments, LineSession, loadScenarios, parseScenario } from "../index";

const scenarios = loadScenarios();

/** A supply with two loads on it, its mains, scope and thermometer, and a clock that the test turns. */
function benchOf(name: string) {
  let seconds = 0;
  const bench = new Bench(scenarios, () => seconds);
  const sessions = {
    mains: new LineSession(instruments.mains(bench)),
    first: new LineSession(instruments.load(bench)),
    second: new LineSession(instruments.load(bench, 2)),
    scope: new LineSession(instruments.oscilloscope(bench)),
    spot: new LineSession(instruments.thermometer(bench)),
  };
  const ask = (which: keyof typeof sessions, ...lines: readonly string[]) =>
    lines.map((line) => sessions[which].take(line)).at(-1) ?? "";
  ask("mains", `SYST:SCEN ${name}`);
  return {
    ask,
    read: (which: keyof typeof sessions, ...lines: readonly string[]) => Number(ask(which, ...lines)),
    wait: (more: number) => {
      seconds += more;
      bench.tick();
    },
  };
}
const loaded = (name: string, first = "2.2", second = "1.8") => {
  const made = benchOf(name);
  made.ask("mains", "OUTP ON");
  made.ask("first", "CONN 14 V", `CURR ${first}`, "INP ON");
  made.ask("second", "CONN 5 V", `CURR ${second}`, "INP ON");
  return made;
};

describe("two loads", () => {
  it("draw at once, each from its own rail", () => {
    const { ask, read } = loaded("01-healthy");
    expect(read("first", "MEAS:CURR?")).toBeCloseTo(2.2, 1);
    expect(read("second", "MEAS:VOLT?")).toBeCloseTo(4.95, 1);
    const both = read("mains", "MEAS:POW?");
    expect(both).toBeGreaterThan(45);
    ask("second", "INP OFF");
    expect(read("mains", "MEAS:POW?")).toBeLessThan(both - 9);
    expect(read("first", "MEAS:CURR?")).toBeCloseTo(2.2, 1);
    expect(read("second", "MEAS:CURR?")).toBeCloseTo(0, 2);
  });
});

describe("after the mains went", () => {
  it("rails stand for as long as the bulk holds, and then the loads empty them", () => {
    const { ask, read, wait } = loaded("01-healthy");
    wait(3);
    expect(read("scope", "FUNC HOLD", "READ?")).toBeGreaterThan(1e37);
    ask("mains", "OUTP OFF");
    const held = read("scope", "READ?");
    // 82 uF from about 310 V to 95 V at about 48 W.
    expect(held).toBeGreaterThan(0.05);
    expect(held).toBeLessThan(0.1);
    wait(held * 0.9);
    expect(read("first", "MEAS:VOLT?")).toBeGreaterThan(13);
    wait(held * 0.2 + 0.002);
    expect(read("first", "MEAS:VOLT?")).toBeLessThan(13);
    wait(0.1);
    expect(read("first", "MEAS:VOLT?")).toBeLessThan(1);
    expect(read("second", "MEAS:VOLT?")).toBeLessThan(1);
  });
  it("a rail without a load keeps its charge", () => {
    const { ask, read, wait } = loaded("01-healthy");
    ask("second", "INP OFF");
    wait(3);
    ask("mains", "OUTP OFF");
    wait(1);
    expect(read("first", "MEAS:VOLT?")).toBeLessThan(1);
    expect(read("second", "MEAS:VOLT?")).toBeGreaterThan(2);
  });
});

describe("a current limit", () => {
  it("lets the volts go above it, and gives up a tenth further on", () => {
    const at = (amps: string) => loaded("11-limit-too-low", amps).read("first", "MEAS:VOLT?");
    expect(at("1.7")).toBeGreaterThan(13.8);
    expect(at("1.8")).toBeLessThan(13);
    expect(at("1.8")).toBeGreaterThan(6);
    expect(at("2.2")).toBeLessThan(2);
    expect(loaded("01-healthy").read("first", "MEAS:VOLT?")).toBeGreaterThan(13.8);
  });
});

describe("a load that swings", () => {
  it("dips the rail at each step up, by ESR and loop, and overshoots at each step down", () => {
    const { ask } = loaded("01-healthy", "0.5");
    const span = () => {
      const volts = parseWaveform(ask("scope", "ROUT:PROB 14 V", "TIM:SCAL 0.002", "WAV:DATA?"))?.volts ?? [];
      return Math.max(...volts) - Math.min(...volts);
    };
    const still = span();
    ask("first", "SWIN 1.7,100", "MODE SWIN");
    expect(span()).toBeGreaterThan(still + 0.06);
    ask("first", "SWIN 0,20000");
    expect(ask("first", "SYST:ERR?")).toContain("out of range");
  });
});

describe("a thermal mass", () => {
  it("warms in its own time, and where its sink is dry far too much", () => {
    const at = (name: string, part: string, seconds: number) => {
      const { read, wait } = loaded(name);
      for (let passed = 0; passed < seconds; passed += 5) {
        read("spot", `ROUT:PROB ${part}`, "READ?");
        wait(5);
      }
      return read("spot", "READ?");
    };
    expect(at("01-healthy", "D8", 45)).toBeLessThan(45);
    expect(at("01-healthy", "D8", 900)).toBeGreaterThan(58);
    expect(at("10-sink-without-paste", "D8", 45)).toBeGreaterThan(88);
    expect(at("10-sink-without-paste", "D9", 45)).toBeLessThan(50);
  });
  it("belongs to a part that is there", () => {
    const [first] = scenarios;
    const masses = [{ at: "X9", kelvinAtFullLoad: 5, timeConstantSeconds: 5 }];
    expect(() => parseScenario({ ...first, thermal: { ...first?.thermal, masses } })).toThrow("X9");
  });
});

describe("own limits", () => {
  it("switch off what is above them, and what nobody speaks to any more", () => {
    const { ask, read, wait } = loaded("01-healthy");
    ask("first", "LIM:CURR 2.1");
    wait(0.1);
    expect(ask("first", "INP?")).toBe("OFF");
    ask("mains", "LIM:TIME 10");
    ask("second", "LIM:TIME 20");
    wait(9);
    read("mains", "MEAS:POW?");
    wait(9);
    expect(ask("mains", "OUTP?")).toBe("ON");
    wait(10.5);
    expect(ask("second", "INP?")).toBe("OFF");
    expect(ask("mains", "OUTP?")).toBe("OFF");
    ask("mains", "OUTP ON", "LIM:TIME OFF", "LIM:POW 5");
    wait(0.1);
    expect(ask("mains", "OUTP?")).toBe("ON");
    ask("first", "LIM:CURR OFF", "INP ON");
    wait(0.1);
    expect(ask("mains", "OUTP?")).toBe("OFF");
    expect(ask("first", "LIM:CURR?")).toBe("OFF");
  });
});

it("each bench has ports of its own", () => {
  const ports = [0, 1].flatMap((set) => [
    ...instrumentKinds.map((kind) => benchPort(kind, 100, set)),
    ...Array.from({ length: mostLoads - 1 }, (_, n) => benchPort("load", 100, set, n + 2)),
  ]);
  expect([...ports].sort((a, b) => a - b)).toEqual(Array.from({ length: 16 }, (_, n) => 100 + n));
});

import { describe, expect, it } from "vitest";
import { Bench, instruments, LineSession, loadScenarios, parseScenario } from "../index";

const scenarios = loadScenarios();

/** One supply on a bench whose clock the test turns, with a session for each instrument. */
function benchOf(name: string) {
  let seconds = 0;
  const bench = new Bench(scenarios, () => seconds);
  const sessions = Object.fromEntries(
    Object.entries(instruments).map(([kind, make]) => [kind, new LineSession(make(bench))]),
  ) as Record<keyof typeof instruments, LineSession>;
  const ask = (kind: keyof typeof instruments, ...lines: readonly string[]) =>
    lines.map((line) => sessions[kind].take(line)).at(-1) ?? "";
  const read = (kind: keyof typeof instruments, ...lines: readonly string[]) => Number(ask(kind, ...lines));
  ask("mains", `SYST:SCEN ${name}`);
  ask("lcr", "CORR:SHOR");
  return {
    bench,
    ask,
    read,
    wait: (more: number) => {
      seconds += more;
    },
    esr: (at: string, state: string) => read("lcr", "FREQ 100000", `ROUT:PROB ${at},${state}`, "MEAS:ESR?"),
  };
}

describe("scenarios", () => {
  it("are at least eight, each with another answer, and hold together", () => {
    expect(scenarios.length).toBeGreaterThanOrEqual(8);
    expect(new Set(scenarios.map((one) => one.answer)).size).toBe(scenarios.length);
    const broken = { ...scenarios[0], control: { ...scenarios[0]?.control, net: "nowhere" } };
    expect(() => parseScenario(broken)).toThrow('names the net "nowhere"');
  });
  it("read the same under the same seed, and other noise under another", () => {
    const run = () => {
      const { esr } = benchOf("02-dried-output-bank");
      return ["C11", "C16", "C17"].map((at) => esr(at, "OUT"));
    };
    expect(run()).toEqual(run());
    expect(benchOf("01-healthy").esr("C11", "OUT")).not.toBe(benchOf("02-dried-output-bank").esr("C11", "OUT"));
  });

  it("healthy: rails stand under load, with little ripple", () => {
    const { ask, read, wait } = benchOf("01-healthy");
    ask("mains", "OUTP ON");
    ask("load", "CONN 14 V", "CURR 2.2", "INP ON");
    wait(3);
    expect(read("multimeter", "ROUT:PROB 14 V", "MEAS:DCV?")).toBeCloseTo(13.93, 1);
    expect(read("oscilloscope", "ROUT:PROB 14 V after L2", "MEAS:PKPK?")).toBeLessThan(0.12);
    expect(read("mains", "FUNC POW", "READ?")).toBeGreaterThan(30);
  });
  it("dried bank: bad in circuit and out, and ripple far above the healthy one's", () => {
    const { ask, read, wait, esr } = benchOf("02-dried-output-bank");
    expect(esr("C16", "IN")).toBeGreaterThan(0.2);
    expect(esr("C16", "OUT")).toBeGreaterThan(0.8);
    ask("mains", "OUTP ON");
    ask("load", "CONN 5 V", "CURR 1.8", "INP ON");
    wait(3);
    expect(read("oscilloscope", "ROUT:PROB 5 V", "MEAS:PKPK?")).toBeGreaterThan(1);
  });
  it("masked: its neighbour hides it in circuit", () => {
    const { esr } = benchOf("03-masked-single");
    expect(esr("C12", "IN")).toBeLessThan(0.09);
    expect(esr("C12", "LIFTED")).toBeGreaterThan(1);
  });
  it("leaky: more capacitance than is printed, and the charge is lost", () => {
    const { read } = benchOf("04-leaky-reads-high");
    expect(read("lcr", "FREQ 100", "ROUT:PROB C4,OUT", "MEAS:CAP?")).toBeGreaterThan(14e-6);
    expect(read("lcr", "MEAS:VLOS?")).toBeGreaterThan(0.8);
    expect(read("lcr", "ROUT:PROB C9,OUT", "MEAS:VLOS?")).toBeLessThan(0.02);
  });
  it("dried control supply: hiccup, and a meter that shows a calm average of it", () => {
    const { ask, read, wait } = benchOf("05-dried-control-hiccup");
    ask("mains", "OUTP ON");
    wait(3);
    const average = read("multimeter", "ROUT:PROB Vcc", "MEAS:DCV?");
    expect(average).toBeGreaterThan(11);
    expect(average).toBeLessThan(14);
    expect(read("oscilloscope", "TIM:SCAL 0.2", "ROUT:PROB Vcc", "MEAS:PKPK?")).toBeGreaterThan(5);
    expect(read("multimeter", "ROUT:PROB 5 V", "MEAS:DCV?")).toBeLessThan(1);
  });
  it("boost bulk gone: fuse open, transistor shorted, no volts anywhere", () => {
    const { ask, read, wait } = benchOf("06-boost-bulk-gone");
    expect(read("multimeter", "ROUT:PROB F101", "MEAS:OHMS?")).toBeGreaterThan(1e6);
    expect(read("multimeter", "ROUT:PROB Q101.D,Q101.S", "MEAS:OHMS?")).toBeLessThan(1);
    expect(read("multimeter", "ROUT:PROB Q102.D,Q102.S", "MEAS:OHMS?")).toBeGreaterThan(1000);
    ask("mains", "OUTP ON");
    wait(3);
    expect(read("multimeter", "ROUT:PROB PFC bulk", "MEAS:DCV?")).toBeCloseTo(0, 1);
  });
  it("open bulk: the right voltage without load, mains ripple and too little of it with load", () => {
    const { ask, read, wait } = benchOf("07-bulk-open-unloaded-good");
    ask("mains", "OUTP ON");
    wait(3);
    expect(read("multimeter", "ROUT:PROB 19 V", "MEAS:DCV?")).toBeCloseTo(19, 0);
    ask("load", "CONN 19 V", "CURR 3.2", "INP ON");
    wait(1);
    expect(read("multimeter", "ROUT:PROB 19 V", "MEAS:DCV?")).toBeLessThan(18);
    expect(read("oscilloscope", "TIM:SCAL 0.005", "ROUT:PROB 19 V", "MEAS:PKPK?")).toBeGreaterThan(3);
  });
  it("hot beside a choke: tens of kelvin above its neighbours after half an hour", () => {
    const { ask, read, wait } = benchOf("08-hot-beside-choke");
    ask("mains", "OUTP ON");
    ask("load", "CONN 24 V", "CURR 4", "INP ON");
    for (let minute = 0; minute < 30; minute++) {
      wait(60);
      ask("mains", "READ?");
    }
    expect(read("thermometer", "ROUT:PROB C203", "READ?")).toBeGreaterThan(
      read("thermometer", "ROUT:PROB C211", "READ?") + 20,
    );
  });
  it("shorted rectifier: found by ohms, not by the capacitors beside it", () => {
    const { read } = benchOf("09-shorted-rectifier");
    expect(read("multimeter", "ROUT:PROB D8", "MEAS:OHMS?")).toBeLessThan(0.5);
    expect(read("multimeter", "ROUT:PROB D9", "MEAS:DIOD?")).toBeLessThan(0.35);
  });
});

describe("charge", () => {
  it("stays on a bulk that never started, drains through a resistor, and creeps back", () => {
    const { ask, read, wait } = benchOf("05-dried-control-hiccup");
    ask("mains", "OUTP ON");
    wait(2);
    ask("mains", "OUTP OFF");
    wait(5);
    expect(read("multimeter", "ROUT:PROB Bulk", "MEAS:DCV?")).toBeGreaterThan(300);
    expect(ask("lcr", "ROUT:PROB C3", "MEAS:ESR?")).toBe("9.9e37");
    expect(ask("lcr", "SYST:ERR?")).toContain("drain first");
    ask("mains", "DRAI Bulk,2200");
    wait(3);
    ask("mains", "DRAI OFF");
    expect(read("multimeter", "MEAS:DCV?")).toBeLessThan(1);
    wait(60);
    expect(read("multimeter", "MEAS:DCV?")).toBeGreaterThan(5);
  });
  it("blows the fuse into a short without a lamp, and lights the lamp with one", () => {
    const shorted = { ...(scenarios[0] as (typeof scenarios)[number]) };
    const devices = shorted.devices.map((one) => (one.at === "Q1" ? { ...one, condition: "shorted" as const } : one));
    const bench = new Bench([{ ...shorted, devices }], () => 0);
    const source = new LineSession(instruments.mains(bench));
    source.take("LAMP 60");
    source.take("OUTP ON");
    expect(Number(source.take("READ?"))).toBeGreaterThan(50);
    source.take("LAMP OFF");
    expect(Number(source.take("READ?"))).toBeCloseTo(0, 1);
    const meter = new LineSession(instruments.multimeter(bench));
    source.take("OUTP OFF");
    meter.take("ROUT:PROB F1");
    expect(meter.take("MEAS:CONT?")).toBe(String(9.9e37));
  });
});

describe("falsified readings", () => {
  it("come with leads that are not zeroed, small test currents, a transformer, and meters that average", () => {
    const { ask, read, esr, wait } = benchOf("01-healthy");
    const zeroed = esr("C16", "OUT");
    ask("lcr", "CORR:OPEN");
    expect(esr("C16", "OUT") - zeroed).toBeGreaterThan(0.015);
    expect(read("multimeter", "ROUT:PROB U2", "MEAS:COUP?")).toBeGreaterThan(50e3);
    ask("mains", "OUTP ON");
    wait(2);
    const start = read("oscilloscope", "ROUT:PROB 14 V", "FUNC STAR", "READ?");
    ask("mains", "ISOL ON");
    expect(read("oscilloscope", "READ?") / start).toBeGreaterThan(2);
  });
  it("climb while an ohmmeter charges a bank", () => {
    const { ask, read, wait } = benchOf("01-healthy");
    ask("multimeter", "ROUT:PROB 14 V");
    const first = read("multimeter", "MEAS:OHMS?");
    wait(20);
    expect(read("multimeter", "MEAS:OHMS?")).toBeGreaterThan(first * 3);
  });
});

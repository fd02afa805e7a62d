import { describe, expect, it } from "vitest";
import { OutOfRangeError } from "../errors";
import { bankImpedance } from "./bankImpedance";
import { type CircuitBranch, drivingPointImpedance, voltsUnderTestCurrent } from "./nodalAnalysis";

const can = (
  from: string,
  capacitanceFarads: number,
  esrOhms: number,
  leakageOhms: number | null = null,
): CircuitBranch => ({
  kind: "capacitor",
  from,
  to: "ground",
  capacitanceFarads,
  esrOhms,
  eslHenrys: 15e-9,
  leakageOhms,
});
const choke: CircuitBranch = { kind: "choke", from: "12 V", to: "12 V post", henrys: 4.7e-6, ohms: 0.02 };

describe("drivingPointImpedance", () => {
  it("agrees with the bank formula for two banks across a choke", () => {
    const seen = drivingPointImpedance(
      [can("12 V", 1e-3, 0.03), can("12 V post", 470e-6, 0.05), choke],
      ["12 V", "ground"],
      1000,
    );
    const formula = bankImpedance(
      [
        { capacitanceFarads: 1e-3, esrOhms: 0.03, eslHenrys: 15e-9 },
        { capacitanceFarads: 470e-6, esrOhms: 0.05, eslHenrys: 15e-9, isBehindChoke: true },
      ],
      1000,
      { chokeHenrys: 4.7e-6, chokeOhms: 0.02 },
    );
    expect(seen.re).toBeCloseTo(formula.resistanceOhms, 6);
    expect(seen.im).toBeCloseTo(formula.reactanceOhms, 6);
  });
  it("shows a leaky part as more capacitance than it has", () => {
    const { im } = drivingPointImpedance([can("vcc", 10e-6, 1, 200)], ["vcc", "ground"], 100);
    expect(-1 / (2 * Math.PI * 100 * im)).toBeGreaterThan(15e-6);
    expect(() => drivingPointImpedance([], ["a", "b"], 0)).toThrow(OutOfRangeError);
  });
});

describe("voltsUnderTestCurrent", () => {
  const bridge: CircuitBranch[] = (
    [
      ["l", "+"],
      ["n", "+"],
      ["-", "l"],
      ["-", "n"],
    ] as const
  ).map(([from, to]) => ({ kind: "diode", from, to, forwardVolts: 0.5 }));
  it("reads one junction forward, two through a bridge, and nothing backward", () => {
    expect(voltsUnderTestCurrent(bridge, ["l", "+"], 1e-3)).toBeCloseTo(0.505, 3);
    expect(voltsUnderTestCurrent(bridge, ["-", "+"], 1e-3)).toBeCloseTo(1.0075, 2);
    expect(voltsUnderTestCurrent(bridge, ["+", "-"], 1e-3)).toBeGreaterThan(100);
  });
  it("sees a resistor beside a junction that does not reach its forward voltage", () => {
    const shunted: CircuitBranch[] = [...bridge, { kind: "resistor", from: "l", to: "+", ohms: 100 }];
    expect(voltsUnderTestCurrent(shunted, ["l", "+"], 1e-3)).toBeCloseTo(0.1, 4);
  });
});

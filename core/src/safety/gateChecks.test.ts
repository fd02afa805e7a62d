import { describe, expect, it } from "vitest";
import type { GateItem, GateValue } from "../facts/powerEvents";
import { gateFinding } from "./gateChecks";

const found = (item: GateItem, ...values: GateValue[]) => gateFinding(item, values, false);

describe("what a number says of a tick", () => {
  it.each([
    ["line_neutral", 99e3, "odd"],
    ["line_neutral", 100e3, "sound"],
    ["line_neutral", 9.9, "contradicts"],
    ["bulk", 9.99e3, "odd"],
    ["bulk", 10e3, "sound"],
    ["bulk", 0, "contradicts"],
    ["transistor", 999, "odd"],
    ["transistor", 1000, "sound"],
    ["transistor", 9.9, "contradicts"],
    ["gate_source", 9.9, "contradicts"],
    ["gate_source", 1000, "sound"],
    ["shunt", 0.1, "sound"],
    ["shunt", 10, "sound"],
    ["shunt", 10.1, "odd"],
    ["shunt", "open", "odd"],
    ["earth_insulation", 9.9, "contradicts"],
    ["earth_insulation", 0.99e6, "odd"],
    ["earth_insulation", 1e6, "sound"],
    ["rail", 0.3, "odd"],
    ["rail", 10, "sound"],
    ["sink", 9.9, "contradicts"],
    ["sink", 1e3, "odd"],
    ["sink", "open", "sound"],
  ] as const)("%s %s: %s", (item, value, finding) => {
    expect(found(item, value)).toBe(finding);
  });
  it("of a junction is some tenths of a volt to two drops one way, and nothing the other", () => {
    for (const item of ["bridge", "single_diode"] as const) {
      expect(found(item, 0.95, "open")).toBe("sound");
      expect(found(item, 0.3, "open")).toBe("sound");
      expect(found(item, 1.6, "open")).toBe("sound");
      expect(found(item, 0.29, "open")).toBe("odd");
      expect(found(item, 1.61, "open")).toBe("odd");
      expect(found(item, 0.95, 1.9)).toBe("odd");
      expect(found(item, "open", "open")).toBe("odd");
      expect(found(item, 0.099, "open")).toBe("contradicts");
      expect(found(item, 0.95, 0.099)).toBe("contradicts");
      expect(found(item, 0.95)).toBe("incomplete");
    }
  });
  it("counts before any reason, and a reason before a missing number", () => {
    expect(gateFinding("bulk", [], false)).toBe("incomplete");
    expect(gateFinding("bulk", [], true)).toBe("sound");
    expect(gateFinding("bulk", [3], true)).toBe("contradicts");
    expect(gateFinding("bridge", [0.02], false)).toBe("contradicts");
  });
});

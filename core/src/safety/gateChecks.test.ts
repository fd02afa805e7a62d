import { describe, expect, it } from "vitest";
import { sampleNet, samplePosition } from "../../testing/sampleJob";
import type { PartKind } from "../board/board";
import { tradeConstants } from "../constants/tradeConstants";
import type { GateItem, GateValue } from "../facts/powerEvents";
import { closerDemands, demandKey, gateFinding, gateItemRules, isOnMainsSide, shortDemands } from "./gateChecks";

const gateItems = Object.keys(gateItemRules) as GateItem[];

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
    ["line_neutral", "open", "sound"],
    ["bulk", "open", "sound"],
    ["earth_bond", 0, "sound"],
    ["earth_bond", tradeConstants.safety.usualBondOhms, "sound"],
    ["earth_bond", tradeConstants.safety.usualBondOhms + 0.01, "odd"],
    ["earth_bond", tradeConstants.safety.mostBondOhms, "odd"],
    ["earth_bond", tradeConstants.safety.mostBondOhms + 0.01, "contradicts"],
    ["earth_bond", "open", "contradicts"],
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
  it("is in volts of a junction and in ohms of all else", () => {
    const inVolts = gateItems.filter((item) => gateItemRules[item].quantity === "diode_drop");
    expect(inVolts.sort()).toEqual(["bridge", "single_diode"]);
    expect(gateItems.filter((item) => gateItemRules[item].quantity === "resistance")).toHaveLength(
      gateItems.length - 2,
    );
  });
  it("counts before any reason, and a reason before a missing number", () => {
    expect(gateFinding("bulk", [], false)).toBe("incomplete");
    expect(gateFinding("bulk", [], true)).toBe("sound");
    expect(gateFinding("bulk", [3], true)).toBe("contradicts");
    expect(gateFinding("bridge", [0.02], false)).toBe("contradicts");
  });
});

describe("what is tested after something tripped", () => {
  const nets = [sampleNet({ section: "output" }), sampleNet({ id: "net-bulk", section: "bulk" })];
  const at = (designator: string, kind: PartKind, netId: string | null, markedOhms: number | null = null) =>
    samplePosition(designator, { kind, netId, markedOhms });
  const asked = (...positions: ReturnType<typeof at>[]) => shortDemands({ nets, positions }).map(demandKey);

  it("is each power part of the mains side, and what nobody entered of the unit", () => {
    expect(asked()).toEqual(["line_neutral:", "bridge:", "bulk:", "transistor:", "shunt:"]);
    expect(
      asked(
        at("BR1", "bridge", null),
        at("Q1", "transistor", "net-bulk"),
        at("Q9", "transistor", "net-12"),
        at("R1", "resistor", "net-bulk", 10),
        at("R2", "resistor", "net-bulk", 10.1),
        at("R3", "resistor", "net-bulk"),
      ),
    ).toEqual(["line_neutral:", "bridge:at-BR1", "bulk:", "transistor:at-Q1", "shunt:at-R1"]);
  });
  it("takes a part by its net, and one that no net places for the mains side unless its kind never stands there", () => {
    const isOn = (kind: PartKind, netId: string | null) => isOnMainsSide({ nets }, at("X1", kind, netId));
    expect([isOn("transistor", "net-12"), isOn("electrolytic", "net-bulk")]).toEqual([false, true]);
    for (const kind of ["electrolytic", "fan", "regulator", "connector"] as const) expect(isOn(kind, null)).toBe(false);
    for (const kind of ["transistor", "film", "fuse", "bridge"] as const) expect(isOn(kind, null)).toBe(true);
  });
  it("is looked at closer where it read low", () => {
    const low = (item: GateItem) => closerDemands({ item, subjectId: "at-X", designator: "X" });
    const same = { subjectId: "at-X", designator: "X" };
    expect(low("transistor")).toEqual([{ item: "gate_source", ...same }]);
    expect(low("bridge")).toEqual([{ item: "single_diode", ...same }]);
    expect(low("line_neutral")).toEqual([{ item: "single_diode", ...same }]);
    for (const item of ["bulk", "shunt", "gate_source", "rail"] as const) expect(low(item)).toEqual([]);
  });
});

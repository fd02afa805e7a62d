import { sampleDetail } from "@pale-cap/contract/testing";
import { sampleNet, samplePart, samplePosition } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { barPrefix, shiftPrefix } from "./barPrefix";
import { probeOrder, steppedTarget } from "./probeOrder";
import { isInside } from "./tone";
import { typedQuantity } from "./typedQuantity";

describe("typedQuantity", () => {
  it.each([
    ["esr 41m", ["esr", "41m"]],
    ["  C  820u", ["capacitance", "820u"]],
    ["dc -12.1", ["dc_voltage", "-12.1"]],
    ["41m", [null, "41m"]],
    ["volts 12", [null, "volts 12"]],
    ["constructor 1", [null, "constructor 1"]],
    ["r", [null, "r"]],
  ] as const)("reads %j as %j", (typed, read) => {
    expect(typedQuantity(typed)).toEqual(read);
  });
});

describe("the prefix of a bare number", () => {
  it("goes by what is read and where on the supply, never by the part", () => {
    expect(barPrefix("esr", "output")).toBe("m");
    expect([barPrefix("esr", "bulk"), barPrefix("esr", "vcc"), barPrefix("esr", null)]).toEqual(["", "", ""]);
    expect(barPrefix("capacitance", "bulk")).toBe("u");
    expect(barPrefix("ripple_voltage", "output")).toBe("m");
    expect(barPrefix("leakage_current", null)).toBe("u");
    expect(barPrefix("dc_voltage", "output")).toBe("");
  });
  it("moves by thousands and stays at the ends of the ladder", () => {
    expect([-2, -1, 0, 1, 2].map((by) => shiftPrefix("m", by))).toEqual(["n", "u", "m", "", "k"]);
    expect(shiftPrefix("M", 1)).toBe("M");
    expect(shiftPrefix("p", -1)).toBe("p");
  });
});

describe("isInside", () => {
  it("asks a capacitance not to fall, an ESR not to rise, and a rail to keep to both ends", () => {
    expect([0.79, 0.8, 5].map((value) => isInside(value, { low: 0.8, high: 1.2, isLowBad: true }))).toEqual([
      false,
      true,
      true,
    ]);
    expect([0, 1.2, 1.21].map((value) => isInside(value, { low: 0.8, high: 1.2, isLowBad: false }))).toEqual([
      true,
      true,
      false,
    ]);
    expect([-13, -12, -11].map((value) => isInside(value, { low: -12.6, high: -11.4, isLowBad: false }))).toEqual([
      false,
      true,
      false,
    ]);
  });
});

describe("the way of the bar", () => {
  const board = sampleDetail({
    nets: [sampleNet({ id: "net-5", name: "5 V" }), sampleNet({ id: "net-b", name: "bulk", section: "bulk" })],
    positions: [
      samplePosition("C10", { netId: "net-5" }),
      samplePosition("C2", { netId: "net-5" }),
      samplePosition("C1", { netId: "net-b" }),
      samplePosition("C9", { netId: "net-5" }),
      samplePosition("D1", { kind: "diode" }),
      samplePosition("U1", { kind: "ic" }),
    ],
    fittedParts: [
      samplePart("C10"),
      samplePart("C2"),
      samplePart("C1"),
      samplePart("C9", { removedAt: "2026-11-23T10:00:00Z" }),
    ],
  });
  const order = probeOrder(board, "part");
  it("goes over what sits there, mains first, then test by test, and past live and rare tests", () => {
    expect(order.map((one) => `${one.id} ${one.terminals ?? ""}`.trim())).toEqual([
      "at-C1",
      "at-C2",
      "at-C10",
      "at-D1 A,K",
      "at-D1 K,A",
      "at-U1 VCC,GND",
    ]);
    expect(probeOrder(board, "rail").map((one) => one.id)).toEqual(["net-5"]);
  });
  it("turns round at either end, and from a part that is not on the way starts at the end", () => {
    const at = (id: string, terminals?: string) => ({ kind: "part", id, ...(terminals && { terminals }) }) as const;
    expect(steppedTarget(order, at("at-U1", "VCC,GND"), 1)?.id).toBe("at-C1");
    expect(steppedTarget(order, at("at-C1"), -1)?.id).toBe("at-U1");
    expect(steppedTarget(order, at("at-D1", "A,K"), 1)).toEqual(at("at-D1", "K,A"));
    // A test that is not on the way: on from its part's first.
    expect(steppedTarget(order, at("at-D1", "A2,K"), 1)).toEqual(at("at-D1", "K,A"));
    expect(steppedTarget(order, undefined, 1)?.id).toBe("at-C1");
    expect(steppedTarget([], at("at-C1"), 1)).toBeUndefined();
  });
});

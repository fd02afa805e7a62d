import { describe, expect, it } from "vitest";
import { tipsTogether } from "../job/workplaceSlice";
import { barQuantities, fittingQuantity, isUnderPower } from "./barQuantities";
import { readTyped } from "./readTyped";

describe("readTyped", () => {
  it("gives a bare number the prefix of the field, and a spelled one its own", () => {
    expect(readTyped("47", "esr", "Ω", "m").read).toEqual({ value: 0.047, code: null });
    expect(readTyped("0R41", "esr", "Ω", "m").read).toEqual({ value: 0.41, code: null });
    expect(readTyped("4.7k5", "esr", "Ω", "m").problem).toBeDefined();
    expect(readTyped(" ", "esr", "Ω", "m")).toEqual({ read: null, problem: undefined });
  });
  it("takes the number of a word where the quantity is one, with a note behind it, and never a value", () => {
    expect(readTyped("4", "tester_band", "", "").read).toEqual({ value: null, code: "band_bad" });
    // What a unit can do no capacitor can: each has its own words.
    expect(readTyped("7", "observation", "", "", "unit").read).toEqual({ value: null, code: "boots" });
    expect(readTyped("6", "observation", "", "", "part").read).toEqual({ value: null, code: "hot" });
    expect(readTyped("1 at T1, like fish", "observation", "", "").read).toEqual({ value: null, code: "smell" });
    expect(readTyped("9", "tester_band", "", "").problem).toContain("1 to 6");
  });
  it("takes no number that the quantity cannot be, and says what it was: ohms typed as volts", () => {
    const typed = readTyped("390k", "dc_voltage", "V", "");
    expect([typed.read, typed.problem]).toEqual([null, expect.stringContaining("For ohms choose Ohms first.")]);
    expect(readTyped("-3", "esr", "Ω", "").problem).toContain("cannot be ESR");
    expect(readTyped("2k", "dc_voltage", "V", "").read?.value).toBe(2000);
  });
  it("reads open where a meter may, and nowhere else", () => {
    expect(readTyped("ol", "diode_drop", "V", "").read).toEqual({ value: null, code: "over_range" });
    // A capacitor that is open inside shows no ESR and no C: that is a reading, and no number.
    expect(readTyped("open", "esr", "Ω", "m").read).toEqual({ value: null, code: "over_range" });
    expect(readTyped("ol", "capacitance", "F", "u").read).toEqual({ value: null, code: "over_range" });
    expect(readTyped("ol", "dc_voltage", "V", "").read).toBeNull();
  });
});

describe("what the bar reads where", () => {
  const part = { kind: "part", id: "p" } as const;
  const rail = { kind: "rail", id: "n" } as const;
  it("offers ESR on a capacitor, pins on a diode, ripple on a rail, watts on the unit", () => {
    expect(barQuantities(part, "electrolytic").main[0]).toBe("esr");
    expect(barQuantities(part, "diode").main).toContain("diode_drop");
    expect(barQuantities(rail, undefined).main).toContain("ripple_voltage");
    expect(fittingQuantity("esr", barQuantities({ kind: "unit", id: "j" }, undefined))).toBe("power");
    // Its leads are read by themselves: never because the last part was asked for its ESR.
    const tips = { kind: "unit", id: "j", terminals: tipsTogether } as const;
    expect(barQuantities(tips, undefined)).toEqual({ main: ["esr"], more: [] });
    expect(isUnderPower(tips, "esr")).toBe(false);
    expect(fittingQuantity("temperature", barQuantities(part, "diode"))).toBe("temperature");
  });
  it("calls volts of a rail live, but not ohms, a smell, or a test from a bench supply", () => {
    expect(isUnderPower(rail, "dc_voltage")).toBe(true);
    expect(isUnderPower(rail, "resistance")).toBe(false);
    expect(isUnderPower(rail, "observation")).toBe(false);
    expect(isUnderPower({ ...rail, terminals: "vcc_start" }, "dc_voltage")).toBe(false);
    expect(isUnderPower(part, "dc_voltage")).toBe(false);
  });
});

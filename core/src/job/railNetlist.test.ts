import { describe, expect, it } from "vitest";
import { sampleNet, samplePart, samplePosition, sampleReading } from "../../testing/sampleJob";
import { railNetlist } from "./railNetlist";

const network = { arrangement: "parallel" as const, behindNetId: "a", chokeHenrys: 4.7e-6, chokeOhms: null };
const nets = [
  sampleNet({ id: "a", name: "12 V", nominalVolts: 12, fullLoadAmps: 2 }),
  sampleNet({ id: "b", name: "12 V after L2", nominalVolts: 12, fullLoadAmps: null, network }),
  sampleNet({ id: "bulk", name: "Bulk", section: "bulk", nominalVolts: 325, fullLoadAmps: null }),
  sampleNet({ id: "minus", name: "-12 V", nominalVolts: -12, fullLoadAmps: 0.5 }),
  sampleNet({ id: "same", name: "12_V", nominalVolts: null, fullLoadAmps: null }),
];
const positions = [
  samplePosition("C1", { netId: "bulk" }),
  samplePosition("C2", { netId: "a" }),
  samplePosition("C3", { netId: "b" }),
  samplePosition("R1", { netId: "a", kind: "resistor" }),
];
const fittedParts = ["C1", "C2", "C3"].map((one) => samplePart(one, { capacitanceFarads: 680e-6 }));
const list = (...readings: ReturnType<typeof sampleReading>[]) =>
  railNetlist({ nets, positions, fittedParts, readings }, "0140\nHalden").split("\n");

describe("a board's rails as a netlist", () => {
  it("has every capacitor as R, L and C in series on the ground of its side", () => {
    const lines = list(sampleReading("C2", { value: 0.21, circuitState: "out" }));
    expect(lines[0]).toBe("* 0140 Halden");
    expect(lines).toContain("C_C2 12_V C2_a 6.8e-4");
    expect(lines).toContain("R_C2 C2_a C2_b 2.1e-1");
    expect(lines).toContain("L_C2 C2_b 0 1.5e-8");
    expect(lines).toContain("* C2: ESR read out of circuit; ESL assumed");
    expect(lines).toContain("L_C1 C1_b hot 1.5e-8");
    expect(lines.some((one) => one.startsWith("* C3: ESR expected of a new one"))).toBe(true);
    expect(lines.filter((one) => one.includes("R1"))).toEqual([]);
    expect(lines.slice(-2)).toEqual([".end", ""]);
  });
  it("takes nothing that was read in circuit for a part's own", () => {
    const lines = list(sampleReading("C2", { value: 0.21, circuitState: "in_circuit" }));
    expect(lines).not.toContain("R_C2 C2_a C2_b 2.1e-1");
  });
  it("joins filters by their chokes, loads by their promise, and keeps names apart", () => {
    const lines = list();
    expect(lines).toContain("L_choke_12_V_after_L2 12_V 12_V_after_L2_x 4.7e-6");
    expect(lines).toContain("R_choke_12_V_after_L2 12_V_after_L2_x 12_V_after_L2 2e-2");
    expect(lines).toContain("R_load_12_V 12_V 0 6e+0");
    expect(lines).toContain("R_load_m12_V m12_V 0 2.4e+1");
    expect(lines).toContain("R_isolation hot 0 1e+9");
    const names = lines.filter((one) => /^[CRL]_/.test(one)).map((one) => one.split(" ")[0]);
    expect(new Set(names).size).toBe(names.length);
  });
});

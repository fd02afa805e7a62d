import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleStore } from "../../testing/sampleJob";
import type { JobFacts } from "../facts/jobFacts";
import { isUnderDrain, storeOfPosition, unnamedHolders } from "./storeCoverage";

const parallel = sampleNet({ id: "net-bulk", section: "bulk", nominalVolts: 325 });
const network = { arrangement: "series", behindNetId: null, chokeHenrys: null, chokeOhms: null } as const;
const doubler = { ...parallel, network };
const job = (more: Partial<JobFacts>) =>
  sampleJob({
    nets: [parallel],
    positions: [samplePosition("C1", { netId: "net-bulk" }), samplePosition("C2", { netId: "net-bulk" })],
    ...more,
  });
const unnamed = (more: Partial<JobFacts>) => unnamedHolders(job(more)).map((one) => one.designator);

describe("what a named store answers for", () => {
  it("is its own part and, in parallel, the others of the net", () => {
    const energyStores = [sampleStore({ positionId: "at-C1" })];
    expect(storeOfPosition(job({ energyStores }), "at-C2")?.id).toBe("store-1");
    expect(storeOfPosition(job({ energyStores, nets: [doubler] }), "at-C2")).toBeUndefined();
    expect(storeOfPosition(job({ energyStores, nets: [doubler] }), "at-C1")?.id).toBe("store-1");
  });
  it("is a net that it is named by, unless its parts stand in series", () => {
    const energyStores = [sampleStore({ positionId: null, netId: "net-bulk", kind: "series_pair" })];
    expect(storeOfPosition(job({ energyStores }), "at-C2")?.id).toBe("store-1");
    expect(storeOfPosition(job({ energyStores, nets: [doubler] }), "at-C2")).toBeUndefined();
  });
  it("is nothing for a part that no net places", () => {
    const nowhere = [samplePosition("C1", { netId: null }), samplePosition("C2", { netId: null })];
    const energyStores = [sampleStore({ positionId: "at-C1" }), sampleStore({ id: "x", positionId: null })];
    expect(storeOfPosition(job({ energyStores, positions: nowhere }), "at-C2")).toBeUndefined();
  });
});

describe("a drain that is still connected", () => {
  const positions = [
    samplePosition("C1", { netId: "net-bulk" }),
    samplePosition("C2", { netId: "net-bulk" }),
    samplePosition("C9"),
    samplePosition("C8", { netId: null }),
    samplePosition("C7", { netId: null }),
  ];
  const under = (store: object, states: readonly [string, boolean][] = [["store-1", true]]) =>
    ["at-C1", "at-C2", "net-bulk", "at-C9", "net-12", "at-C8", "at-C7"].filter((target) =>
      isUnderDrain(
        { positions, energyStores: [sampleStore({ id: "other", positionId: "at-C9" }), sampleStore(store)] },
        states.map(([storeId, isDrainOn]) => ({ storeId, isDrainOn })),
        target,
      ),
    );
  const all = ["at-C1", "at-C2", "net-bulk"];
  it("hangs on its part, its net and what lies on that net, and on nothing else", () => {
    expect(under({ positionId: "at-C1" })).toEqual(all);
    expect(under({ positionId: null, netId: "net-bulk" })).toEqual(all);
    // Where no net places it, it is the part's alone.
    expect(under({ positionId: "at-C8" })).toEqual(["at-C8"]);
    expect(under({ positionId: null })).toEqual([]);
  });
  it("hangs nowhere once it is off, nor on a store that has none", () => {
    expect(under({ positionId: "at-C1" }, [["store-1", false]])).toEqual([]);
    expect(under({ positionId: "at-C1" }, [])).toEqual([]);
    expect(
      under({ positionId: "at-C1" }, [
        ["other", true],
        ["store-1", false],
      ]),
    ).toEqual(["at-C9", "net-12"]);
  });
});

describe("what nobody named", () => {
  it("is every bulk, and each of two in series by itself", () => {
    expect(unnamed({})).toEqual(["C1", "C2"]);
    expect(unnamed({ energyStores: [sampleStore()] })).toEqual([]);
    expect(unnamed({ nets: [doubler], energyStores: [sampleStore()] })).toEqual(["C2"]);
  });
  it("is no part that was taken out, and the one that came in its place", () => {
    const out = samplePart("C1", { removedAt: "2026-11-23T10:00:00Z" });
    const fresh = samplePart("C1", { id: "new", origin: "replacement" });
    expect(unnamed({ fittedParts: [out, samplePart("C2")] })).toEqual(["C2"]);
    expect(unnamed({ fittedParts: [out, fresh, samplePart("C2")] })).toEqual(["C1", "C2"]);
    // A place of which no part was entered holds what a bulk holds.
    expect(unnamed({ fittedParts: [] })).toEqual(["C1", "C2"]);
  });
  it("is whatever holds more than 0.05 J above 60 V or more than 5 J, its parallel neighbours counted in", () => {
    const output = (nominalVolts: number, farads: number) => ({
      nets: [sampleNet({ nominalVolts })],
      positions: [samplePosition("C1"), samplePosition("C2")],
      fittedParts: [
        samplePart("C1", { capacitanceFarads: farads / 2 }),
        samplePart("C2", { capacitanceFarads: farads / 2 }),
      ],
    });
    expect(unnamed(output(100, 9.9e-6))).toEqual([]);
    expect(unnamed(output(100, 10.1e-6))).toEqual(["C1", "C2"]);
    expect(unnamed(output(-50, 3.9e-3))).toEqual([]);
    expect(unnamed(output(-50, 4.1e-3))).toEqual(["C1", "C2"]);
    // Exactly at a limit it does not count: 0.05 J at 100 V, 5 J at 50 V, any energy above 0.05 J at 60 V itself.
    expect(unnamed(output(100, 1e-5))).toEqual([]);
    expect(unnamed(output(50, 4e-3))).toEqual([]);
    expect(unnamed(output(60, 1e-3))).toEqual([]);
    expect(unnamed(output(0, 1))).toEqual([]);
    // Two in series hold what each holds by itself.
    const apart = output(100, 12e-6);
    expect(unnamed({ ...apart, nets: [sampleNet({ nominalVolts: 100, network })] })).toEqual([]);
    // A film capacitor beside them is no bank with them.
    const film = [samplePosition("C1", { kind: "film" as const }), samplePosition("C2")];
    expect(unnamed({ ...apart, positions: film })).toEqual([]);
    const unknown = [samplePart("C1", { capacitanceFarads: null, ratedVolts: null })];
    expect(unnamed({ ...output(100, 1), positions: [samplePosition("C1")], fittedParts: unknown })).toEqual([]);
    expect(unnamed({ ...output(100, 1), positions: [samplePosition("R1", { kind: "resistor" })] })).toEqual([]);
  });
  it("is an X capacitor that holds enough, until the line was named", () => {
    const line = {
      positions: [samplePosition("CX1", { kind: "film" as const, netId: null })],
      fittedParts: [samplePart("CX1", { capacitanceFarads: 2.2e-6, ratedVolts: 310 })],
    };
    expect(unnamed(line)).toEqual(["CX1"]);
    const named = { energyStores: [sampleStore({ kind: "x_capacitor", positionId: null })] };
    expect(unnamed({ ...line, ...named })).toEqual([]);
    // The line answers for no film capacitor on a rail, nor for a bulk.
    expect(
      unnamed({ ...line, ...named, positions: [samplePosition("CX1", { kind: "film", netId: "net-bulk" })] }),
    ).toEqual(["CX1"]);
    expect(unnamed(named)).toEqual(["C1", "C2"]);
  });
});

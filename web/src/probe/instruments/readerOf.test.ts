import type { InstrumentState } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { readerOf } from "./useLive";

const meter = (name: string, isSimulated: boolean, kind: InstrumentState["kind"] = "multimeter"): InstrumentState => ({
  ...{ id: name, name, kind, isSimulated, status: "ready", trouble: null, identity: null, reading: null, settings: {} },
});
const [simulated, real] = [meter("simulated", true), meter("real", false)];

describe("who reads", () => {
  it("is never a simulated instrument on a customer's unit", () => {
    expect(readerOf([simulated], "multimeter", false)).toBeUndefined();
    expect(readerOf([simulated, real], "multimeter", false)).toBe(real);
  });
  it("is a simulated one where that may be, behind a real one", () => {
    expect(readerOf([simulated], "multimeter", true)).toBe(simulated);
    expect(readerOf([simulated, real], "multimeter", true)).toBe(real);
    expect(readerOf([real], "lcr", true)).toBeUndefined();
  });
});

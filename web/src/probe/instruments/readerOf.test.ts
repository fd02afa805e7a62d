import type { InstrumentState } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { readerOf } from "./useLive";

const meter = (
  name: string,
  isSimulated: boolean,
  kind: InstrumentState["kind"] = "multimeter",
  benchId = "here",
): InstrumentState => ({
  ...{
    id: name,
    name,
    kind,
    isSimulated,
    benchId,
    runId: null,
    status: "ready",
    trouble: null,
    identity: null,
    reading: null,
    settings: {},
  },
});
const [simulated, real] = [meter("simulated", true), meter("real", false)];

describe("who reads", () => {
  it("is never a simulated instrument on a customer's unit", () => {
    expect(readerOf([simulated], "multimeter", false, "here")).toBeUndefined();
    expect(readerOf([simulated, real], "multimeter", false, "here")).toBe(real);
  });
  it("is a simulated one where that may be, behind a real one", () => {
    expect(readerOf([simulated], "multimeter", true, "here")).toBe(simulated);
    expect(readerOf([simulated, real], "multimeter", true, "here")).toBe(real);
    expect(readerOf([real], "lcr", true, null)).toBeUndefined();
  });
  it("stands on the bench of the page", () => {
    const other = meter("other", false, "multimeter", "there");
    expect(readerOf([other, simulated], "multimeter", true, "here")).toBe(simulated);
    expect(readerOf([other, simulated], "multimeter", true, "there")).toBe(other);
    expect(readerOf([other], "multimeter", true, null)).toBeUndefined();
  });
});

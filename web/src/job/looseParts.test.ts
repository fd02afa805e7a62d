import { sampleDetail } from "@pale-cap/contract/testing";
import { samplePart, samplePosition } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { probedPart } from "./looseParts";

const tick = {
  ...{ positionId: "at-C1", step: "removed" as const, isDone: true, at: "2026-11-23T11:00:00Z" },
  ...{ sequence: 1, clockId: null, receivedAt: null, clockAheadSeconds: null },
};
const old = samplePart("C1");
const inHand = samplePart("C1", { id: "ready", origin: "replacement", fittedAt: null });
const probed = (parts: readonly (typeof old)[], ticks: readonly (typeof tick)[], isNewPart?: boolean) => {
  const detail = sampleDetail({ positions: [samplePosition("C1")], fittedParts: [...parts], ticks: [...ticks] });
  const { part, where } = probedPart(detail, { kind: "part", id: "at-C1", ...(isNewPart && { isNewPart }) });
  return [part?.id, where];
};

describe("the part between the probes", () => {
  it("is the one in its place; once that is out, the one that lies beside it", () => {
    expect(probed([old, inHand], [])).toEqual(["part-C1", "in_place"]);
    const out = samplePart("C1", { removedAt: "2026-11-23T11:00:00Z" });
    expect(probed([out, inHand], [tick])).toEqual(["part-C1", "beside"]);
    const fitted = samplePart("C1", { id: "ready", origin: "replacement", fittedAt: "2026-11-23T11:10:00Z" });
    expect(probed([out, fitted], [tick])).toEqual(["ready", "in_place"]);
  });
  it("is the new one where that is aimed at, and none of a rail", () => {
    expect(probed([old, inHand], [], true)).toEqual(["ready", "in_hand"]);
    expect(probed([old], [], true)).toEqual([undefined, "in_hand"]);
    const detail = sampleDetail({});
    expect(probedPart(detail, { kind: "rail", id: "net-12" })).toEqual({ part: undefined, where: "in_place" });
  });
});

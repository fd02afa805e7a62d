import type { BoardDetail } from "@pale-cap/contract";
import { samplePart, samplePosition } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { alignedParts, duplicatedParts, movedParts, spacedParts, turnedParts } from "./arrangement";

const at = (designator: string, xMetres: number | null, yMetres: number | null) => ({
  ...samplePosition(designator, { xMetres, yMetres }),
  version: 1,
});
const detail = {
  board: { widthMetres: 0.1, depthMetres: 0.05 },
  positions: [at("C1", 0.02, 0.02), at("C2", 0.03, 0.024), at("C3", 0.08, 0.02), at("C9", null, null)],
  fittedParts: ["C1", "C2", "C3", "C9"].map((one) => ({ ...samplePart(one), version: 1 })),
} as unknown as BoardDetail;
const ids = (...designators: string[]) => new Set(designators.map((one) => `at-${one}`));
const places = (changes: ReturnType<typeof movedParts>) =>
  changes.map((change) => {
    const { designator, xMetres, yMetres } = change.values as { designator: string; xMetres: number; yMetres: number };
    return [designator, xMetres, yMetres];
  });

describe("arranging", () => {
  it("moves marked parts together and never off the board", () => {
    expect(places(movedParts(detail, ids("C1", "C3"), [0.05, -0.03]))).toEqual([
      ["C1", 0.07, 0],
      ["C3", 0.1, 0],
    ]);
  });
  it("gives a part from the tray the place where it was let go", () => {
    const held = { id: "at-C9", fromMetres: [0.01, 0.06] } as const;
    expect(places(movedParts(detail, ids("C9"), [0.02, -0.03], held))).toEqual([["C9", 0.03, 0.03]]);
    expect(movedParts(detail, ids("C9"), [0.02, 0])).toEqual([]);
  });
  it("puts parts in a row with the first, and at equal steps between the outer ones", () => {
    expect(places(alignedParts(detail, ids("C1", "C2", "C3"), "row"))[0]).toEqual(["C2", 0.03, 0.02]);
    expect(places(alignedParts(detail, ids("C1", "C2"), "column"))).toEqual([["C2", 0.02, 0.024]]);
    expect(places(spacedParts(detail, ids("C1", "C2", "C3")))[1]).toEqual(["C2", 0.05, 0.024]);
    expect(spacedParts(detail, ids("C1", "C2"))).toEqual([]);
  });
  it("turns stripe and board mark together where they agree, the stripe alone where they do not", () => {
    expect(turnedParts(detail, ids("C1"))).toMatchObject([
      { table: "fittedPart", values: { stripeDegrees: 180 } },
      { table: "position", values: { boardNegativeDegrees: 180 } },
    ]);
    const odd = { ...detail, positions: [{ ...at("C1", 0, 0), boardNegativeDegrees: 0 }] } as unknown as BoardDetail;
    expect(turnedParts(odd, ids("C1"))).toHaveLength(1);
  });
  it("copies a row below with new designators and the same marking", () => {
    const changes = duplicatedParts(detail, ids("C1", "C2"));
    const positions = changes.filter((one) => one.table === "position");
    expect(places(positions)).toEqual([
      ["C10", 0.02, 0.032],
      ["C11", 0.03, 0.036],
    ]);
    expect(changes.filter((one) => one.table === "fittedPart")).toHaveLength(2);
  });
});

import type { Board, FittedPartRow, Position } from "@pale-cap/contract";
import { samplePart, samplePosition } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { layOut, stripePath } from "./boardGeometry";

const board: Board = {
  id: "b",
  version: 1,
  place: 1,
  name: null,
  widthMetres: 0.1,
  depthMetres: 0.06,
  barrierMetres: null,
  lidHeightMetres: null,
  outline: null,
  lidZones: [],
  underlay: null,
};
const at = (designator: string, more: object = {}) => samplePosition(designator, more) as unknown as Position;
const part = (designator: string, more: object = {}) => samplePart(designator, more) as unknown as FittedPartRow;

describe("layOut", () => {
  it("draws placed cans where they are, to scale", () => {
    const { cans, heightMetres } = layOut(board, [at("C1")], [part("C1")]);
    expect(cans[0]).toMatchObject({ xMetres: 0.02, yMetres: 0.02, diameterMetres: 0.01, isPlaced: true });
    expect(heightMetres).toBe(0.06);
  });
  it("stands cans without a place in a row under the board, none over another", () => {
    const loose = ["C1", "C2", "C3"].map((name) => at(name, { xMetres: null, yMetres: null }));
    const { cans, heightMetres } = layOut(board, loose, [
      part("C1"),
      part("C2", { diameterMetres: 0.018 }),
      part("C3"),
    ]);
    expect(heightMetres).toBeGreaterThan(0.06 + 0.018);
    for (const [i, can] of cans.entries()) {
      expect(can.isPlaced).toBe(false);
      expect(can.yMetres - can.diameterMetres / 2).toBeGreaterThan(0.06);
      const next = cans[i + 1];
      if (next) expect(next.xMetres - can.xMetres).toBeGreaterThan((next.diameterMetres + can.diameterMetres) / 2);
    }
  });
  it("breaks the row where the board ends", () => {
    const loose = Array.from({ length: 9 }, (_, n) => at(`C${n}`, { xMetres: null, yMetres: null }));
    const { cans, heightMetres } = layOut(board, loose, []);
    expect(cans.every((can) => can.xMetres + can.diameterMetres / 2 <= board.widthMetres)).toBe(true);
    expect(new Set(cans.map((can) => can.yMetres.toFixed(6))).size).toBe(2);
    expect(heightMetres).toBeGreaterThan(Math.max(...cans.map((can) => can.yMetres)));
  });
  it("draws the part that sits there now, else the one that was found, else a guess", () => {
    const old = part("C1", { removedAt: "2026-11-23T10:00:00Z" });
    const fresh = part("C1", { id: "fresh", origin: "replacement", diameterMetres: 0.0125 });
    expect(layOut(board, [at("C1")], [old, fresh]).cans[0]?.diameterMetres).toBe(0.0125);
    expect(layOut(board, [at("C1")], [old]).cans[0]?.part?.id).toBe("part-C1");
    expect(layOut(board, [at("C1")], []).cans[0]?.diameterMetres).toBeGreaterThan(0);
  });
  it("keeps other parts apart as outlines and leaves out those without a place", () => {
    const { cans, outlines } = layOut(
      board,
      [at("F1", { kind: "fuse" }), at("T1", { kind: "transformer", xMetres: null })],
      [],
    );
    expect(cans).toEqual([]);
    expect(outlines.map((one) => one.designator)).toEqual(["F1"]);
  });
});

describe("stripePath", () => {
  it.each([
    [0, [1, 0]],
    [90, [0, 1]],
    [180, [-1, 0]],
    [270, [0, -1]],
  ] as const)("lies on the side that %s degrees point to", (degrees, [x, y]) => {
    const numbers =
      stripePath(10, degrees)
        .match(/-?\d+(\.\d+)?/g)
        ?.map(Number) ?? [];
    const [x0 = 0, y0 = 0] = numbers;
    const [x1 = 0, y1 = 0] = numbers.slice(-2);
    const middle = [(x0 + x1) / 2, (y0 + y1) / 2];
    expect(Math.sign(Math.round(middle[0] as number))).toBe(x);
    expect(Math.sign(Math.round(middle[1] as number))).toBe(y);
  });
});

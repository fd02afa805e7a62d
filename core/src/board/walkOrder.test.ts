import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import { samplePosition } from "../../testing/sampleJob";
import { walkOrder } from "./walkOrder";

const at = (name: string, xMetres: number | null, yMetres: number | null) => samplePosition(name, { xMetres, yMetres });
const spots = fc.array(fc.tuple(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 150 })), { maxLength: 25 });

describe("walkOrder", () => {
  it("goes along the row and back along the next, not to and fro", () => {
    const board = [at("A", 0.01, 0), at("B", 0.09, 0.06), at("C", 0.05, 0), at("D", 0.01, 0.06), at("E", 0.09, 0)];
    expect(walkOrder(board)).toEqual(["at-A", "at-C", "at-E", "at-B", "at-D"]);
  });
  it("keeps parts without a place for the end", () => {
    expect(walkOrder([at("X", null, null), at("A", 0.05, 0.05)])).toEqual(["at-A", "at-X"]);
  });
  test.prop([spots])("visits each part once", (places) => {
    const board = places.map(([x, y], index) => at(`P${index}`, x / 1e3, y / 1e3));
    expect([...walkOrder(board)].sort()).toEqual(board.map((one) => one.id).sort());
  });
  it("untangles a crossing that always taking the nearest part walks into", () => {
    // Nearest first goes right along the middle and has to come all the way back for the one it left behind.
    const board = [
      at("A", 0, 0),
      at("B", 0.02, 0.001),
      at("C", 0.041, 0),
      at("D", 0.063, 0.001),
      at("Z", 0.011, 0.018),
    ];
    const order = walkOrder(board);
    expect(order[0]).toBe("at-A");
    expect(order.indexOf("at-Z")).toBeLessThan(4);
  });
});

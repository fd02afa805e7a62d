import { parsePartEntry } from "@pale-cap/core";
import { describe, expect, it } from "vitest";
import { chooseNet, entryChanges, netBook } from "./entryChanges";

const net = (id: string, name: string, section: "output" | "bulk") => ({
  id,
  boardId: "board-1",
  version: 1,
  name,
  section,
  nominalVolts: null,
  fullLoadAmps: null,
  toleranceRatio: null,
  rippleLimitVolts: null,
  network: null,
  converter: null,
});
const entry = (line: string) => parsePartEntry(line).entry;
const board = [net("a", "12 V", "output"), net("b", "5 V", "output"), net("c", "Bulk", "bulk")];

describe("chooseNet", () => {
  it("takes the only rail of a section, or the one that is named however it is spelled", () => {
    expect(chooseNet(entry("C1 bulk"), netBook(board))[0].netId).toBe("c");
    expect(chooseNet(entry("C1 :12v"), netBook(board))[0].netId).toBe("a");
    expect(chooseNet(entry("C1"), netBook(board))[0]).toMatchObject({ netId: null, question: null });
  });
  it("asks back where a section has two rails", () => {
    expect(chooseNet(entry("C1 out"), netBook(board))[0].question).toEqual(["12 V", "5 V"]);
  });
  it("makes a rail once for all lines of a batch, with the volts of its name", () => {
    const [first, book] = chooseNet(entry('C1 :"-15 V"'), netBook(board));
    const [second, after] = chooseNet(entry("C2 :-15V"), book);
    expect(second.netId).toBe(first.netId);
    expect(after.changes).toMatchObject([{ operation: "insert", values: { name: "-15 V", nominalVolts: -15 } }]);
  });
});

describe("entryChanges", () => {
  it("stands a range side by side, each with a part of its own", () => {
    const { changes, positionIds } = entryChanges(entry("C3-C5 470u 16v 8x12 @10/20"), "a");
    expect(positionIds).toHaveLength(3);
    const positions = changes.filter((one) => one.table === "position");
    expect(positions.map((one) => (one.values as { xMetres: number }).xMetres)).toEqual([0.01, 0.02, 0.03]);
    expect(changes.filter((one) => one.table === "fittedPart")).toHaveLength(3);
  });
  it("draws what is no capacitor as an outline without a part in it", () => {
    expect(entryChanges(entry("BR1 15x10 @5/5"), null).changes).toMatchObject([
      { table: "position", values: { kind: "bridge", outlineWidthMetres: 0.015, outlineDepthMetres: 0.01 } },
    ]);
  });
});

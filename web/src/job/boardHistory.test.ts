import type { BoardChange, JobDetail } from "@pale-cap/contract";
import { sampleNet, samplePart, samplePosition } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import { atLatest, boardHistory, inverseOf } from "./boardHistory";

const position = (version: number, more: object = {}) => ({ ...samplePosition("C1"), version, ...more });
const rows = (more: object = {}) =>
  ({
    board: { id: "b", version: 1 },
    nets: [{ ...sampleNet(), version: 1 }],
    positions: [position(1)],
    fittedParts: [{ ...samplePart("C1"), version: 1 }],
    ...more,
  }) as unknown as JobDetail;
const values = (xMetres: number) => {
  const { id: _, ...rest } = samplePosition("C1");
  return { ...rest, xMetres };
};
const move = (xMetres: number): BoardChange => ({
  table: "position",
  operation: "update",
  id: "at-C1",
  version: 1,
  values: values(xMetres),
});
const insert = (id: string) =>
  ({ table: "position", operation: "insert", id, version: null, values: values(0.1) }) as const;

describe("inverseOf", () => {
  it("puts back what stood before", () => {
    const inverse = inverseOf([move(0.05)], rows(), rows({ positions: [position(2, { xMetres: 0.05 })] }));
    expect(inverse?.changes).toMatchObject([{ operation: "update", version: 2, values: { xMetres: 0.02 } }]);
  });
  it("deletes what was inserted and restores what was deleted, last first", () => {
    const after = rows({ positions: [position(1, { id: "new" })] });
    const gone = { table: "position", operation: "delete", id: "at-C1", version: 1, values: null } as const;
    expect(inverseOf([gone, insert("new")], rows(), after)?.changes).toEqual([
      { table: "position", operation: "delete", id: "new", version: 1, values: null },
      { table: "position", operation: "restore", id: "at-C1", version: 2, values: null },
    ]);
  });
  it("lets a part leave with its new place, and knows no way back for one in an old place", () => {
    const part = (positionId: string): BoardChange => {
      const { id: _, origin: __, fittedAt: ___, removedAt: ____, ...rest } = samplePart("C1");
      return { table: "fittedPart", operation: "insert", id: "p", version: null, values: { ...rest, positionId } };
    };
    const after = rows({ positions: [position(1), position(1, { id: "new" })] });
    expect(inverseOf([insert("new"), part("new")], rows(), after)?.changes).toHaveLength(1);
    expect(inverseOf([part("at-C1")], rows(), after)).toBeNull();
  });
});

describe("atLatest", () => {
  const inverse = inverseOf([move(0.05)], rows(), rows({ positions: [position(2, { xMetres: 0.05 })] }));
  it("follows a row that still says what was written, and leaves another's change to be refused", () => {
    const ours = rows({ positions: [position(7, { xMetres: 0.05 })] });
    const theirs = rows({ positions: [position(7, { xMetres: 0.09 })] });
    expect(inverse && atLatest(inverse, ours)[0]?.version).toBe(7);
    expect(inverse && atLatest(inverse, theirs)[0]?.version).toBe(2);
  });
});

describe("boardHistory", () => {
  it("forgets what was undone as soon as something new is made", () => {
    const step = { changes: [], written: {} };
    boardHistory.made("job", step);
    boardHistory.undone("job", step);
    expect(boardHistory.of("job")).toMatchObject({ undo: [], redo: [step] });
    boardHistory.made("job", step);
    expect(boardHistory.of("job")).toMatchObject({ undo: [step], redo: [] });
  });
});

import { describe, expect, it } from "vitest";
import { sampleNet, samplePart, samplePosition } from "../../testing/sampleJob";
import { type BoardTypeContent, boardDifferences, type PlaceHere, type TypePart } from "./boardType";

function marking(more: Partial<TypePart> = {}): TypePart {
  const { id, positionId, origin, fittedAt, removedAt, ...rest } = samplePart("C1");
  return { ...rest, ...more };
}
const typePosition = (designator: string, more: object = {}) => {
  const { id, netId, ...rest } = samplePosition(designator);
  return { ...rest, lineageId: `line-${designator}`, netLineageId: "line-12", part: marking(), ...more };
};
const { id: _, ...net } = sampleNet();
const type: BoardTypeContent = {
  board: {
    name: "Halden",
    widthMetres: 0.15,
    depthMetres: 0.1,
    barrierMetres: null,
    lidHeightMetres: null,
    outline: null,
    lidZones: [],
  },
  nets: [{ ...net, lineageId: "line-12" }],
  positions: [typePosition("C1"), typePosition("C2")],
};
const place = (designator: string, more: Partial<PlaceHere> = {}): PlaceHere => ({
  lineageId: `line-${designator}`,
  designator,
  kind: "electrolytic",
  netName: "12 V",
  part: marking(),
  ...more,
});

describe("boardDifferences", () => {
  it("finds none on a faithful copy", () => {
    expect(boardDifferences(type, [place("C1"), place("C2")])).toEqual([]);
  });
  it("names what is missing, what is new, and which field differs", () => {
    const here = [place("C2", { part: marking({ ratedVolts: 25 }), netName: "5 V" }), place("C9")];
    expect(boardDifferences(type, here)).toEqual([
      { code: "missing_here", designator: "C1", fields: [] },
      {
        code: "differs",
        designator: "C2",
        fields: [
          { field: "net", onType: "12 V", here: "5 V" },
          { field: "ratedVolts", onType: 16, here: 25 },
        ],
      },
      { code: "only_here", designator: "C9", fields: [] },
    ]);
  });
  it("knows a place by its lineage though it was renamed, and by its name though it was entered anew", () => {
    const renamed = place("C11", { lineageId: "line-C1" });
    const anew = place("c2", { lineageId: "other" });
    expect(boardDifferences(type, [renamed, anew]).map((one) => one.fields.map((field) => field.field))).toEqual([
      ["designator"],
      ["designator"],
    ]);
  });
  it("takes what nobody knows for no difference", () => {
    const bare = place("C1", { netName: null, part: null });
    expect(boardDifferences(type, [bare, place("C2")])).toEqual([]);
  });
});

import { type BoardChange, type BoardDetail, editableValues, type Position } from "@pale-cap/contract";
import { foundPart } from "@pale-cap/core";
import { newId } from "../../api/newId";
import { positionUpdate } from "../../job/positionUpdate";
import { foundPartUpdate } from "./capacitorDraft";

type Placed = Position & { readonly xMetres: number; readonly yMetres: number };

function placed({ positions }: BoardDetail, ids: ReadonlySet<string>): readonly Placed[] {
  return positions.filter((one): one is Placed => ids.has(one.id) && one.xMetres !== null && one.yMetres !== null);
}

/** A place on the board, to a hundredth of a millimetre: nothing is placed finer by hand. */
const onBoard = (metres: number, most: number) => Math.min(Math.max(Math.round(metres * 1e5) / 1e5, 0), most);

const place = (detail: BoardDetail, id: string, xMetres: number, yMetres: number): BoardChange[] =>
  positionUpdate(detail, id, {
    xMetres: onBoard(xMetres, detail.board.widthMetres),
    yMetres: onBoard(yMetres, detail.board.depthMetres),
  }) ?? [];

/** Parts moved together; `held`, where it has no place yet, starts from where it was drawn. */
export function movedParts(
  detail: BoardDetail,
  ids: ReadonlySet<string>,
  [dx, dy]: readonly [number, number],
  held?: { readonly id: string; readonly fromMetres: readonly [number, number] },
): BoardChange[] {
  const all = placed(detail, ids);
  const isLoose = held !== undefined && !all.some((one) => one.id === held.id);
  return [
    ...all.flatMap((one) => place(detail, one.id, one.xMetres + dx, one.yMetres + dy)),
    ...(isLoose ? place(detail, held.id, held.fromMetres[0] + dx, held.fromMetres[1] + dy) : []),
  ];
}

/** All on the middle line of the first one, in a row or in a column. */
export function alignedParts(detail: BoardDetail, ids: ReadonlySet<string>, axis: "row" | "column"): BoardChange[] {
  const parts = placed(detail, ids);
  const [first] = parts;
  if (!first) return [];
  return parts
    .slice(1)
    .flatMap((one) =>
      axis === "row"
        ? place(detail, one.id, one.xMetres, first.yMetres)
        : place(detail, one.id, first.xMetres, one.yMetres),
    );
}

/** Equal steps between the two outer ones, along the longer way. */
export function spacedParts(detail: BoardDetail, ids: ReadonlySet<string>): BoardChange[] {
  const parts = placed(detail, ids);
  const span = (key: "xMetres" | "yMetres") =>
    Math.max(...parts.map((one) => one[key])) - Math.min(...parts.map((one) => one[key]));
  if (parts.length < 3) return [];
  const key = span("xMetres") >= span("yMetres") ? "xMetres" : "yMetres";
  const sorted = [...parts].sort((a, b) => a[key] - b[key]);
  const start = sorted[0]?.[key] ?? 0;
  const step = span(key) / (sorted.length - 1);
  return sorted.flatMap((one, index) =>
    key === "xMetres"
      ? place(detail, one.id, start + index * step, one.yMetres)
      : place(detail, one.id, one.xMetres, start + index * step),
  );
}

/** The stripe a quarter further, and the board's mark with it where both said the same. */
export function turnedParts(detail: BoardDetail, ids: ReadonlySet<string>): BoardChange[] {
  return detail.positions
    .filter((one) => ids.has(one.id))
    .flatMap((position) => {
      const stripe = foundPart(detail.fittedParts, position.id)?.stripeDegrees ?? null;
      const next = ((stripe ?? position.boardNegativeDegrees ?? 0) + 90) % 360;
      const follows = position.boardNegativeDegrees === stripe;
      return [
        ...(foundPartUpdate(detail, position.id, { stripeDegrees: next }) ?? []),
        ...(follows ? (positionUpdate(detail, position.id, { boardNegativeDegrees: next }) ?? []) : []),
      ];
    });
}

const gapMetres = 0.002;

/** The same parts once more, as a row below: new designators, same values, same rails. */
export function duplicatedParts(detail: BoardDetail, ids: ReadonlySet<string>): BoardChange[] {
  const originals = detail.positions.filter((one) => ids.has(one.id));
  const next = designatorsAfter(detail.positions);
  const deepest = Math.max(
    0.008,
    ...originals.map((one) => one.outlineDepthMetres ?? foundPart(detail.fittedParts, one.id)?.diameterMetres ?? 0.008),
  );
  return originals.flatMap((original): BoardChange[] => {
    const { id } = original;
    const values = editableValues("position", original);
    const positionId = newId();
    const yMetres =
      values.yMetres === null ? null : onBoard(values.yMetres + deepest + gapMetres, detail.board.depthMetres);
    const position: BoardChange = {
      table: "position",
      operation: "insert",
      id: positionId,
      version: null,
      values: { ...values, designator: next(original.designator), yMetres },
    };
    const part = foundPart(detail.fittedParts, id);
    if (!part) return [position];
    const copy: BoardChange = {
      table: "fittedPart",
      operation: "insert",
      id: newId(),
      version: null,
      values: { ...editableValues("fittedPart", part), positionId },
    };
    return [position, copy];
  });
}

/** Numbers on from the highest of the same letters. */
function designatorsAfter(positions: readonly Position[]): (designator: string) => string {
  const highest = new Map<string, number>();
  const split = (designator: string) => /^(.*?)(\d*)$/.exec(designator.toUpperCase());
  for (const { designator } of positions) {
    const [, letters = "", digits = "0"] = split(designator) ?? [];
    highest.set(letters, Math.max(highest.get(letters) ?? 0, Number(digits)));
  }
  return (designator) => {
    const letters = split(designator)?.[1] ?? "";
    const number = (highest.get(letters) ?? 0) + 1;
    highest.set(letters, number);
    return `${letters}${number}`;
  };
}

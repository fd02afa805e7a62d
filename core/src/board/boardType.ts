import type { CapacitorClass } from "../capacitors/capacitorClass";
import type { BoardNet, BoardPosition, FittedPart, LidZone, Point } from "./board";

/** A net or place of a board type, with the lineage that its copies on boards keep. */
export type TypeNet = Omit<BoardNet, "id"> & { readonly lineageId: string };
export type TypePosition = Omit<BoardPosition, "id" | "netId"> & {
  readonly lineageId: string;
  readonly netLineageId: string | null;
  readonly part: TypePart | null;
};
/** What a type's part says of itself. */
export type TypePart = Omit<FittedPart, "id" | "positionId" | "origin" | "source" | "fittedAt" | "removedAt">;

/** A board as it is kept for the next unit of the kind. */
export interface BoardTypeContent {
  readonly board: {
    readonly name: string | null;
    readonly widthMetres: number;
    readonly depthMetres: number;
    readonly barrierMetres: number | null;
    readonly lidHeightMetres: number | null;
    readonly outline: Point[] | null;
    readonly lidZones: LidZone[];
  };
  readonly nets: readonly TypeNet[];
  readonly positions: readonly TypePosition[];
}

export type DifferenceCode = "missing_here" | "only_here" | "differs";

/** What is other on a unit than on its board type. */
export interface BoardDifference {
  readonly code: DifferenceCode;
  readonly designator: string;
  /** With `differs`: the fields, each with what the type says and what stands here. */
  readonly fields: readonly DifferentField[];
}

export interface DifferentField {
  readonly field: "designator" | "kind" | "net" | keyof TypePart;
  readonly onType: number | string | boolean | null;
  readonly here: number | string | boolean | null;
}

/** One place of a board at hand. */
export interface PlaceHere {
  readonly lineageId: string;
  readonly designator: string;
  readonly kind: string;
  readonly netName: string | null;
  readonly part: TypePart | null;
}

const comparedFields: readonly (keyof TypePart)[] = [
  "capacitanceFarads",
  "ratedVolts",
  "temperatureClassCelsius",
  "capacitorClass",
  "diameterMetres",
  "heightMetres",
  "stripeDegrees",
  "series",
];

/**
 * What differs on a unit from its board type: places that are not there, places that only it has, and other kinds, rails
 * or markings. Places are the same by lineage, else by designator. A field that either side does not know is no
 * difference: unknown is a normal value.
 */
export function boardDifferences(type: BoardTypeContent, here: readonly PlaceHere[]): readonly BoardDifference[] {
  const taken = new Set<string>();
  const netName = (lineageId: string | null) => type.nets.find((net) => net.lineageId === lineageId)?.name ?? null;
  const found = type.positions.map((position): BoardDifference | null => {
    const place =
      here.find((one) => one.lineageId === position.lineageId) ??
      here.find((one) => one.designator.toUpperCase() === position.designator.toUpperCase());
    if (!place) return { code: "missing_here", designator: position.designator, fields: [] };
    taken.add(place.lineageId);
    const fields = [
      field("designator", position.designator, place.designator),
      field("kind", position.kind, place.kind),
      field("net", netName(position.netLineageId), place.netName),
      ...comparedFields.map((key) => field(key, position.part?.[key] ?? null, place.part?.[key] ?? null)),
    ].filter((one) => one !== null);
    return fields.length > 0 ? { code: "differs", designator: place.designator, fields } : null;
  });
  const extra = here
    .filter((one) => !taken.has(one.lineageId))
    .map((one): BoardDifference => ({ code: "only_here", designator: one.designator, fields: [] }));
  return [...found.filter((one) => one !== null), ...extra].sort((a, b) =>
    a.designator.localeCompare(b.designator, "en", { numeric: true }),
  );
}

type Value = number | string | boolean | CapacitorClass | null;

function field(name: DifferentField["field"], onType: Value, here: Value): DifferentField | null {
  if (onType === null || here === null || onType === here) return null;
  // Sizes and values come through decimal text: a difference in the ninth digit is none.
  const isSame =
    typeof onType === "number" && typeof here === "number" && Math.abs(onType - here) <= 1e-9 * Math.abs(onType);
  return isSame ? null : { field: name, onType, here };
}

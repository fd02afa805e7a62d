import {
  type BankArrangement,
  bankArrangements,
  type CapacitorClass,
  capacitorClasses,
  type Fixing,
  fixings,
  type OutputConverter,
  outputConverters,
  type PartKind,
  type PartSource,
  type PolarityMark,
  partKinds,
  polarityMarks,
  type Section,
  sections,
} from "@pale-cap/core";
import type { InferType } from "yup";
import { fault } from "../faults";
import {
  array,
  boolean,
  finiteNumber,
  idField,
  mixed,
  nullableBetween,
  nullableId,
  nullablePositive,
  nullableText,
  nullableWord,
  number,
  strictObject,
  textField,
  tuple,
  wordField,
} from "../fields/fields";

/** Limits that refuse a slip of unit: a 1 F can or a 2 kV rating is none of this trade. */
export const boardLimits = {
  capacitanceFarads: 1,
  ratedVolts: 1000,
  lengthMetres: 0.2,
  boardMetres: 1,
  railVolts: 1000,
  railAmps: 200,
} as const;

/** What stands on a capacitor whose value and volts are known. */
export const markingFields = () => ({
  capacitanceFarads: nullablePositive(boardLimits.capacitanceFarads).nonNullable().required(),
  ratedVolts: nullablePositive(boardLimits.ratedVolts).nonNullable().required(),
  temperatureClassCelsius: nullableBetween(40, 200),
  capacitorClass: nullableWord<CapacitorClass>(capacitorClasses),
  diameterMetres: nullablePositive(boardLimits.lengthMetres),
  heightMetres: nullablePositive(boardLimits.lengthMetres),
  series: nullableText(40),
});

const pointSchema = () => tuple([finiteNumber().required(), finiteNumber().required()]);

const boardSchema = strictObject({
  name: nullableText(80),
  widthMetres: finiteNumber().moreThan(0).max(boardLimits.boardMetres).required(),
  depthMetres: finiteNumber().moreThan(0).max(boardLimits.boardMetres).required(),
  barrierMetres: nullableBetween(0, boardLimits.boardMetres),
  lidHeightMetres: nullablePositive(boardLimits.lengthMetres),
  /** Corners of an outline that is no rectangle, within width and depth. */
  outline: array().of(pointSchema().required()).min(3).max(60).nullable().defined(),
  lidZones: array()
    .of(
      strictObject({
        xMetres: finiteNumber().min(0).max(boardLimits.boardMetres).required(),
        yMetres: finiteNumber().min(0).max(boardLimits.boardMetres).required(),
        widthMetres: finiteNumber().moreThan(0).max(boardLimits.boardMetres).required(),
        depthMetres: finiteNumber().moreThan(0).max(boardLimits.boardMetres).required(),
        heightMetres: finiteNumber().moreThan(0).max(boardLimits.lengthMetres).required(),
      }).required(),
    )
    .max(12)
    .required(),
  /** A photo beneath the drawing: two of its points, where they lie on the board, in metres. */
  underlay: strictObject({
    photoId: idField(),
    fromPixels: pointSchema().required(),
    toPixels: pointSchema().required(),
    fromMetres: pointSchema().required(),
    toMetres: pointSchema().required(),
  })
    .nullable()
    .default(undefined)
    .defined(),
});
export type BoardValues = InferType<typeof boardSchema>;

const netSchema = strictObject({
  name: textField(40),
  section: wordField<Section>(sections),
  nominalVolts: nullableBetween(-boardLimits.railVolts, boardLimits.railVolts),
  fullLoadAmps: nullablePositive(boardLimits.railAmps),
  toleranceRatio: nullablePositive(0.5),
  rippleLimitVolts: nullablePositive(50),
  /** How its capacitors hang together, and across what from another rail. */
  network: strictObject({
    arrangement: wordField<BankArrangement>(bankArrangements),
    behindNetId: nullableId(),
    chokeHenrys: nullablePositive(1),
    chokeOhms: nullablePositive(1000),
  })
    .nullable()
    .default(undefined)
    .defined(),
  /** What is known of the converter that feeds it; the rest is assumed and told. */
  converter: strictObject({
    kind: wordField<OutputConverter>(outputConverters),
    switchingHertz: nullableBetween(100, 10e6),
    dutyRatio: nullableBetween(0.001, 0.999),
    rippleRatio: nullableBetween(0, 2),
    inductanceHenrys: nullablePositive(1),
    inputVolts: nullablePositive(1000),
    riseSeconds: nullableBetween(0, 1e-3),
    loadFarads: nullablePositive(boardLimits.capacitanceFarads),
    /** Which rail of this unit it draws from; absent in what was stored before it was asked. */
    fedFromNetId: nullableId().optional(),
    isSensed: boolean().nullable().optional(),
  })
    .nullable()
    .default(undefined)
    .defined(),
  leastLoadAmps: nullablePositive(boardLimits.railAmps).optional(),
  isCurrentOutput: boolean().nullable().optional(),
});
export type NetValues = InferType<typeof netSchema>;

const positionSchema = strictObject({
  designator: textField(12),
  kind: wordField<PartKind>(partKinds),
  netId: nullableId(),
  xMetres: nullableBetween(0, boardLimits.boardMetres),
  yMetres: nullableBetween(0, boardLimits.boardMetres),
  outlineWidthMetres: nullablePositive(boardLimits.lengthMetres),
  outlineDepthMetres: nullablePositive(boardLimits.lengthMetres),
  outlineHeightMetres: nullablePositive(boardLimits.lengthMetres),
  markedOhms: nullablePositive(100e6),
  pitchMetres: nullablePositive(0.05),
  polarityMark: nullableWord<PolarityMark>(polarityMarks),
  boardNegativeDegrees: nullableBetween(0, 359.999),
  fixing: nullableWord<Fixing>(fixings),
  heatSource: nullableText(40),
  /** Whatever a person noted of the part or its place. */
  note: nullableText(200).optional(),
});
export type PositionValues = InferType<typeof positionSchema>;

const fittedPartSchema = strictObject({
  positionId: idField(),
  capacitanceFarads: nullablePositive(boardLimits.capacitanceFarads),
  ratedVolts: nullablePositive(boardLimits.ratedVolts),
  temperatureClassCelsius: nullableBetween(40, 200),
  capacitorClass: nullableWord<CapacitorClass>(capacitorClasses),
  diameterMetres: nullablePositive(boardLimits.lengthMetres),
  heightMetres: nullablePositive(boardLimits.lengthMetres),
  stripeDegrees: nullableBetween(0, 359.999),
  isNonPolar: boolean().optional(),
  datasheetEsrOhms: nullablePositive(1000),
  toleranceRatio: nullablePositive(1),
  series: nullableText(40),
});
export type FittedPartValues = InferType<typeof fittedPartSchema>;

const boardTables = ["board", "net", "position", "fittedPart"] as const;
export type BoardTable = (typeof boardTables)[number];

const valuesOf = {
  board: boardSchema,
  net: netSchema,
  position: positionSchema,
  fittedPart: fittedPartSchema,
} as const;

/** A word that is no table is refused at its own field; until then its values are held against the board's. */
const valuesOfTable = (table: unknown) =>
  typeof table === "string" && Object.hasOwn(valuesOf, table) ? valuesOf[table as BoardTable] : boardSchema;

/** One row of an edit: inserted, updated from a version, deleted or restored from a version. */
const boardChangeSchema = strictObject({
  table: wordField<BoardTable>(boardTables),
  operation: wordField(["insert", "update", "delete", "restore"] as const),
  id: idField(),
  version: number()
    .integer()
    .min(1)
    .nullable()
    .defined()
    .when("operation", ([operation], schema) =>
      operation === "insert" ? schema : schema.nonNullable(fault("needed")),
    ),
  values: mixed()
    .nullable()
    .when(["table", "operation"], ([table, operation]) =>
      operation === "insert" || operation === "update"
        ? valuesOfTable(table).required()
        : mixed()
            .nullable()
            .test("none", fault("must_stay_empty"), (value) => value == null),
    ),
});

/** Edits of a board go as one all-or-nothing batch; undo is an inverse batch. */
export const boardEditSchema = strictObject({
  id: idField(),
  /** Where new rails and places go; the first board of the unit where none is said. */
  boardId: nullableId().optional(),
  changes: array().of(boardChangeSchema.required()).min(1).max(400).required(),
});

/** One more board in the unit: the host beside the supply, an inverter. */
export const newBoardSchema = strictObject({ id: idField(), name: textField(80) });
export type NewBoard = InferType<typeof newBoardSchema>;

type Versioned<T> = T & { readonly id: string; readonly version: number };
/** @property place among the boards of the unit, from 1 */
export type Board = Versioned<BoardValues> & { readonly place: number };
export type Net = Versioned<NetValues> & { readonly boardId: string };
export type Position = Versioned<PositionValues> & { readonly boardId: string };
export type FittedPartRow = Versioned<FittedPartValues> & {
  readonly origin: "found" | "replacement";
  readonly cataloguePartId: string | null;
  /** Where a part came from that no catalogue knows. */
  readonly source: PartSource | null;
  /** The heap of a drawer that it came out of. */
  readonly stockItemId?: string | null;
  /** As the catalogue had it when it went in: what was fitted never changes with the catalogue. */
  readonly maker?: string | null;
  readonly orderCode?: string | null;
  readonly priceMinor?: number | null;
  readonly fittedAt: string | null;
  readonly removedAt: string | null;
};

interface EditableValues {
  readonly board: BoardValues;
  readonly net: NetValues;
  readonly position: PositionValues;
  readonly fittedPart: FittedPartValues;
}

/** The fields of a row that an edit may write: what only the server sets is left out. */
export function editableValues<T extends BoardTable>(table: T, row: object): EditableValues[T] {
  const fields = Object.keys(valuesOf[table].fields);
  return Object.fromEntries(Object.entries(row).filter(([name]) => fields.includes(name))) as EditableValues[T];
}

interface ChangeOf<T extends BoardTable, V> {
  readonly table: T;
  readonly id: string;
  readonly operation: "insert" | "update" | "delete" | "restore";
  readonly version: number | null;
  readonly values: V | null;
}

export type BoardChange =
  | ChangeOf<"board", BoardValues>
  | ChangeOf<"net", NetValues>
  | ChangeOf<"position", PositionValues>
  | ChangeOf<"fittedPart", FittedPartValues>;

export interface BoardEdit {
  readonly id: string;
  readonly boardId?: string | null | undefined;
  readonly changes: readonly BoardChange[];
}

/** The rows of every board of a unit, as an edit leaves them. */
export interface BoardRows {
  readonly boards: readonly Board[];
  readonly nets: readonly Net[];
  readonly positions: readonly Position[];
  readonly fittedParts: readonly FittedPartRow[];
}

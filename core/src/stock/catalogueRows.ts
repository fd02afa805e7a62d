import { type CapacitorClass, capacitorClasses } from "../capacitors/capacitorClass";
import { tradeConstants } from "../constants/tradeConstants";
import { parseQuantity } from "../quantities/parseQuantity";
import type { Unit } from "../quantities/units";
import {
  type CatalogueEntry,
  entryDoubts,
  type PrintedRatings,
  type RowField,
  ratingsAtSwitching,
} from "./catalogueEntry";

const { rowLimits, sheetHertz, testedHertz } = tradeConstants.stock;

/** What a column of a catalogue file can hold. */
export const catalogueColumns = [
  ...["maker", "series", "orderCode", "capacitorClass", "capacitanceFarads", "ratedVolts"],
  ...["temperatureClassCelsius", "diameterMetres", "heightMetres", "pitchMetres", "esrOhms", "rippleAmpsRms"],
  ...["ratedLifeHours", "price", "ratingHertz", "dissipationFactorRatio"],
] as const;
export type CatalogueColumn =
  | "maker"
  | "series"
  | "orderCode"
  | "capacitorClass"
  | Exclude<RowField, "priceMinor">
  | "price"
  | "ratingHertz"
  | "dissipationFactorRatio";

/** Columns without which no row can be taken in; ESR may come as tan delta instead. */
export const neededColumns: readonly CatalogueColumn[] = [
  ...(["maker", "series", "orderCode", "capacitanceFarads", "ratedVolts", "temperatureClassCelsius"] as const),
  ...(["diameterMetres", "heightMetres", "pitchMetres", "rippleAmpsRms", "ratedLifeHours", "price"] as const),
];

/** A header of a file: which column it is, and the unit that a bare number below it has. */
export interface MappedHeader {
  readonly column: CatalogueColumn;
  /** A bare number times this is SI. */
  readonly factor: number;
  /** Printed behind an @ in the header: the frequency of what stands below. */
  readonly hertz: number | null;
}

/** Units of the columns that have one. */
export const catalogueUnits: Readonly<Partial<Record<CatalogueColumn, Unit>>> = {
  capacitanceFarads: "F",
  ratedVolts: "V",
  temperatureClassCelsius: "°C",
  diameterMetres: "mm",
  heightMetres: "mm",
  pitchMetres: "mm",
  esrOhms: "Ω",
  rippleAmpsRms: "A",
  ratedLifeHours: "h",
  ratingHertz: "Hz",
};

/** Bare numbers under a header without a unit: as such files usually mean them. */
const usualFactor: Readonly<Partial<Record<CatalogueColumn, number>>> = {
  capacitanceFarads: 1e-6,
  diameterMetres: 1e-3,
  heightMetres: 1e-3,
  pitchMetres: 1e-3,
};

const headerWords: readonly (readonly [CatalogueColumn, RegExp])[] = [
  ["dissipationFactorRatio", /^(tan ?(d|δ|delta)|dissipation factor|df)$/],
  ["ratingHertz", /^(rating( frequency)?|frequency|rated at)$/],
  ["orderCode", /^(order (code|no|number)|part (no|number|code)|article( no)?|mpn|code)$/],
  ["maker", /^(maker|manufacturer|brand|make)$/],
  ["series", /^(series|family|type)$/],
  ["capacitorClass", /^(class|kind|technology)$/],
  ["capacitanceFarads", /^(c|cap|capacitance|value)$/],
  ["ratedVolts", /^(v|u|volts?|voltage|rated volt(s|age)|ur|vr|wv)$/],
  ["temperatureClassCelsius", /^(t|temp|temperature|temperature class|max temp(erature)?)$/],
  ["diameterMetres", /^(d|dia|diameter|ø)$/],
  ["heightMetres", /^(l|h|height|length)$/],
  ["pitchMetres", /^(p|pitch|lead spacing|raster)$/],
  ["esrOhms", /^(esr|esr max|z|impedance|impedance max)$/],
  ["rippleAmpsRms", /^(ripple|ripple current|rated ripple|i ripple|ir)$/],
  ["ratedLifeHours", /^(life|lifetime|endurance|load life|rated life)$/],
  ["price", /^(price|unit price|cost|each)$/],
];

const unitFactors: readonly (readonly [RegExp, number])[] = [
  [/^(pf)$/, 1e-12],
  [/^(nf)$/, 1e-9],
  [/^(uf|µf|μf)$/, 1e-6],
  [/^(mf)$/, 1e-3],
  [/^(f|v|a|ohm|ohms|ω|ω|h|hz|c|°c|degc|ratio)$/, 1],
  [/^(kv|khz|kh)$/, 1e3],
  [/^(mohm|mohms|mω|mω|ma|mm)$/, 1e-3],
  [/^(cm)$/, 1e-2],
  [/^(%)$/, 1e-2],
];

/**
 * Which column a header names, with the unit it says: `Capacitance (uF)`, `ESR mohm @100 kHz`, `Ripple [mA]`.
 *
 * @returns null where nobody can tell: then a person says it
 */
export function mapHeader(header: string): MappedHeader | null {
  const [named = "", at] = header.trim().toLowerCase().split("@");
  const found = parseQuantity((at ?? "").replace(/^\s*at\s*/, ""), "Hz");
  const words = named
    .replace(/[()[\]/,_]/g, " ")
    .replace(/\s+/g, " ")
    .trim()
    .split(" ");
  const last = words.at(-1) ?? "";
  const unit = words.length > 1 ? unitFactors.find(([pattern]) => pattern.test(last)) : undefined;
  const name = (unit ? words.slice(0, -1) : words).join(" ");
  const column = headerWords.find(([, pattern]) => pattern.test(name))?.[0];
  if (!column) return null;
  return { column, factor: unit?.[1] ?? usualFactor[column] ?? 1, hertz: found.ok ? found.value : null };
}

export type DecimalMark = "." | ",";

/** How a file is to be read: its columns in their order (null: left out), and the mark before its decimals. */
export interface FileMapping {
  readonly columns: readonly (MappedHeader | null)[];
  readonly decimalMark: DecimalMark;
  /** Minor units of the shop's currency in one of its units. */
  readonly minorPerUnit: number;
}

export type RowFaultCode =
  | "empty"
  | "not_a_number"
  | "other_mark"
  | "not_a_class"
  | "outside"
  | "too_dense"
  | "no_esr"
  | "too_long"
  | "like_formula"
  | "doubled";

export interface RowFault {
  readonly column: CatalogueColumn;
  readonly code: RowFaultCode;
  readonly text: string;
  readonly limits?: readonly [number, number] | null;
  /** The row that said the same first, for `doubled`. */
  readonly otherRow?: number;
}

export type ReadRow = { readonly entry: CatalogueEntry } | { readonly faults: readonly RowFault[] };

const longestText = 60;

/** One row of a catalogue file: the part, or everything that is wrong with it. */
export function readCatalogueRow(cells: readonly string[], mapping: FileMapping): ReadRow {
  const faults: RowFault[] = [];
  const at = new Map<CatalogueColumn, { readonly text: string; readonly header: MappedHeader }>();
  mapping.columns.forEach((header, n) => {
    if (header) at.set(header.column, { text: (cells[n] ?? "").trim(), header });
  });
  const refuse = (column: CatalogueColumn, code: RowFaultCode, text: string) => {
    faults.push({ column, code, text });
    return Number.NaN;
  };
  const word = (column: CatalogueColumn): string => {
    const text = at.get(column)?.text ?? "";
    if (text === "") refuse(column, "empty", text);
    if (text.length > longestText) refuse(column, "too_long", text.slice(0, longestText));
    // A table program would carry it out where the file is opened again.
    if (/^[=+\-@\t\r]/.test(text)) refuse(column, "like_formula", text);
    return text;
  };
  const number = (column: CatalogueColumn): number | null => {
    const cell = at.get(column);
    if (!cell || cell.text === "") return null;
    const value = readNumber(cell.text, cell.header, mapping.decimalMark);
    return typeof value === "number" ? value : refuse(column, value, cell.text);
  };
  const needed = (column: CatalogueColumn): number => number(column) ?? refuse(column, "empty", "");
  const classText = at.get("capacitorClass")?.text ?? "";
  // Without a word it is not taken for low-ESR: that would let it into a switching output.
  const capacitorClass = classText === "" ? "gp" : classOf(classText);
  if (capacitorClass === null) refuse("capacitorClass", "not_a_class", classText);
  const price = needed("price");
  const basis = {
    ...{ maker: word("maker"), series: word("series"), orderCode: word("orderCode") },
    capacitorClass: capacitorClass ?? "gp",
    ...{ capacitanceFarads: needed("capacitanceFarads"), ratedVolts: needed("ratedVolts") },
    temperatureClassCelsius: needed("temperatureClassCelsius"),
    ...{ diameterMetres: needed("diameterMetres"), heightMetres: needed("heightMetres") },
    ...{ pitchMetres: needed("pitchMetres"), ratedLifeHours: needed("ratedLifeHours") },
    priceMinor: Math.round(price * mapping.minorPerUnit),
  };
  const ripple = needed("rippleAmpsRms");
  const [esr, tan] = [number("esrOhms"), number("dissipationFactorRatio")];
  if (esr === null && tan === null) refuse("esrOhms", "no_esr", "");
  if (faults.length > 0) return { faults };
  const atHertz = at.get("rippleAmpsRms")?.header.hertz ?? at.get("esrOhms")?.header.hertz;
  const frequencyHertz = number("ratingHertz") ?? atHertz ?? (esr === null ? testedHertz : sheetHertz);
  const isPrintedElsewhere = esr === null || frequencyHertz !== sheetHertz;
  const printed: PrintedRatings = {
    ...{ frequencyHertz, esrOhms: esr, rippleAmpsRms: ripple },
    dissipationFactorRatio: esr === null ? tan : null,
  };
  const printedFaults = doubtsOfPrinted(printed);
  if (printedFaults.length > 0) return { faults: printedFaults };
  const sized = entryDoubts({ ...basis, esrOhms: esr ?? 1, rippleAmpsRms: ripple });
  if (sized.length > 0) return { faults: sized.map((doubt) => faultOfDoubt(doubt, at)) };
  const rated = isPrintedElsewhere
    ? ratingsAtSwitching(basis, printed)
    : { esrOhms: esr as number, rippleAmpsRms: ripple };
  if (!rated) return { faults: [{ column: "esrOhms", code: "no_esr", text: "" }] };
  return { entry: { ...basis, ...rated, printed: isPrintedElsewhere ? printed : null } };
}

function faultOfDoubt(
  { field, code, limits }: ReturnType<typeof entryDoubts>[number],
  at: ReadonlyMap<CatalogueColumn, { readonly text: string }>,
): RowFault {
  const column = field === "priceMinor" ? "price" : field;
  return { column, code, limits, text: at.get(column)?.text ?? "" };
}

function doubtsOfPrinted({ frequencyHertz, dissipationFactorRatio }: PrintedRatings): RowFault[] {
  const faults: RowFault[] = [];
  const check = (column: "ratingHertz" | "dissipationFactorRatio", value: number | null) => {
    const [least, most] = rowLimits[column];
    if (value !== null && !(value >= least && value <= most)) {
      faults.push({ column, code: "outside", limits: [least, most], text: String(value) });
    }
  };
  check("ratingHertz", frequencyHertz);
  check("dissipationFactorRatio", dissipationFactorRatio);
  return faults;
}

/** A number under a header: bare in the header's unit, or with a unit of its own. One mark is the file's, the other is a slip. */
function readNumber(
  text: string,
  { column, factor }: MappedHeader,
  mark: DecimalMark,
): number | "not_a_number" | "other_mark" {
  const compact = text.replace(/[\s\u00a0\u202f]/g, "");
  const other = mark === "." ? "," : ".";
  if (/^[+-]?[\d.,]+$/.test(compact)) {
    if (compact.includes(other)) return "other_mark";
    const value = Number(compact.replace(mark, "."));
    return Number.isFinite(value) ? scaled(value, factor) : "not_a_number";
  }
  const scientific = Number(compact.replace(mark, "."));
  if (/^[+-]?[\d.,]+e[+-]?\d+$/i.test(compact) && Number.isFinite(scientific)) return scaled(scientific, factor);
  const unit = catalogueUnits[column];
  if (unit === undefined) return "not_a_number";
  const parsed = parseQuantity(compact.replace(",", "."), unit);
  return parsed.ok && !parsed.isBare ? parsed.value : "not_a_number";
}

/** Without the noise of a binary fraction: 470 x 1e-6 is 470e-6. */
const scaled = (value: number, factor: number): number => Number((value * factor).toPrecision(12));

const classWords: readonly (readonly [CapacitorClass, RegExp])[] = [
  ["gp", /^(gp|general( purpose)?|standard)$/],
  ["lowz", /^(lowz|low[ -]?(esr|impedance|z))$/],
  ["ultra", /^(ultra|very low (esr|impedance)|ultra[ -]?low (esr|impedance))$/],
  ["polymer", /^(polymer|solid|conductive polymer)$/],
  ["hybrid", /^(hybrid|polymer hybrid)$/],
];

function classOf(text: string): CapacitorClass | null {
  const lower = text.trim().toLowerCase();
  const known = capacitorClasses.find((one) => one === lower);
  return known ?? classWords.find(([, pattern]) => pattern.test(lower))?.[0] ?? null;
}

/** What tells a part from every other in a catalogue. */
export const entryKey = ({
  maker,
  series,
  orderCode,
}: Pick<CatalogueEntry, "maker" | "series" | "orderCode">): string =>
  [maker, series, orderCode].map((one) => one.trim().toLowerCase()).join("\u0000");

/** Headers of a file that this program writes; it reads them back. */
export const exportHeaders: readonly string[] = [
  ...["maker", "series", "order code", "class", "capacitance uF", "volts V", "temperature C", "diameter mm"],
  ...["height mm", "pitch mm", "ESR mohm", "ripple mA", "life h", "price", "rating Hz", "tan delta"],
];

/** A part as a row under `exportHeaders`; what a sheet prints at another frequency goes out as printed. */
export function catalogueCells(entry: CatalogueEntry, minorPerUnit: number): readonly (string | number)[] {
  const { printed } = entry;
  const shown = (value: number | null, factor: number) =>
    value === null ? "" : Number((value * factor).toPrecision(12));
  return [
    ...[entry.maker, entry.series, entry.orderCode, entry.capacitorClass, shown(entry.capacitanceFarads, 1e6)],
    ...[entry.ratedVolts, entry.temperatureClassCelsius, shown(entry.diameterMetres, 1e3)],
    ...[shown(entry.heightMetres, 1e3), shown(entry.pitchMetres, 1e3)],
    shown(printed ? printed.esrOhms : entry.esrOhms, 1e3),
    shown(printed ? printed.rippleAmpsRms : entry.rippleAmpsRms, 1e3),
    ...[entry.ratedLifeHours, shown(entry.priceMinor, 1 / minorPerUnit)],
    ...[printed?.frequencyHertz ?? "", printed?.dissipationFactorRatio ?? ""],
  ];
}

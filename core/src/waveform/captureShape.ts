/** Where in a table of text the samples stand, and what they are in. */
export interface CaptureMapping {
  /** Rows before the first sample. */
  readonly headerRows: number;
  /** null: no time column, the interval is known otherwise. */
  readonly timeColumn: number | null;
  readonly timeScaleSeconds: number;
  /** Without a time column. */
  readonly intervalSeconds: number | null;
  readonly channels: readonly { readonly column: number; readonly name: string; readonly scaleVolts: number }[];
  readonly isDecimalComma: boolean;
}

export interface CaptureShape {
  readonly mapping: CaptureMapping;
  /** Everything was told by the content; else a person has to say what is what. */
  readonly isCertain: boolean;
}

const timeUnits: Readonly<Record<string, number>> = {
  s: 1,
  sec: 1,
  second: 1,
  seconds: 1,
  ms: 1e-3,
  us: 1e-6,
  µs: 1e-6,
  ns: 1e-9,
  ps: 1e-12,
};
const voltUnits: Readonly<Record<string, number>> = { v: 1, volt: 1, volts: 1, mv: 1e-3, uv: 1e-6, µv: 1e-6, kv: 1e3 };

const mostChannels = 2;
/** A column of samples has a number in so many of the later rows. */
const leastShare = 0.9;

/** A cell as a number; NaN where it is none. */
export function cellNumber(cell: string, isDecimalComma: boolean): number {
  const text = cell.trim();
  if (text === "") return Number.NaN;
  return Number(isDecimalComma ? text.replace(",", ".") : text);
}

/**
 * Recognises a capture by its content: header lines of any number, one row of titles and perhaps one of units, a time column, a
 * column that only counts, or a sample interval (or rate) somewhere in the header or beside the data, one or two channels
 * in volts or a multiple. A column that counts in ones is no time: its interval must be told.
 *
 * @param rows the first rows of the file, split at its separator
 * @returns null where no table of numbers begins in these rows
 */
export function captureShape(rows: readonly (readonly string[])[]): CaptureShape | null {
  const isDecimalComma = rows.some((row) => row.some((cell) => /^\s*[-+]?\d+,\d+(e[-+]?\d+)?\s*$/i.test(cell)));
  const isSample = (cell: string | undefined) =>
    cell !== undefined && (Number.isFinite(cellNumber(cell, isDecimalComma)) || isClipped(cell));
  const columns = dataColumns(rows, isSample);
  if (columns.length === 0) return null;
  const isData = (row: readonly string[] | undefined) =>
    row !== undefined && columns.every((one) => isSample(row[one]));
  const headerRows = rows.findIndex((row, n) => isData(row) && isData(rows[n + 1]) && isData(rows[n + 2]));
  if (headerRows < 0) return null;
  const head = rows.slice(0, headerRows);
  const titles = titlesOf(head, columns, isDecimalComma);
  const data = rows.slice(headerRows).map((row) => row.map((cell) => cellNumber(cell, isDecimalComma)));
  const climbing = timeColumnOf(columns, titles, data);
  const isCount = climbing !== null && isCounting(climbing, titles[climbing], data);
  const timeColumn = isCount ? null : climbing;
  const channelColumns = columns.filter((column) => column !== climbing);
  // What is told of the file may stand beside its data, before the first column of it.
  const beside = rows.map((row) => row.slice(0, Math.min(...columns)));
  const intervalSeconds =
    timeColumn === null ? (intervalOf(head, isDecimalComma) ?? intervalOf(beside, isDecimalComma)) : null;
  const timeTitle = timeColumn === null ? null : titles[timeColumn];
  const timeUnit = timeTitle ? unitOf(timeTitle, timeUnits) : null;
  return {
    isCertain:
      channelColumns.length >= 1 &&
      channelColumns.length <= mostChannels &&
      (timeColumn !== null || intervalSeconds !== null),
    mapping: {
      headerRows,
      timeColumn,
      timeScaleSeconds: timeUnit ?? 1,
      intervalSeconds,
      channels: channelColumns.slice(0, mostChannels).map((column, n) => {
        const title = titles[column];
        return {
          column,
          name: title?.name || `channel ${n + 1}`,
          scaleVolts: (title && unitOf(title, voltUnits)) ?? 1,
        };
      }),
      isDecimalComma,
    },
  };
}

/** What scopes write for a sample beyond their range: infinity, a word, or a number that no rail has. */
export const isClipped = (cell: string): boolean =>
  /^\s*[<>]?\s*[-+]?(inf(inity)?|ovl?d?|over(flow|range)?|clip(ped)?|9\.9\d*e\+?3[67])\s*$/i.test(cell);

/** Columns that hold numbers in all later rows: what stands beside them in the first ones is told of the file. */
function dataColumns(
  rows: readonly (readonly string[])[],
  isSample: (cell: string | undefined) => boolean,
): readonly number[] {
  const filled = rows.filter((row) => row.some((cell) => cell.trim() !== ""));
  // The last row of a preview may break off: the reader says so, where it does.
  const late = filled.slice(Math.floor(filled.length / 2), filled.length > 4 ? -1 : undefined);
  const width = Math.max(0, ...late.map((row) => row.length));
  const all = Array.from({ length: width }, (_, n) => n);
  const most = all.filter((column) => late.filter((row) => isSample(row[column])).length >= leastShare * late.length);
  return late.length === 0 ? [] : most;
}

/** A column of whole numbers that climb by one counts samples; with a unit of time over it, it is time all the same. */
function isCounting(column: number, title: Title | undefined, data: readonly (readonly number[])[]): boolean {
  if (title && unitOf(title, timeUnits) !== null) return false;
  const values = data.map((row) => row[column] ?? Number.NaN).filter(Number.isFinite);
  return values.length > 2 && values.every((one, n) => Number.isInteger(one) && one === (values[0] as number) + n);
}

interface Title {
  readonly name: string;
  readonly words: readonly string[];
}

/**
 * Titles and units over each column, from the last header rows that are as wide as the data. A row of numbers over the columns
 * is a scale and no title; one of units alone only adds its units.
 */
function titlesOf(
  head: readonly (readonly string[])[],
  columns: readonly number[],
  isDecimalComma: boolean,
): readonly (Title | undefined)[] {
  const isNumber = (cell: string) => Number.isFinite(cellNumber(cell, isDecimalComma));
  const wide = head.filter(
    (row) =>
      columns.every((column) => (row[column] ?? "").trim() !== "") &&
      !columns.slice(1).some((one) => isNumber(row[one] ?? "")),
  );
  const isUnits = (row: readonly string[]) =>
    columns.every((column) => {
      const cell = (row[column] ?? "")
        .trim()
        .toLowerCase()
        .replace(/[()[\]]/g, "");
      return Object.hasOwn(voltUnits, cell) || Object.hasOwn(timeUnits, cell) || cell === "sequence";
    });
  const last = wide.at(-1);
  const names = last && isUnits(last) ? (wide.at(-2) ?? last) : last;
  const used = [...new Set([names, last])].filter((row) => row !== undefined);
  const found: (Title | undefined)[] = [];
  for (const column of columns) {
    const cells = used.map((row) => (row[column] ?? "").trim());
    const words = cells.flatMap((cell) => cell.toLowerCase().split(/[\s()[\]/,;:]+/)).filter((word) => word !== "");
    found[column] = { name: cells[0] ?? "", words };
  }
  return found;
}

function unitOf({ words }: Title, units: Readonly<Record<string, number>>): number | null {
  const found = [...words].reverse().find((word) => Object.hasOwn(units, word));
  return found === undefined ? null : (units[found] as number);
}

/** A column called time, or else the first one if it climbs in even steps. */
function timeColumnOf(
  columns: readonly number[],
  titles: readonly (Title | undefined)[],
  data: readonly (readonly number[])[],
): number | null {
  if (columns.length < 2) return null;
  const named = columns.find((column) =>
    titles[column]?.words.some((word) => /^(time|t|x|sec|second|seconds|sequence|index|sample|point|no|n)$/.test(word)),
  );
  if (named !== undefined) return named;
  const [first] = columns;
  if (first === undefined) return null;
  const times = data.map((row) => row[first] ?? Number.NaN);
  const steps = times.slice(1).map((time, n) => time - (times[n] as number));
  const step = steps[0] ?? 0;
  return step > 0 && steps.every((one) => Math.abs(one - step) < 0.3 * step) ? first : null;
}

/** A sample interval or rate named in the header. */
function intervalOf(head: readonly (readonly string[])[], isDecimalComma: boolean): number | null {
  // A title that names it, with its number in the row below.
  for (const [n, row] of head.entries()) {
    const column = row.findIndex((cell) => /^\s*(x?increment|xincr|(sample )?interval)\s*$/i.test(cell));
    const below = column < 0 ? Number.NaN : cellNumber(head[n + 1]?.[column] ?? "", isDecimalComma);
    if (below > 0) return below;
  }
  for (const row of head) {
    const label = (row[0] ?? "").toLowerCase();
    const cells = row.slice(1);
    const inline = /^(.*?)[:=]\s*(.+)$/.exec(row[0] ?? "");
    const [name, texts] =
      inline && cells.every((one) => one.trim() === "")
        ? [inline[1]?.toLowerCase() ?? "", [inline[2] ?? ""]]
        : [label, cells];
    for (const text of texts) {
      const match = /^\s*([-+]?[\d.,]+(?:e[-+]?\d+)?)\s*([a-zµ/]*)/i.exec(text);
      const value = match ? cellNumber(match[1] ?? "", isDecimalComma) : Number.NaN;
      if (!(value > 0)) continue;
      const unit = (match?.[2] || (name.match(/[([]\s*([a-zµ/]+)\s*[)\]]/)?.[1] ?? "")).toLowerCase();
      if (/interval|increment|period|sampling time|sample time|^dt\b|xincr|delta/.test(name))
        return value * (timeUnits[unit] ?? 1);
      if (/rate|frequency|^fs\b|samples\/s|sa\/s/.test(name)) {
        const factor = unit.startsWith("g") ? 1e9 : unit.startsWith("m") ? 1e6 : unit.startsWith("k") ? 1e3 : 1;
        return 1 / (value * factor);
      }
    }
  }
  return null;
}

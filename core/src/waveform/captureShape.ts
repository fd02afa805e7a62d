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

/** A cell as a number; NaN where it is none. */
export function cellNumber(cell: string, isDecimalComma: boolean): number {
  const text = cell.trim();
  if (text === "") return Number.NaN;
  return Number(isDecimalComma ? text.replace(",", ".") : text);
}

/**
 * Recognises a capture by its content: header lines of any number, one row of titles and perhaps one of units, a time
 * column or a sample interval (or rate) somewhere in the header, one or two channels in volts or a multiple.
 *
 * @param rows the first rows of the file, split at its separator
 * @returns null where no table of numbers begins in these rows
 */
export function captureShape(rows: readonly (readonly string[])[]): CaptureShape | null {
  const isDecimalComma = rows.some((row) => row.some((cell) => /^\s*[-+]?\d+,\d+(e[-+]?\d+)?\s*$/i.test(cell)));
  const isData = (row: readonly string[] | undefined) =>
    row?.some((cell) => cell.trim() !== "") === true &&
    row.every((cell) => cell.trim() === "" || Number.isFinite(cellNumber(cell, isDecimalComma)));
  const headerRows = rows.findIndex((row, n) => isData(row) && isData(rows[n + 1]) && isData(rows[n + 2]));
  const first = rows[headerRows];
  if (!first) return null;
  const columns = first.map((_, n) => n).filter((n) => (first[n] ?? "").trim() !== "");
  const head = rows.slice(0, headerRows);
  const titles = titlesOf(head, columns);
  const data = rows.slice(headerRows).map((row) => row.map((cell) => cellNumber(cell, isDecimalComma)));
  const timeColumn = timeColumnOf(columns, titles, data);
  const channelColumns = columns.filter((column) => column !== timeColumn);
  const intervalSeconds = timeColumn === null ? intervalOf(head, isDecimalComma) : null;
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

interface Title {
  readonly name: string;
  readonly words: readonly string[];
}

/** Titles and units over each column, from the last header rows that are as wide as the data. */
function titlesOf(head: readonly (readonly string[])[], columns: readonly number[]): readonly (Title | undefined)[] {
  const wide = head.filter((row) => columns.every((column) => (row[column] ?? "").trim() !== "")).slice(-2);
  const found: (Title | undefined)[] = [];
  for (const column of columns) {
    const cells = wide.map((row) => (row[column] ?? "").trim());
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
  const named = columns.find((column) =>
    titles[column]?.words.some((word) => /^(time|t|x|sec|second|seconds)$/.test(word)),
  );
  if (named !== undefined) return named;
  const [first] = columns;
  if (first === undefined || columns.length < 2) return null;
  const times = data.map((row) => row[first] ?? Number.NaN);
  const steps = times.slice(1).map((time, n) => time - (times[n] as number));
  const step = steps[0] ?? 0;
  return step > 0 && steps.every((one) => Math.abs(one - step) < 0.3 * step) ? first : null;
}

/** A sample interval or rate named in the header. */
function intervalOf(head: readonly (readonly string[])[], isDecimalComma: boolean): number | null {
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

import { promisify } from "node:util";
import { gunzip } from "node:zlib";
import { type CatalogueImport, type ImportChange, type ImportOutcome, importLimits } from "@pale-cap/contract";
import { type CatalogueEntry, capacitorClasses, entryDoubts, entryKey } from "@pale-cap/core";
import type { Scope } from "../../database/scope";
import { fileProblem } from "../../http/receiveUpload";

const unzip = promisify(gunzip);
const chunkRows = 2000;
const longestText = 60;

/**
 * The entries of a file as they came, checked like in the browser: a client that checks nothing stores nothing impossible. The
 * server breathes between chunks.
 *
 * @throws {HttpProblem} where it is no list of possible parts, or holds a part twice
 */
export async function readList<T>(
  bytes: Buffer,
  rowCount: number,
  { isEntry, keyOf }: { readonly isEntry: (value: unknown) => value is T; readonly keyOf: (entry: T) => string },
): Promise<readonly T[]> {
  const list = await parsed(bytes);
  if (!Array.isArray(list) || list.length !== rowCount) {
    throw fileProblem("catalogue", "It does not hold as many rows as it says. Nothing was stored.");
  }
  const keys = new Set<string>();
  for (const [n, one] of list.entries()) {
    if (n % chunkRows === 0) await new Promise((resolve) => setImmediate(resolve));
    if (!isEntry(one)) throw fileProblem("catalogue", `Row ${n + 1} is no part that can be. Nothing was stored.`);
    const key = keyOf(one);
    if (keys.has(key))
      throw fileProblem("catalogue", `Row ${n + 1} names a part for the second time. Nothing was stored.`);
    keys.add(key);
  }
  return list as T[];
}

/** Capacitors of a file. */
export const readEntries = (bytes: Buffer, rowCount: number): Promise<readonly CatalogueEntry[]> =>
  readList(bytes, rowCount, { isEntry, keyOf: entryKey });

async function parsed(bytes: Buffer): Promise<unknown> {
  try {
    const text = await unzip(bytes, { maxOutputLength: 4 * importLimits.uploadBytes });
    return JSON.parse(text.toString("utf8"));
  } catch {
    throw fileProblem("catalogue", "It is no zipped list of parts. Nothing was stored.");
  }
}

const isText = (value: unknown) => typeof value === "string" && value.trim() !== "" && value.length <= longestText;
const isNumberOrNull = (value: unknown) => value === null || (typeof value === "number" && value > 0);

function isEntry(value: unknown): value is CatalogueEntry {
  if (typeof value !== "object" || value === null) return false;
  const entry = value as CatalogueEntry;
  const { maker, series, orderCode, capacitorClass, priceMinor, printed } = entry;
  return (
    [maker, series, orderCode].every(isText) &&
    capacitorClasses.includes(capacitorClass) &&
    Number.isInteger(priceMinor) &&
    entryDoubts(entry).length === 0 &&
    (printed === null || (typeof printed === "object" && Object.values(printed).every(isNumberOrNull)))
  );
}

const fields = [
  ...["capacitorClass", "capacitanceFarads", "ratedVolts", "temperatureClassCelsius", "diameterMetres"],
  ...["heightMetres", "pitchMetres", "esrOhms", "rippleAmpsRms", "ratedLifeHours", "priceMinor"],
] as const;

/** Columns of a chunk as the database reads them out of JSON, under its own names. */
const recordColumns = `maker text, series text, "orderCode" text, "capacitorClass" text, "capacitanceFarads" float8,
  "ratedVolts" float8, "temperatureClassCelsius" float8, "diameterMetres" float8, "heightMetres" float8,
  "pitchMetres" float8, "esrOhms" float8, "rippleAmpsRms" float8, "ratedLifeHours" float8, "priceMinor" int, printed jsonb`;
const same = fields.map((name) => `c.${snake(name)} = n."${name}"`).join(" AND ");
const isSame = `${same} AND c.printed IS NOT DISTINCT FROM nullif(n.printed, 'null'::jsonb)`;
const key =
  'lower(c.maker) = lower(n.maker) AND lower(c.series) = lower(n.series) AND lower(c.order_code) = lower(n."orderCode")';

function snake(name: string): string {
  return name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
}

/** Takes a file in, within the caller's transaction: new parts are added, known ones changed where they differ. */
export async function importEntries(
  scope: Scope,
  about: CatalogueImport,
  entries: readonly CatalogueEntry[],
): Promise<void> {
  const outcome = { addedCount: 0, changedCount: 0, sameCount: 0 };
  const changes: ImportChange[] = [];
  for (let from = 0; from < entries.length; from += chunkRows) {
    const chunk = entries.slice(from, from + chunkRows).map(trimmed);
    const bind = [JSON.stringify(chunk)];
    const records = `json_to_recordset($1::json) AS n(${recordColumns})`;
    const different = await scope.sql<ChangedRow>(
      `SELECT ${fields.map((name) => `c.${snake(name)} AS "${name}"`).join(", ")}, n.maker, n.series,
         n."orderCode", row_to_json(n) AS now
       FROM ${records} JOIN catalogue_parts c ON ${key} WHERE NOT (${isSame})`,
      bind,
    );
    for (const row of different) if (changes.length < importLimits.toldChanges) changes.push(toChange(row));
    if (different.length > 0) {
      await scope.sql(
        `UPDATE catalogue_parts c SET ${fields.map((name) => `${snake(name)} = n."${name}"`).join(", ")},
           printed = nullif(n.printed, 'null'::jsonb), source = $2
         FROM ${records} WHERE ${key} AND NOT (${isSame})`,
        [...bind, about.source],
      );
    }
    const added = await scope.sql(
      `INSERT INTO catalogue_parts (id, maker, series, order_code, ${fields.map(snake).join(", ")}, printed, source)
       SELECT gen_random_uuid(), n.maker, n.series, n."orderCode", ${fields.map((name) => `n."${name}"`).join(", ")},
         nullif(n.printed, 'null'::jsonb), $2 FROM ${records}
       ON CONFLICT (lower(maker), lower(series), lower(order_code)) DO NOTHING RETURNING id`,
      [...bind, about.source],
    );
    outcome.addedCount += added.length;
    outcome.changedCount += different.length;
    outcome.sameCount += chunk.length - added.length - different.length;
  }
  await scope.rows.catalogueImports.insert({
    ...outcome,
    ...{ id: about.id, source: about.source, changes, at: scope.now, personId: about.personId },
  });
}

const trimmed = (entry: CatalogueEntry): CatalogueEntry => ({
  ...entry,
  maker: entry.maker.trim(),
  series: entry.series.trim(),
  orderCode: entry.orderCode.trim(),
});

type Values = Readonly<Record<(typeof fields)[number], number | string>>;
type ChangedRow = Values & Pick<CatalogueEntry, "maker" | "series" | "orderCode"> & { readonly now: Values };

function toChange({ maker, series, orderCode, now, ...before }: ChangedRow): ImportChange {
  return {
    ...{ maker, series, orderCode },
    fields: fields
      .filter((name) => before[name] !== now[name])
      .map((name) => ({ name, before: before[name], after: now[name] })),
  };
}

export async function importOutcome(scope: Scope, id: string): Promise<ImportOutcome | undefined> {
  const row = await scope.rows.catalogueImports.first({ id });
  if (!row) return undefined;
  const { addedCount, changedCount, sameCount, changes } = row;
  return { addedCount, changedCount, sameCount, changes };
}

import { type CatalogueImport, type ImportChange, importLimits } from "@pale-cap/contract";
import { type ComponentEntry, componentDoubts, componentKey, componentKinds } from "@pale-cap/core";
import type { Scope } from "../../database/scope";
import { readList } from "./importCatalogue";

const chunkRows = 2000;

function isComponent(value: unknown): value is ComponentEntry {
  if (typeof value !== "object" || value === null) return false;
  const { kind, maker, typeNumber, ratings } = value as ComponentEntry;
  return (
    componentKinds.includes(kind) &&
    typeof maker === "string" &&
    typeof typeNumber === "string" &&
    typeof ratings === "object" &&
    ratings !== null &&
    componentDoubts(value as ComponentEntry).length === 0
  );
}

/** Other parts of a file, checked like in the browser. */
export const readComponents = (bytes: Buffer, rowCount: number): Promise<readonly ComponentEntry[]> =>
  readList(bytes, rowCount, { isEntry: isComponent, keyOf: componentKey });

interface KnownComponent extends ComponentEntry {
  readonly now: Pick<ComponentEntry, "ratings" | "priceMinor">;
}

const key = 'c.kind = n.kind AND lower(c.maker) = lower(n.maker) AND lower(c.type_number) = lower(n."typeNumber")';

/** Takes a file of other parts in, within the caller's transaction: new ones are added, known ones changed where they differ. */
export async function importComponents(
  scope: Scope,
  about: CatalogueImport,
  entries: readonly ComponentEntry[],
): Promise<void> {
  const outcome = { addedCount: 0, changedCount: 0, sameCount: 0 };
  const changes: ImportChange[] = [];
  for (let from = 0; from < entries.length; from += chunkRows) {
    const chunk = entries.slice(from, from + chunkRows).map((one) => ({
      ...one,
      ...{ maker: one.maker.trim(), typeNumber: one.typeNumber.trim() },
    }));
    const bind = [JSON.stringify(chunk)];
    const records = `json_to_recordset($1::json) AS n(kind text, maker text, "typeNumber" text, ratings jsonb, "priceMinor" int)`;
    const different = await scope.sql<KnownComponent>(
      `SELECT c.kind, c.maker, c.type_number AS "typeNumber", c.ratings, c.price_minor AS "priceMinor", row_to_json(n) AS now
       FROM ${records} JOIN catalogue_components c ON ${key}
       WHERE c.ratings <> n.ratings OR c.price_minor <> n."priceMinor"`,
      bind,
    );
    for (const row of different) if (changes.length < importLimits.toldChanges) changes.push(toChange(row));
    await scope.sql(
      `UPDATE catalogue_components c SET ratings = n.ratings, price_minor = n."priceMinor" FROM ${records}
       WHERE ${key} AND (c.ratings <> n.ratings OR c.price_minor <> n."priceMinor")`,
      bind,
    );
    const added = await scope.sql(
      `INSERT INTO catalogue_components (id, kind, maker, type_number, ratings, price_minor)
       SELECT gen_random_uuid(), n.kind, n.maker, n."typeNumber", n.ratings, n."priceMinor" FROM ${records}
       ON CONFLICT (kind, lower(maker), lower(type_number)) DO NOTHING RETURNING id`,
      bind,
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

function toChange({ kind, maker, typeNumber, ratings, priceMinor, now }: KnownComponent): ImportChange {
  const names = [...new Set([...Object.keys(ratings), ...Object.keys(now.ratings)])] as (keyof typeof ratings)[];
  const differing = names.filter((name) => ratings[name] !== now.ratings[name]);
  return {
    ...{ maker, series: kind, orderCode: typeNumber },
    fields: [
      ...differing.map((name) => ({ name, before: ratings[name] ?? "", after: now.ratings[name] ?? "" })),
      ...(priceMinor === now.priceMinor ? [] : [{ name: "priceMinor", before: priceMinor, after: now.priceMinor }]),
    ],
  };
}

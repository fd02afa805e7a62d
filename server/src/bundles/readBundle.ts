import {
  type BoardTable,
  type BundleManifest,
  boardEditSchema,
  bundleManifestSchema,
  bundleName,
  bundleVersion,
  captureAnalysisEditSchema,
  comebackKinds,
  editableValues,
  type FactKind,
  factSchemas,
  intakeSchema,
  newRunSchema,
  noIntakeDetails,
  photoEditSchema,
  planEditSchema,
} from "@pale-cap/contract";
import { reworkSteps, visualSigns } from "@pale-cap/core";
import { type AnyObject, type ObjectSchema, ValidationError } from "yup";
import { type AllRows, plainRows, type Scope } from "../database/scope";
import { bundleTables } from "./bundleTables";
import { readArchive, refused } from "./readArchive";
import { sha256Of } from "./writeBundle";

export type BundleRow = Readonly<Record<string, unknown>> & { readonly id?: string };
export type BundleRows = Readonly<Record<string, readonly BundleRow[]>>;

export interface ReadBundle {
  readonly manifest: BundleManifest;
  readonly files: ReadonlyMap<string, Buffer>;
  readonly jobs: ReadonlyMap<string, BundleRows>;
  readonly shared: BundleRows;
  /** What this version does not know, by table and field. */
  readonly unknownFields: readonly string[];
}

/** What each table has, and what of it may hold what. */
export type Columns = (table: keyof AllRows) => Readonly<Record<string, string>>;
export const columnsOf =
  ({ rows }: Pick<Scope, "rows">): Columns =>
  (table) =>
    plainRows(rows, table).columns;

const manifestName = "manifest.json";
const sharedTables = ["people", "catalogueParts", "boardTypes", "boardTypeRevisions", "jobFamilies"] as const;
/** Told of a table that comes with the customers alone. */
const customerTables = ["customers"] as const;

/**
 * An archive as what it says it is: its manifest holds, each file is listed and is what its sum says, every row has the columns of its
 * table and what they may hold.
 *
 * @throws {HttpProblem} with the reason
 */
export async function readBundle(columns: Columns, bytes: Buffer): Promise<ReadBundle> {
  const archive = await readArchive(bytes);
  const manifest = manifestOf(archive);
  const files = listedFiles(manifest, archive);
  const unknown = new Set<string>();
  const jobs = new Map<string, BundleRows>();
  for (const { id } of manifest.jobs) {
    if (jobs.has(id)) throw refused(`Job ${id} stands in it twice.`);
    jobs.set(id, jobRows(columns, parsed(files, `jobs/${id}/job.json`), id, unknown));
  }
  const shared = tablesOf(columns, parsed(files, "shared.json"), sharedTables, "shared.json", unknown);
  return { manifest, files, jobs, shared, unknownFields: [...unknown].sort() };
}

function manifestOf(archive: ReadonlyMap<string, Buffer>): BundleManifest {
  const value = jsonOf(archive.get(manifestName), manifestName);
  const { name, major } = (value ?? {}) as { name?: unknown; major?: unknown };
  if (name !== bundleName) throw refused("It is no bundle of jobs.");
  if (typeof major === "number" && major > bundleVersion.major) {
    throw refused(
      `It was written in format ${major}, and this Pale Cap reads up to ${bundleVersion.major}: bring it up to date.`,
    );
  }
  return checked(bundleManifestSchema, value, manifestName) as BundleManifest;
}

/** Every file is listed, every listed one is there, and each is what its sum says. */
function listedFiles({ files }: BundleManifest, archive: ReadonlyMap<string, Buffer>): ReadonlyMap<string, Buffer> {
  const listed = new Map(files.map((one) => [one.name, one]));
  const found = new Map<string, Buffer>();
  for (const [name, content] of archive) {
    if (name === manifestName) continue;
    const said = listed.get(name);
    if (!said) throw refused(`${name} is not in its list.`);
    if (said.bytes !== content.length || said.sha256 !== sha256Of(content)) {
      throw refused(`${name} is not what its list says: its sum differs.`);
    }
    found.set(name, content);
  }
  for (const name of listed.keys()) if (!found.has(name)) throw refused(`${name} is listed and not there.`);
  return found;
}

const parsed = (files: ReadonlyMap<string, Buffer>, name: string): unknown => jsonOf(files.get(name), name);

function jsonOf(content: Buffer | undefined, name: string): unknown {
  if (!content) throw refused(`${name} is missing.`);
  try {
    return JSON.parse(content.toString("utf8"));
  } catch {
    throw refused(`${name} is no JSON.`);
  }
}

function checked(schema: unknown, value: unknown, where: string): AnyObject {
  try {
    return (schema as ObjectSchema<AnyObject>).validateSync(value, { strict: true, abortEarly: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw refused(`${where} holds what cannot be: ${(error.path ?? "it").slice(0, 80)}.`);
  }
}

function jobRows(columns: Columns, value: unknown, jobId: string, unknown: Set<string>): BundleRows {
  const names = [...bundleTables.map((one) => one.name), ...customerTables];
  const rows = tablesOf(columns, value, names, `Job ${jobId}`, unknown);
  const [job] = rows.jobs ?? [];
  if (rows.jobs?.length !== 1 || job?.id !== jobId) throw refused(`Job ${jobId} does not hold itself.`);
  for (const { name, owner } of bundleTables) {
    for (const row of rows[name] ?? []) {
      if (owner === "job" && name !== "jobs" && row.jobId !== jobId)
        throw refused(`Job ${jobId} holds a row of another job.`);
      checkMeaning(name, row, jobId);
    }
  }
  return rows;
}

function tablesOf(
  columns: Columns,
  value: unknown,
  names: readonly string[],
  where: string,
  unknown: Set<string>,
): BundleRows {
  if (typeof value !== "object" || value === null || Array.isArray(value))
    throw refused(`${where} is no list of tables.`);
  const tables: Record<string, readonly BundleRow[]> = {};
  for (const [name, rows] of Object.entries(value)) {
    if (!names.includes(name)) {
      unknown.add(name);
      continue;
    }
    if (!Array.isArray(rows)) throw refused(`${where}: ${name} is no list.`);
    const own = columns(name as keyof AllRows);
    tables[name] = rows.map((row) => rowOf(row, own, name, unknown));
  }
  return tables;
}

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
const isMoment = (value: unknown) =>
  typeof value === "string" && value.length < 40 && Number.isFinite(Date.parse(value));
const isWhole = (value: unknown) => Number.isSafeInteger(value);
const mostText = 20_000;

/** What a column may hold, by its kind; nothing is also held by what may be empty, which the database knows. */
const holds: Readonly<Record<string, (value: unknown) => boolean>> = {
  UUID: (value) => typeof value === "string" && uuid.test(value),
  TEXT: (value) => typeof value === "string" && value.length <= mostText && !value.includes("\u0000"),
  "DOUBLE PRECISION": (value) => typeof value === "number" && Number.isFinite(value),
  DOUBLE: (value) => typeof value === "number" && Number.isFinite(value),
  INTEGER: isWhole,
  BIGINT: isWhole,
  BOOLEAN: (value) => typeof value === "boolean",
  DATE: isMoment,
  DATEONLY: (value) => typeof value === "string" && /^\d{4}-\d{2}-\d{2}$/.test(value),
  JSONB: (value) => !JSON.stringify(value ?? null).includes("\\u0000"),
  "ARRAY TEXT": (value) =>
    Array.isArray(value) && value.every((one) => typeof one === "string" && one.length <= mostText),
  "ARRAY UUID": (value) => Array.isArray(value) && value.every((one) => typeof one === "string" && uuid.test(one)),
};

function rowOf(
  row: unknown,
  columns: Readonly<Record<string, string>>,
  table: string,
  unknown: Set<string>,
): BundleRow {
  if (typeof row !== "object" || row === null || Array.isArray(row)) throw refused(`${table} holds what is no row.`);
  const kept: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(row)) {
    const kind = Object.hasOwn(columns, name) ? columns[name] : undefined;
    if (kind === undefined) unknown.add(`${table}.${name}`);
    else if (value === null || holds[kind]?.(value)) kept[name] = value;
    else throw refused(`${table} holds a ${name} that cannot be.`);
  }
  return kept;
}

const boardTableOf: Readonly<Partial<Record<keyof AllRows, BoardTable>>> = {
  boards: "board",
  nets: "net",
  positions: "position",
  fittedParts: "fittedPart",
};
type Check = (row: BundleRow) => readonly [schema: unknown, body: unknown];
const fieldsOf = (schema: unknown, row: BundleRow) => {
  const fields = Object.keys((schema as ObjectSchema<AnyObject>).fields);
  return Object.fromEntries(Object.entries(row).filter(([key]) => fields.includes(key)));
};
const asFact =
  (kind: FactKind): Check =>
  (row) => [factSchemas[kind], fieldsOf(factSchemas[kind], row)];
const words = (value: unknown, known: readonly string[], what: string) => {
  if (typeof value !== "string" || !known.includes(value)) throw refused(`It holds a ${what} that cannot be.`);
};

/** Words and numbers are held against the same schemas as what a page sends: no code of a stranger reaches a screen. */
const checks: Readonly<Partial<Record<keyof AllRows, Check>>> = {
  readings: asFact("reading"),
  verdictOverrules: asFact("overrule"),
  teardownReturns: asFact("return"),
  openPointAcceptances: asFact("acceptance"),
  jobActs: asFact("act"),
  quotes: asFact("quote"),
  quoteAnswers: asFact("quoteAnswer"),
  chargeEvents: asFact("charge"),
  powerEvents: (row) => [factSchemas.power, fieldsOf(factSchemas.power, { ...row, values: row.checkValues })],
  jobs: (row) => [
    intakeSchema,
    {
      ...fieldsOf(intakeSchema, row),
      ...{ customerName: null, customerContact: null, ownersWords: null },
      // Jobs from before some notes existed have none of them.
      intakeDetails: { ...noIntakeDetails, ...(row.intakeDetails as object) },
    },
  ],
  photos: ({ id, kind, caption, marks, isRemoved }) => [
    photoEditSchema,
    { writeId: id, version: 1, values: { kind, caption, marks, isRemoved } },
  ],
  captures: ({ id, analysis, coreVersion }) => [
    captureAnalysisEditSchema,
    { writeId: id, version: 1, analysis, coreVersion },
  ],
  proofRuns: ({ id, plan }) => [
    newRunSchema,
    { id, plan, switchesMains: false, isOverloadMeant: false, isCaseClosed: false, personId: null },
  ],
  replacementPlans: ({ id, cataloguePartId, component, otherPart, isLeftEmpty, reasons, ...row }) => [
    planEditSchema,
    {
      ...{ writeId: id, version: 0, cataloguePartId, component, otherPart, isLeftEmpty, reasons },
      overrides: fieldsOf(planEditSchema.fields.overrides, row as BundleRow),
    },
  ],
};

function checkMeaning(name: keyof AllRows, row: BundleRow, jobId: string): void {
  const where = `Job ${jobId}, ${name}`;
  const table = boardTableOf[name];
  if (table) {
    const change = { table, operation: "insert", id: row.id, version: null, values: editableValues(table, row) };
    checked(boardEditSchema, { id: row.id, changes: [change] }, where);
  }
  if (name === "signObservations") {
    words(row.sign, visualSigns, "sign");
    words(row.state, ["seen", "not_seen", "not_looked"], "state");
  }
  if (name === "reworkTicks") words(row.step, reworkSteps, "step");
  if (name === "jobs" && row.comebackKind != null) words(row.comebackKind, comebackKinds, "reason");
  const check = checks[name];
  if (check) checked(...check(row), where);
}

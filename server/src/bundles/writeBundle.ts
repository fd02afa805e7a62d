import { createHash } from "node:crypto";
import { promisify } from "node:util";
import { gunzip } from "node:zlib";
import { acrossBoards, type BundleManifest, bundleName, bundleVersion, jobFacts } from "@pale-cap/contract";
import { coreVersion, type RunSample, railNetlist } from "@pale-cap/core";
import {
  deviceName,
  type FileTable,
  partsTable,
  positionsTable,
  readingsTable,
  runTable,
  waveformTable,
} from "@pale-cap/wording";
import Papa from "papaparse";
import { Op } from "sequelize";
import sharp from "sharp";
import type { JobRow } from "../database/models/jobs";
import { type AllRows, plainRows, type Scope } from "../database/scope";
import { readBlob } from "../records/blobStore";
import { loadJob } from "../records/loadJobs";
import { loadRuns } from "../records/loadRuns";
import { loadRuleValues } from "../records/rules";
import { bundleTables, canonicalJson } from "./bundleTables";

/** Files by their names, in the order in which they are written. */
export type BundleFiles = ReadonlyMap<string, Buffer>;

type Row = Readonly<Record<string, unknown>> & { readonly id?: string };
type Job = BundleManifest["jobs"][number];
const unzip = promisify(gunzip);
const manifestName = "manifest.json";

export interface BundleWish {
  readonly jobIds: readonly string[];
  /** Kinds of board beside those that the jobs' boards were copied from. */
  readonly boardTypeIds: readonly string[];
  readonly withCustomers: boolean;
}

/** Jobs with all that hangs on them, as open files; what is this shop's own stands in the manifest alone. */
export async function writeBundle(scope: Scope, wish: BundleWish): Promise<BundleFiles> {
  const files = new Map<string, Buffer>();
  const add = (name: string, content: string | Buffer) => files.set(name, Buffer.from(content as string));
  const jobs: Job[] = [];
  const shared = {
    people: new Set<string>(),
    parts: new Set<string>(),
    revisions: new Set<string>(),
    families: new Set<string>(),
  };
  for (const jobId of [...wish.jobIds].sort()) {
    const job = await scope.rows.jobs.first({ id: jobId });
    if (!job) continue;
    const { tables: rows, receipts } = await rowsOf(scope, jobId, wish.withCustomers);
    for (const row of Object.values(rows).flat()) {
      if (typeof row.personId === "string") shared.people.add(row.personId);
      if (typeof row.cataloguePartId === "string") shared.parts.add(row.cataloguePartId);
      if (typeof row.boardTypeRevisionId === "string") shared.revisions.add(row.boardTypeRevisionId);
    }
    if (job.jobFamilyId) shared.families.add(job.jobFamilyId);
    add(`jobs/${jobId}/job.json`, canonicalJson(rows));
    await addTables(scope, jobId, add);
    await addPhotos(scope, jobId, add);
    jobs.push(told(job, receipts));
  }
  await addShared(scope, wish, shared, add);
  const manifest: BundleManifest = {
    ...{ name: bundleName, ...bundleVersion, coreVersion, hasCustomers: wish.withCustomers, jobs },
    shop: (await loadRuleValues(scope))["shop.name"] || null,
    exportedAt: scope.now.toISOString(),
    files: [...files]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([name, content]) => ({ name, sha256: sha256Of(content), bytes: content.length })),
  };
  return new Map([
    [manifestName, Buffer.from(canonicalJson(manifest))],
    ...[...files].sort(([a], [b]) => (a < b ? -1 : 1)),
  ]);
}

export const sha256Of = (content: Buffer): string => createHash("sha256").update(content).digest("hex");

const told = (job: JobRow, receipts: Job["receipts"]): Job => ({
  ...{ id: job.id, number: job.number, realm: job.realm, comebackOf: job.comebackOf, receipts },
  device: deviceName(job),
});

/** All rows of a job as they are written, and what of them stands in the manifest. */
export async function rowsOf(scope: Scope, jobId: string, withCustomers: boolean) {
  const tables: Record<string, readonly Row[]> = {};
  const receipts: Job["receipts"] = [];
  const ids = { job: [jobId], board: [] as string[], position: [] as string[], run: [] as string[] };
  for (const table of bundleTables) {
    if (table.isCustomers && !withCustomers) continue;
    const rows = await loadTable(scope, table.name, table.owner, ids[table.owner]);
    const kept = rows.map((row) => JSON.parse(JSON.stringify(without(row, table.leavesOut))) as Row);
    const order = (row: Record<string, unknown>) => Number(row.sequence ?? 0);
    const places = rows.map((row, n) => [order(row), n] as const).sort((a, b) => a[0] - b[0] || a[1] - b[1]);
    tables[table.name] = places.map(([, n]) => kept[n] as Row);
    if (table.isFact) {
      for (const row of rows) {
        const {
          id,
          sequence,
          receivedAt = null,
          clockAheadSeconds = null,
        } = row as {
          id: string;
          sequence: number;
          receivedAt?: Date | null;
          clockAheadSeconds?: number | null;
        };
        receipts.push({
          ...{ id, sequence: Number(sequence), clockAheadSeconds },
          receivedAt: receivedAt === null ? null : receivedAt.toISOString(),
        });
      }
    }
    const own = rows.map((row) => String(row.id));
    if (table.name === "boards") ids.board = own;
    if (table.name === "positions") ids.position = own;
    if (table.name === "proofRuns") ids.run = own;
    if (table.name === "jobCustomers") {
      const customerIds = rows.flatMap((row) => (typeof row.customerId === "string" ? [row.customerId] : []));
      const customers = await scope.rows.customers.all({ id: { [Op.in]: customerIds } }, [["id", "ASC"]]);
      tables.customers = customers.map((row) => JSON.parse(JSON.stringify(row)) as Row);
    }
  }
  return {
    tables: withCustomers ? tables : await withoutNames(scope, jobId, tables),
    receipts: receipts.sort((a, b) => a.sequence - b.sequence),
  };
}

async function loadTable(
  scope: Scope,
  name: keyof AllRows,
  owner: "job" | "board" | "position" | "run",
  ids: readonly string[],
) {
  const column = { job: name === "jobs" ? "id" : "jobId", board: "boardId", position: "positionId", run: "runId" }[
    owner
  ];
  const key = name === "jobCustomers" ? "jobId" : name === "reportDocuments" ? "audience" : "id";
  return plainRows(scope.rows, name).all({ [column]: { [Op.in]: [...ids] } }, [[key, "ASC"]]);
}

const without = (row: Record<string, unknown>, names: readonly string[]) =>
  Object.fromEntries(Object.entries(row).filter(([name]) => !names.includes(name)));

/** The customer stays here: the name goes out of what was typed, and nobody is said to have answered. */
async function withoutNames(
  scope: Scope,
  jobId: string,
  tables: Readonly<Record<string, readonly Row[]>>,
): Promise<Readonly<Record<string, readonly Row[]>>> {
  const nameless = {
    ...tables,
    quoteAnswers: (tables.quoteAnswers ?? []).map((row) => ({ ...row, byWhom: "[left out]" })),
  };
  const link = await scope.rows.jobCustomers.first({ jobId });
  const customer = link?.customerId ? await scope.rows.customers.first({ id: link.customerId }) : null;
  if (!customer?.name && !customer?.contact) return nameless;
  const [row] = await scope.sql<{ told: Record<string, readonly Row[]> }>(
    "SELECT words_without($1::jsonb, name_pattern($2, $3), false) AS told",
    [JSON.stringify(nameless), customer.name, customer.contact],
  );
  return row?.told ?? nameless;
}

/** A family is sometimes called after whose units they are. */
async function withoutNamesOf(scope: Scope, wish: BundleWish, tables: Readonly<Record<string, readonly Row[]>>) {
  if (wish.withCustomers) return tables;
  let { jobFamilies } = tables;
  const links = await scope.rows.jobCustomers.all({ jobId: { [Op.in]: [...wish.jobIds] } }, [["jobId", "ASC"]]);
  const customerIds = links.flatMap((one) => one.customerId ?? []);
  for (const { name, contact } of await scope.rows.customers.all({ id: { [Op.in]: customerIds } }, [["id", "ASC"]])) {
    const [row] = await scope.sql<{ told: readonly Row[] | null }>(
      "SELECT words_without($1::jsonb, name_pattern($2, $3), false) AS told",
      [JSON.stringify(jobFamilies), name, contact],
    );
    jobFamilies = row?.told ?? jobFamilies;
  }
  return { ...tables, jobFamilies: jobFamilies ?? [] };
}

const csv = ({ fields, rows }: FileTable): string =>
  `${Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { newline: "\n", escapeFormulae: true })}\n`;

/** The same for a spreadsheet and a simulator; waveforms and samples of runs stand there alone. */
async function addTables(scope: Scope, jobId: string, add: (name: string, content: string) => void): Promise<void> {
  const detail = acrossBoards(await loadJob(scope, jobId));
  const folder = `jobs/${jobId}`;
  add(`${folder}/readings.csv`, csv(readingsTable(detail)));
  add(`${folder}/parts.csv`, csv(partsTable(detail)));
  add(`${folder}/positions.csv`, csv(positionsTable(detail.positions)));
  if (detail.nets.length > 0) add(`${folder}/rails.net`, railNetlist(jobFacts(detail), deviceName(detail.job)));
  for (const capture of await scope.rows.captures.all({ jobId }, [["id", "ASC"]])) {
    const packed = await readBlob(scope, capture.samplesSha256);
    if (!packed) continue;
    const bytes = await unzip(packed);
    const volts = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
    add(`${folder}/waveforms/${capture.id}.csv`, csv(waveformTable(volts, capture.analysis.intervalSeconds)));
  }
  const nameOf = (id: string | null) =>
    detail.nets.find((one) => one.id === id)?.name ?? detail.positions.find((one) => one.id === id)?.designator ?? null;
  for (const run of await loadRuns(scope, jobId)) {
    const rows = await scope.sql<{ number: number; sample: RunSample }>(
      "SELECT number, sample FROM proof_run_samples WHERE run_id = $1 ORDER BY number",
      [run.id],
    );
    add(`${folder}/runs/${run.id}.json`, canonicalJson(rows));
    add(
      `${folder}/runs/${run.id}.csv`,
      csv(
        runTable(
          run,
          rows.map((one) => one.sample),
          nameOf,
        ),
      ),
    );
  }
}

const endings: Readonly<Record<string, string>> = { "image/jpeg": "jpg", "image/png": "png" };

/** Photos as they are stored; one in another format leaves as JPEG. */
async function addPhotos(scope: Scope, jobId: string, add: (name: string, content: Buffer) => void): Promise<void> {
  for (const { id, imageSha256 } of await scope.rows.photos.all({ jobId }, [["id", "ASC"]])) {
    const blob = await scope.rows.blobs.first({ sha256: imageSha256 });
    const bytes = blob && (await readBlob(scope, imageSha256));
    if (!bytes) continue;
    const ending = endings[blob.mediaType];
    add(
      `jobs/${jobId}/photos/${id}.${ending ?? "jpg"}`,
      ending ? bytes : await sharp(bytes).jpeg({ quality: 90 }).toBuffer(),
    );
  }
}

interface SharedIds {
  readonly people: ReadonlySet<string>;
  readonly parts: ReadonlySet<string>;
  readonly revisions: ReadonlySet<string>;
  readonly families: ReadonlySet<string>;
}

/** What several jobs name: who did it, which catalogue parts, which kinds of board, which family. */
async function addShared(
  scope: Scope,
  wish: BundleWish,
  ids: SharedIds,
  add: (name: string, content: string) => void,
): Promise<void> {
  const among = (set: ReadonlySet<string>) => ({ [Op.in]: [...set] });
  const byId: [string, string][] = [["id", "ASC"]];
  const { rows } = scope;
  const named = await rows.boardTypeRevisions.all({ id: among(ids.revisions) }, byId);
  const whole = await rows.boardTypeRevisions.all({ boardTypeId: { [Op.in]: [...wish.boardTypeIds] } }, byId);
  const revisions = [...new Map([...named, ...whole].map((one) => [one.id, one])).values()].sort((a, b) =>
    a.id < b.id ? -1 : 1,
  );
  const typeIds = new Set([...wish.boardTypeIds, ...revisions.map((one) => one.boardTypeId)]);
  const people = await rows.people.all({ id: among(ids.people) }, byId);
  const tables = {
    people: people.map(({ id, name }) => ({ id, name })),
    catalogueParts: await rows.catalogueParts.all({ id: among(ids.parts) }, byId),
    boardTypes: (await rows.boardTypes.all({ id: among(typeIds) }, byId)).map(({ id, name, benchNotes }) => ({
      id,
      name,
      benchNotes,
    })),
    boardTypeRevisions: revisions,
    jobFamilies: await rows.jobFamilies.all({ id: among(ids.families) }, byId),
  };
  add("shared.json", canonicalJson(await withoutNamesOf(scope, wish, JSON.parse(JSON.stringify(tables)))));
}

import { promisify } from "node:util";
import { gzip } from "node:zlib";
import { type BundleJob, type BundlePreview, bundleLimits, photoLimits } from "@pale-cap/contract";
import Papa from "papaparse";
import { Op } from "sequelize";
import sharp from "sharp";
import { type AllRows, plainRows, type Scope } from "../database/scope";
import { saveBlob } from "../records/blobStore";
import { markStale } from "../summaries/markStale";
import { bundleTables, canonicalJson } from "./bundleTables";
import { refused } from "./readArchive";
import type { BundleRow, BundleRows, ReadBundle } from "./readBundle";
import { rowsOf } from "./writeBundle";

const zip = promisify(gzip);
const { thumbnailSidePixels, uploadPixels } = photoLimits;

/** What a bundle would bring: nothing is stored. */
export async function previewBundle(scope: Scope, bundle: ReadBundle): Promise<BundlePreview> {
  const { manifest, shared } = bundle;
  const jobs: BundleJob[] = [];
  for (const said of manifest.jobs) {
    const rows = bundle.jobs.get(said.id) as BundleRows;
    const here = await scope.rows.jobs.first({ id: said.id });
    const state = here ? await stateHere(scope, said.id, rows, manifest.hasCustomers) : "new";
    const reason = here ? null : await conflictOf(scope, rows);
    jobs.push({
      ...{ id: said.id, number: said.number, device: said.device, numberHere: here?.number ?? null, reason },
      state: reason === null ? state : "conflict",
      rowCount: Object.values(rows).reduce((sum, list) => sum + list.length, 0),
      photoCount: rows.photos?.length ?? 0,
    });
  }
  const known = async (name: "people" | "catalogueParts" | "boardTypes", list: readonly BundleRow[]) =>
    new Set((await tableOf(scope, name).all({ id: { [Op.in]: idsOf(list) } }, [["id", "ASC"]])).map((one) => one.id));
  const people = await known("people", shared.people ?? []);
  const parts = await partIdsHere(scope, shared.catalogueParts ?? []);
  const types = await known("boardTypes", shared.boardTypes ?? []);
  const named = (isHere: boolean) =>
    (shared.boardTypes ?? []).filter((one) => types.has(one.id) === isHere).map((one) => String(one.name));
  return {
    ...{ shop: manifest.shop, exportedAt: manifest.exportedAt, coreVersion: manifest.coreVersion, jobs },
    hasCustomers: manifest.hasCustomers,
    boardTypes: { new: named(false), here: named(true) },
    newPartCount: (shared.catalogueParts ?? []).filter((one) => !parts.has(one.id as string)).length,
    newPeople: (shared.people ?? []).filter((one) => !people.has(one.id)).map((one) => String(one.name)),
    unknownFields: bundle.unknownFields,
  };
}

/** The same rows, or others: what stands here stays in either case. */
async function stateHere(scope: Scope, jobId: string, rows: BundleRows, withCustomers: boolean) {
  const here = (await rowsOf(scope, jobId, withCustomers)).tables;
  return canonicalJson(here) === canonicalJson(rows) ? ("here" as const) : ("differs" as const);
}

/** An id of it that stands here on something else. */
async function conflictOf(scope: Scope, rows: BundleRows): Promise<string | null> {
  for (const { name } of bundleTables) {
    if (name === "jobCustomers" || name === "reportDocuments") continue;
    const [found] = await tableOf(scope, name).all({ id: { [Op.in]: idsOf(rows[name] ?? []) } }, [["id", "ASC"]]);
    if (found) return `its ${name} ${found.id} stands here on another job`;
  }
  return null;
}

const idsOf = (rows: readonly BundleRow[]) => rows.flatMap((one) => (typeof one.id === "string" ? [one.id] : []));

const tableOf = (scope: Scope, name: keyof AllRows) => plainRows(scope.rows, name);

/** Pixels and samples as they are stored, made before anything is held. */
export interface PreparedBlobs {
  readonly photos: ReadonlyMap<
    string,
    { readonly bytes: Buffer; readonly thumbnail: Buffer; readonly mediaType: string }
  >;
  readonly samples: ReadonlyMap<string, Buffer>;
}

/** Decodes every picture and every waveform: one that does not decode refuses the bundle. */
export async function prepareBlobs(bundle: ReadBundle): Promise<PreparedBlobs> {
  const photos = new Map<string, { bytes: Buffer; thumbnail: Buffer; mediaType: string }>();
  const samples = new Map<string, Buffer>();
  for (const [jobId, rows] of bundle.jobs) {
    for (const { id } of rows.photos ?? []) {
      const [name, bytes] = fileOf(bundle, [`jobs/${jobId}/photos/${id}.jpg`, `jobs/${jobId}/photos/${id}.png`]);
      const mediaType = name.endsWith(".png") ? "image/png" : "image/jpeg";
      const open = () => sharp(bytes, { limitInputPixels: uploadPixels, failOn: "error" });
      try {
        const { format } = await open().metadata();
        if (`image/${format}` !== mediaType) throw new Error(`it is a ${format}`);
        const resized = open().resize(thumbnailSidePixels, thumbnailSidePixels, {
          fit: "inside",
          withoutEnlargement: true,
        });
        const thumbnail = await (mediaType === "image/png" ? resized.png() : resized.jpeg({ quality: 86 })).toBuffer();
        photos.set(id as string, { bytes, thumbnail, mediaType });
      } catch {
        throw refused(`${name} is no picture that can be read.`);
      }
    }
    for (const { id, analysis } of rows.captures ?? []) {
      const [name, content] = fileOf(bundle, [`jobs/${jobId}/waveforms/${id}.csv`]);
      samples.set(id as string, await zip(samplesOf(content, name, (analysis as { sampleCount: number }).sampleCount)));
    }
  }
  return { photos, samples };
}

function fileOf(bundle: ReadBundle, names: readonly string[]): readonly [string, Buffer] {
  for (const name of names) {
    const content = bundle.files.get(name);
    if (content) return [name, content];
  }
  throw refused(`${names[0]} is missing.`);
}

function samplesOf(content: Buffer, name: string, count: number): Buffer {
  const { data } = Papa.parse<string[]>(content.toString("utf8"), { skipEmptyLines: true });
  const volts = Float32Array.from(data.slice(1), (row) => Number(row[1]));
  if (volts.length !== count || volts.some((one) => !Number.isFinite(one))) {
    throw refused(`${name} is not the waveform that its analysis speaks of.`);
  }
  return Buffer.from(volts.buffer);
}

/** Takes in every job that is new here, whole or not at all; what stands here already is left as it is. */
export async function importBundle(scope: Scope, bundle: ReadBundle, blobs: PreparedBlobs): Promise<readonly string[]> {
  const preview = await previewBundle(scope, bundle);
  const bad = preview.jobs.find((one) => one.state === "conflict");
  if (bad) throw refused(`Job ${bad.number} cannot be taken in: ${bad.reason}.`);
  const wanted = preview.jobs.filter((one) => one.state === "new").map((one) => one.id);
  const partIds = await takeShared(scope, bundle.shared);
  for (const jobId of wanted) await takeJob(scope, bundle, blobs, { jobId, partIds });
  const comebacks = bundle.manifest.jobs.filter((one) => wanted.includes(one.id) && one.comebackOf !== null);
  for (const { id, comebackOf } of comebacks) {
    const former = await scope.rows.jobs.first({ id: comebackOf as string });
    if (former) await scope.rows.jobs.update({ comebackOf }, { id });
  }
  return wanted;
}

/** @returns under which id each of its catalogue parts stands here */
async function takeShared(scope: Scope, shared: BundleRows): Promise<ReadonlyMap<string, string>> {
  const partIds = await partIdsHere(scope, shared.catalogueParts ?? []);
  const fresh = async (name: "people" | "boardTypes" | "boardTypeRevisions" | "jobFamilies", more: object = {}) => {
    const rows = shared[name] ?? [];
    const here = await tableOf(scope, name).all({ id: { [Op.in]: idsOf(rows) } }, [["id", "ASC"]]);
    const known = new Set(here.map((one) => one.id));
    await tableOf(scope, name).insertAll(rows.filter((one) => !known.has(one.id)).map((one) => ({ ...one, ...more })));
  };
  await fresh("people");
  await fresh("boardTypes", { version: 1 });
  await fresh("boardTypeRevisions");
  await fresh("jobFamilies");
  const newParts = (shared.catalogueParts ?? []).filter((one) => !partIds.has(one.id as string));
  await tableOf(scope, "catalogueParts").insertAll(newParts);
  return new Map([...partIds, ...newParts.map((one) => [one.id as string, one.id as string] as const)]);
}

/** A part is here under its own id, or under another where maker, series and order code are the same. */
async function partIdsHere(scope: Scope, parts: readonly BundleRow[]): Promise<ReadonlyMap<string, string>> {
  const found = new Map<string, string>();
  for (const { id, maker, series, orderCode } of parts) {
    const same = { maker, series, orderCode } as { maker: string; series: string; orderCode: string };
    const here =
      (await scope.rows.catalogueParts.first({ id: id as string })) ?? (await scope.rows.catalogueParts.first(same));
    if (here) found.set(id as string, here.id);
  }
  return found;
}

async function takeJob(
  scope: Scope,
  bundle: ReadBundle,
  blobs: PreparedBlobs,
  { jobId, partIds }: { readonly jobId: string; readonly partIds: ReadonlyMap<string, string> },
): Promise<void> {
  const { manifest } = bundle;
  const said = manifest.jobs.find((one) => one.id === jobId);
  const rows = bundle.jobs.get(jobId) as BundleRows;
  if (!said) return;
  const count = Object.values(rows).reduce((sum, list) => sum + list.length, 0);
  if (count > bundleLimits.rowsOfJob) throw refused(`Job ${said.number} has ${count} rows; that is no repair.`);
  const receipts = new Map(said.receipts.map((one) => [one.id, one]));
  await takeCustomers(scope, rows.customers ?? []);
  const facts: { readonly name: keyof AllRows; readonly row: object; readonly order: number }[] = [];
  for (const { name, isFact } of bundleTables) {
    const list = (rows[name] ?? []).map((row) => completed(name, row, partIds));
    if (isFact) {
      for (const row of list) {
        const { id } = row as { id: string };
        const receipt = receipts.get(id);
        if (!receipt) throw refused(`Job ${said.number}: ${name} ${id} has no receipt.`);
        const { sequence: order, receivedAt, clockAheadSeconds } = receipt;
        const stored = name.startsWith("proofRun") || name === "reports" ? {} : { receivedAt, clockAheadSeconds };
        facts.push({ name, row: { ...row, ...stored }, order });
      }
      continue;
    }
    if (name === "jobs") {
      const origin = {
        shop: manifest.shop ?? "another shop",
        number: said.number,
        importedAt: scope.now.toISOString(),
      };
      const realm = said.realm === "practice" ? "practice" : scope.realm;
      await tableOf(scope, name).insertAll(list.map((row) => ({ ...row, realm, origin, comebackOf: null })));
    } else if (name === "photos") {
      for (const row of list) await takePhoto(scope, row as { id: string }, blobs);
    } else if (name !== "reportDocuments") await tableOf(scope, name).insertAll(list);
  }
  await takeFacts(scope, facts, blobs);
  await tableOf(scope, "reportDocuments").insertAll(rows.reportDocuments ?? []);
  for (const { id } of rows.proofRuns ?? []) await takeSamples(scope, bundle, jobId, id as string);
  await markStale(scope, jobId);
}

/** What a row names of this shop: its drawer stays behind, its catalogue part is the one that stands here. */
function completed(name: keyof AllRows, row: BundleRow, partIds: ReadonlyMap<string, string>): object {
  if (!("cataloguePartId" in row) || typeof row.cataloguePartId !== "string") return row;
  const cataloguePartId = partIds.get(row.cataloguePartId);
  if (!cataloguePartId) throw refused(`A ${name} names a catalogue part that is not in it.`);
  return { ...row, cataloguePartId };
}

async function takeCustomers(scope: Scope, customers: readonly BundleRow[]): Promise<void> {
  for (const row of customers) {
    const known = await scope.rows.customers.has({ id: row.id as string });
    if (!known) await tableOf(scope, "customers").insertAll([row]);
  }
}

async function takePhoto(scope: Scope, row: { readonly id: string }, blobs: PreparedBlobs): Promise<void> {
  const picture = blobs.photos.get(row.id);
  if (!picture) throw refused(`Photo ${row.id} is missing.`);
  const imageSha256 = await saveBlob(scope, picture.bytes, picture.mediaType);
  const thumbnailSha256 = await saveBlob(scope, picture.thumbnail, picture.mediaType);
  await tableOf(scope, "photos").insertAll([{ ...row, imageSha256, thumbnailSha256 }]);
}

/** In the order in which they were stored where they come from: each gets the next place of this shop's order. */
async function takeFacts(
  scope: Scope,
  facts: readonly { readonly name: keyof AllRows; readonly row: object; readonly order: number }[],
  blobs: PreparedBlobs,
): Promise<void> {
  const inOrder = [...facts].sort((a, b) => a.order - b.order);
  const places = await scope.sql<{ place: string }>(
    "SELECT nextval('fact_sequence') AS place FROM generate_series(1, $1::int) ORDER BY 1",
    [inOrder.length],
  );
  const byTable = new Map<keyof AllRows, object[]>();
  for (const [n, { name, row }] of inOrder.entries()) {
    let whole: object = { ...row, sequence: Number(places[n]?.place) };
    if (name === "captures") {
      const bytes = blobs.samples.get((row as { id: string }).id);
      if (!bytes) throw refused("A waveform is missing.");
      whole = { ...whole, samplesSha256: await saveBlob(scope, bytes, "application/octet-stream") };
    }
    byTable.set(name, [...(byTable.get(name) ?? []), whole]);
  }
  // From what is pointed at to what points.
  for (const { name } of bundleTables) await tableOf(scope, name).insertAll(byTable.get(name) ?? []);
}

const mostSamplesAtOnce = 2000;

async function takeSamples(scope: Scope, bundle: ReadBundle, jobId: string, runId: string): Promise<void> {
  const [name, content] = fileOf(bundle, [`jobs/${jobId}/runs/${runId}.json`]);
  let rows: unknown;
  try {
    rows = JSON.parse(content.toString("utf8"));
  } catch {
    throw refused(`${name} is no JSON.`);
  }
  const isRow = (one: unknown): one is { number: number; sample: object } =>
    typeof one === "object" &&
    one !== null &&
    Number.isSafeInteger((one as { number?: unknown }).number) &&
    isSample((one as { sample?: unknown }).sample);
  if (!Array.isArray(rows) || !rows.every(isRow)) throw refused(`${name} holds what is no sample.`);
  for (let at = 0; at < rows.length; at += mostSamplesAtOnce) {
    await scope.sql(
      `INSERT INTO proof_run_samples (run_id, number, sample, stored_at)
       SELECT $1, (one->>'number')::int, one->'sample', $3 FROM jsonb_array_elements($2::jsonb) AS one RETURNING run_id`,
      [runId, JSON.stringify(rows.slice(at, at + mostSamplesAtOnce)), scope.now],
    );
  }
}

/** What a chart draws of a sample is there, and is numbers or nothing. */
function isSample(sample: unknown): boolean {
  if (typeof sample !== "object" || sample === null) return false;
  const { seconds, step, rails, celsius } = sample as Record<string, unknown>;
  const isRail = (one: unknown) =>
    typeof one === "object" && one !== null && typeof (one as { netId?: unknown }).netId === "string";
  return (
    [seconds, step].every(Number.isFinite) && Array.isArray(rails) && rails.every(isRail) && Array.isArray(celsius)
  );
}

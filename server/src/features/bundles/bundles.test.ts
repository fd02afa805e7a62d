import { type BundlePreview, foldHouseRules, type JobDetail, jobFacts, jobRules } from "@pale-cap/contract";
import { judgeBoard, roundView } from "@pale-cap/core";
import { ZipArchive } from "archiver";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { readArchive } from "../../bundles/readArchive";
import { openDatabase } from "../../database/database";
import { loadDemoShop } from "../../database/demo/loadDemoShop";
import { newId, openTestApp, type TestApp } from "../../testing/testApp";

let shop: TestApp;
let other: TestApp;
let jobIds: readonly string[];
beforeAll(async () => {
  shop = await openTestApp({}, "demo");
  const owner = openDatabase(shop.urls.owner, "demo");
  await loadDemoShop(owner, new Date("2026-11-23T12:00:00Z"));
  await owner.close();
  other = await openTestApp();
  const jobs = await shop.inScope(({ rows }) => rows.jobs.all({ handedOverAt: null }, [["number", "ASC"]]));
  jobIds = jobs.map((one) => one.id);
});
afterAll(async () => {
  await shop.close();
  await other.close();
});

const pack = async (files: ReadonlyMap<string, Buffer | string>, more?: (zip: ZipArchive) => void): Promise<Buffer> => {
  const zip = new ZipArchive({ zlib: { level: 6 }, forceUTC: true });
  const chunks: Buffer[] = [];
  zip.on("data", (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise((resolve) => zip.on("end", resolve));
  for (const [name, content] of files) zip.append(content, { name });
  more?.(zip);
  await zip.finalize();
  await ended;
  return Buffer.concat(chunks);
};
const bundleOf = async (test: TestApp, jobId: string, customers: "yes" | "no" = "yes") =>
  (await request(test.app).get(`/api/jobs/${jobId}/bundle?customers=${customers}`).responseType("blob").expect(200))
    .body as Buffer;
const send = (test: TestApp, path: string, bytes: Buffer, id = newId()) =>
  request(test.app)
    .post(`/api/bundles/${path}`)
    .field("about", JSON.stringify({ id, personId: null }))
    .attach("bundle", bytes, "bundle.zip");
const preview = async (test: TestApp, bytes: Buffer) => {
  const { status, body } = await send(test, "preview", bytes);
  expect(status, JSON.stringify(body)).toBe(200);
  return body as BundlePreview;
};
/** A name that no honest program writes, put where another of its length stood. */
const renamed = (bytes: Buffer, from: string, to: string) =>
  Buffer.from(bytes.toString("latin1").replaceAll(from, to), "latin1");
const load = async (test: TestApp, jobId: string) =>
  (await request(test.app).get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
/** A bundle with something changed in it, its list of sums put right. */
async function changed(
  bytes: Buffer,
  change: (files: Map<string, string>) => void,
  more: object = {},
): Promise<Buffer> {
  const { sha256Of } = await import("../../bundles/writeBundle");
  const files = new Map([...(await readArchive(bytes))].map(([name, content]) => [name, content.toString("latin1")]));
  change(files);
  const manifest = JSON.parse(files.get("manifest.json") as string) as { files: { name: string }[] };
  const listed = manifest.files.flatMap(({ name }) => {
    const content = Buffer.from(files.get(name) ?? "", "latin1");
    return files.has(name) ? [{ name, sha256: sha256Of(content), bytes: content.length }] : [];
  });
  files.set("manifest.json", JSON.stringify({ ...manifest, files: listed, ...more }));
  return pack(new Map([...files].map(([name, content]) => [name, Buffer.from(content, "latin1")])));
}
const counts = async (test: TestApp) =>
  Promise.all(
    ["jobs", "readings", "photos", "people", "catalogue_parts", "accepted_writes", "blobs"].map((one) =>
      test.count(one),
    ),
  );

const { judgement } = jobRules(foldHouseRules([]));
const verdicts = (detail: JobDetail) =>
  [...judgeBoard(roundView(jobFacts(detail)), judgement)].map(([id, one]) => [id, one.verdict, one.failedProbability]);

describe("a job as a bundle", () => {
  it("enters an empty shop and leaves it again byte for byte, whatever hangs on it", async () => {
    expect(jobIds.length).toBeGreaterThan(4);
    for (const jobId of jobIds) {
      const bytes = await bundleOf(shop, jobId);
      const told = await preview(other, bytes);
      expect(told.jobs).toMatchObject([{ id: jobId, state: "new", numberHere: null }]);
      expect(told.unknownFields).toEqual([]);
      const { body, status } = await send(other, "imports", bytes);
      expect(status, JSON.stringify(body)).toBe(201);
      expect((body as BundlePreview).jobs).toMatchObject([{ state: "here" }]);
      const [before, after] = [await readArchive(bytes), await readArchive(await bundleOf(other, jobId))];
      expect([...after.keys()]).toEqual([...before.keys()]);
      for (const [name, content] of before) {
        if (name !== "manifest.json") expect(after.get(name)?.equals(content), name).toBe(true);
      }
      const [there, here] = [await load(shop, jobId), await load(other, jobId)];
      expect(here.job.origin).toMatchObject({ number: there.job.number });
      expect(here.readings.map((one) => [one.id, one.value])).toEqual(there.readings.map((one) => [one.id, one.value]));
      expect(verdicts(here)).toEqual(verdicts(there));
      for (const { id } of here.photos) await request(other.app).get(`/api/photos/${id}/thumbnail`).expect(200);
    }
    const all = await Promise.all(jobIds.map((one) => load(other, one)));
    expect(all.some((one) => one.photos.length > 0)).toBe(true);
    expect(all.some((one) => one.captures.length > 0)).toBe(true);
    expect(all.some((one) => one.ticks.length > 0)).toBe(true);
  });

  it("is skipped where it stands already, and what was changed here stays", async () => {
    const [jobId] = jobIds as [string];
    const bytes = await bundleOf(shop, jobId);
    await other.inScope(({ rows }) => rows.jobs.update({ complaint: "ours now" }, { id: jobId }));
    const before = await counts(other);
    expect((await preview(other, bytes)).jobs).toMatchObject([{ state: "differs" }]);
    await send(other, "imports", bytes).expect(201);
    const [, ...rest] = (await counts(other)).reverse();
    expect(rest.reverse().slice(0, 5)).toEqual(before.slice(0, 5));
    expect((await load(other, jobId)).job.complaint).toBe("ours now");
  });

  it("leaves without its customer unless it is asked for", async () => {
    const jobId = jobIds.at(2) as string;
    await shop.inScope(async ({ rows }) => {
      await rows.customers.upsert({ id: jobId, name: "Ruta Kalnina", contact: null });
      await rows.jobCustomers.upsert({ jobId, customerId: jobId, ownersWords: "it hums at night" });
      await rows.jobs.update({ symptomNote: "Kalnina says: only in the morning" }, { id: jobId });
    });
    const text = async (customers: "yes" | "no") =>
      [...(await readArchive(await bundleOf(shop, jobId, customers))).values()]
        .map((one) => one.toString("utf8"))
        .join("\n");
    expect(await text("yes")).toContain("Ruta Kalnina");
    const without = await text("no");
    expect(without).toContain("[erased] says: only in the morning");
    expect(without).not.toMatch(/Kalnina|hums at night/);
    // The same job, told without its customer, is no other one.
    expect((await preview(shop, await bundleOf(shop, jobId, "no"))).jobs).toMatchObject([{ state: "here" }]);
  });

  it("of a later minor version tells what it does not know and leaves it out", async () => {
    const jobId = jobIds.at(2) as string;
    const bytes = await changed(
      await bundleOf(shop, jobId),
      (files) => {
        const name = `jobs/${jobId}/job.json`;
        const rows = JSON.parse(files.get(name) as string) as Record<string, Record<string, unknown>[]>;
        for (const row of rows.positions ?? []) row.reflowed = true;
        files.set(name, JSON.stringify({ ...rows, dreams: [{ id: newId() }] }));
      },
      { minor: 7 },
    );
    const fresh = await openTestApp();
    try {
      expect((await preview(fresh, bytes)).unknownFields).toEqual(["dreams", "positions.reflowed"]);
      await send(fresh, "imports", bytes).expect(201);
      expect((await load(fresh, jobId)).positions[0]).not.toHaveProperty("reflowed");
    } finally {
      await fresh.close();
    }
  });

  it("is refused with a reason where it is a trick, and leaves nothing behind", async () => {
    const jobId = jobIds.at(2) as string;
    const good = await bundleOf(shop, jobId);
    const job = `jobs/${jobId}/job.json`;
    const rowsOf = (files: Map<string, string>) =>
      JSON.parse(files.get(job) as string) as Record<string, Record<string, unknown>[]>;
    const withRow = (table: string, change: object) =>
      changed(good, (files) => {
        const rows = rowsOf(files);
        Object.assign(rows[table]?.[0] ?? {}, change);
        files.set(job, JSON.stringify(rows));
      });
    const files = await readArchive(good);
    const withFile = (name: string, content: string | Buffer) =>
      new Map<string, string | Buffer>([...files, [name, content]]);
    const zeros = Buffer.alloc(90 * 1024 * 1024);
    const claim = (bytes: Buffer) => {
      const crowded = Buffer.from(bytes);
      crowded.writeUInt16LE(0xffff - 1, crowded.length - 22 + 10);
      crowded.writeUInt16LE(0xffff - 1, crowded.length - 22 + 8);
      return crowded;
    };
    const spoilt = Buffer.from(good);
    const at = spoilt.indexOf(Buffer.from("manifest.json")) + 200;
    spoilt[at] = (spoilt[at] ?? 0) ^ 0xff;
    const fresh = await openTestApp();
    try {
      const nothing = await counts(fresh);
      const tricks: readonly (readonly [string, Buffer, RegExp])[] = [
        ["no archive", Buffer.from("hello"), /no archive/],
        ["cut short", good.subarray(0, good.length - 400), /no archive/],
        ["a way out", renamed(await pack(withFile("aa/bb/etc/passwd", "x")), "aa/bb/etc", "../../etc"), /archive|name/],
        ["a backslash", renamed(await pack(withFile("jobs_x.json", "x")), "jobs_x", "jobs\\x"), /archive|name|list/],
        ["a hidden name", await pack(withFile("jobs/.x", "x")), /name/],
        ["a link", await pack(files, (zip) => zip.symlink("jobs/link", "/etc/passwd")), /link/],
        ["twice", await pack(files, (zip) => zip.append("x", { name: "shared.json" })), /twice/],
        ["a bomb", await pack(withFile("jobs/zeros.json", zeros)), /too large/],
        ["a crowd", claim(good), /files|archive/],
        ["spoilt", spoilt, /sum|unpacked|archive/],
        ["another sum", await pack(withFile("shared.json", "{}")), /sum differs/],
        ["not listed", await pack(withFile("more.json", "{}")), /not in its list/],
        ["a later major", await changed(good, () => undefined, { major: 2 }), /format 2/],
        ["no such word", await withRow("jobs", { deviceKind: "toaster" }), /cannot be/],
        ["not finite", await withRow("positions", { xMetres: "wide" }), /cannot be/],
        ["another job's", await withRow("boards", { jobId: newId() }), /another job/],
        ["a strange act", await withRow("nets", { section: "cellar" }), /cannot be/],
      ];
      for (const [name, bytes, reason] of tricks) {
        for (const path of ["preview", "imports"]) {
          const answer = await send(fresh, path, bytes);
          expect(answer.status, `${name} ${path} ${JSON.stringify(answer.body).slice(0, 300)}`).toBe(422);
          expect((answer.body as { detail: string }).detail, name).toMatch(reason);
        }
      }
      expect(await counts(fresh)).toEqual(nothing);
    } finally {
      await fresh.close();
    }
  });
});

import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { CustomerState, JobDetail, ReportVersion } from "@pale-cap/contract";
import pg from "pg";
import { pino } from "pino";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { logSerializers } from "../../http/logging";
import { repeatErasures } from "../../records/erasures";
import { readPdf } from "../../testing/readPdf";
import { makeJob, makePart, newId, openTestApp, readingBody, type TestApp, testClock } from "../../testing/testApp";

let test: TestApp;
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "pale-cap-backups-"));
  test = await openTestApp({ backupFolder: folder });
});
afterAll(async () => {
  await test.close();
  rmSync(folder, { recursive: true, force: true });
});

const at = "2026-11-23T11:00:00.000Z";
const said = { clockId: testClock, personId: null };
const post = (path: string, body: object) => request(test.app).post(`/api${path}`).send(body);
const load = async (jobId: string) => (await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail;
const customer = async (jobId: string) =>
  (await request(test.app).get(`/api/jobs/${jobId}/customer`)).body as CustomerState;

/** Every row of every table as one dump would have it. */
async function rowsWith(pattern: string): Promise<readonly string[]> {
  const client = new pg.Client({ connectionString: test.urls.owner });
  await client.connect();
  try {
    const tables = await client.query("SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public'");
    const found: string[] = [];
    for (const { name } of tables.rows as { name: string }[]) {
      const { rows } = await client.query(`SELECT t::text AS row FROM "${name}" t WHERE t::text ~* $1`, [pattern]);
      found.push(...rows.map((one: { row: string }) => `${name}: ${one.row.slice(0, 200)}`));
    }
    return found;
  } finally {
    await client.end();
  }
}

/** A job in which the customer's name stands wherever somebody may have typed it. Its name is also a code of documents. */
async function jobOf(name: string): Promise<string> {
  const word = name.split(" ").at(-1) ?? "";
  const jobId = await makeJob(test.app);
  const part = await makePart(test.app, jobId, "C1");
  const { job } = await load(jobId);
  const { deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, symptoms, priceLimitMinor, dueOn } = job;
  const details = { ...job.intakeDetails, asReceived: { ...job.intakeDetails.asReceived, lights: `as ${name} says` } };
  await request(test.app)
    .patch(`/api/jobs/${jobId}/intake`)
    .send({
      ...{ writeId: newId(), version: job.version },
      values: {
        ...{ deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, symptoms, priceLimitMinor, dueOn },
        ...{ complaint: `${name}'s monitor is dead`, symptomNote: `call ${name} first`, intakeDetails: details },
        ...{
          customerName: name,
          customerContact: `${word}@mail.invalid, 0171 5550${word.length}99`,
          ownersWords: `it smelt, ${word}`,
        },
      },
    })
    .expect(200);
  await post(`/jobs/${jobId}/readings`, readingBody(part, { rawText: `6.2 ${name}` })).expect(201);
  const act = { kind: "mechanical", subjectId: null, word: null, note: `lid of Mrs ${word} glued`, at, ...said };
  await post(`/jobs/${jobId}/acts`, { id: newId(), ...act }).expect(201);
  const accepted = { key: "never_powered", reason: `${name} wants it so`, acceptedAt: at, ...said };
  await post(`/jobs/${jobId}/acceptances`, { id: newId(), ...accepted }).expect(201);
  const quoteId = newId();
  const line = { kind: "other", words: `for ${name}`, quantity: 1, unitMinor: 1000 };
  const quote = { lines: [line], taxRatio: 0.19, validDays: 14, note: `told ${name}`, at, ...said };
  await post(`/jobs/${jobId}/quotes`, { id: quoteId, ...quote }).expect(201);
  const answer = {
    quoteId,
    word: "yes",
    limitMinor: null,
    byWhom: `${word}'s Brother-in-law`,
    way: "phone",
    at,
    ...said,
  };
  await post(`/jobs/${jobId}/quote-answers`, { id: newId(), ...answer }).expect(201);
  const closing = { handedOverAt: at, warrantyMonths: 6, spentMinutes: 10, note: `${name} fetched it` };
  const { version } = (await load(jobId)).job;
  await post(`/jobs/${jobId}/hand-over`, { id: newId(), version, ...closing, isReopened: false, ...said }).expect(200);
  return jobId;
}

async function report(jobId: string): Promise<string> {
  const [first] = (await request(test.app).get(`/api/jobs/${jobId}/reports`)).body as ReportVersion[];
  const path = `/api/jobs/${jobId}/reports/${first?.id}/file?audience=record`;
  return (await readPdf((await request(test.app).get(path).responseType("blob").expect(200)).body as Buffer)).text;
}

describe("a log line", () => {
  it("says what failed and where, and never what was looked for or asked with", async () => {
    const lines: string[] = [];
    const logger = pino({ serializers: logSerializers }, { write: (line: string) => lines.push(line) });
    const broken = await openTestApp({ logger });
    const client = new pg.Client({ connectionString: broken.urls.owner });
    await client.connect();
    await client.query("ALTER TABLE job_summaries RENAME TO gone");
    await client.end();
    await request(broken.app).get("/api/bench?state=closed&search=Kalnina").expect(500);
    await broken.close();
    expect(lines.join("")).toMatch(/request failed/);
    expect(lines.join("")).toContain("/api/bench");
    expect(lines.join("")).not.toMatch(/Kalnina/i);
  });
});

describe("a customer who is erased", () => {
  it("is in no row and no report any more, and the technical record reads on", async () => {
    const jobId = await jobOf("Marta Heading");
    const other = await jobOf("Piet Klaas");
    await test.heavy.settled();
    expect(await report(jobId)).toContain("Marta Heading");
    const { customerId, jobNumbers } = await customer(jobId);
    expect(jobNumbers).toHaveLength(1);
    // Of somebody else's job nothing is erased by this address.
    const wrong = { id: newId(), customerId: (await customer(other)).customerId, personId: null };
    await post(`/jobs/${jobId}/customer/erasure`, wrong).expect(409);
    const erasure = { id: newId(), customerId, personId: null };
    const { body } = await post(`/jobs/${jobId}/customer/erasure`, erasure).expect(200);
    expect((body as CustomerState).erasedAt).not.toBeNull();
    await post(`/jobs/${jobId}/customer/erasure`, erasure).expect(200);
    await test.heavy.settled();
    // Codes that read like the name are no name: the blocks of its reports are what they were.
    expect(await rowsWith("marta|5550799|heading@|mrs heading|it smelt, heading|heading's brother")).toEqual([]);
    const words = await report(jobId);
    expect(words).toContain("[erased]'s monitor is dead");
    expect(words).toContain("Findings, before and after");
    expect(words).not.toMatch(/Marta|Heading/);
    expect((await load(jobId)).job).toMatchObject({ customerName: null, ownersWords: null });
    expect(await report(other)).toContain("Piet Klaas");
  });

  it("is erased again after an older day was restored, and by nobody who was not", async () => {
    const jobId = await jobOf("Sanna Uotila");
    const { customerId } = await customer(jobId);
    const before = await rowsWith("uotila");
    await post(`/jobs/${jobId}/customer/erasure`, { id: newId(), customerId, personId: null }).expect(200);
    expect(readFileSync(join(folder, "erasures.jsonl"), "utf8")).toContain(customerId);
    // The backup of the day before is back.
    const client = new pg.Client({ connectionString: test.urls.owner });
    await client.connect();
    await client.query("UPDATE customers SET name = 'Sanna Uotila', erased_at = NULL WHERE id = $1", [customerId]);
    await client.query("UPDATE jobs SET complaint = 'Uotila again' WHERE id = $1", [jobId]);
    await client.end();
    expect(await repeatErasures(test.database, folder, new Date())).toBe(1);
    expect(await repeatErasures(test.database, folder, new Date())).toBe(0);
    await test.heavy.settled();
    expect(before.length).toBeGreaterThan(5);
    expect(await rowsWith("uotila")).toEqual([]);
  });

  it("goes out of prose wherever it is nested, and out of no code", async () => {
    const before = {
      kind: "heading",
      reasons: { part: "as Heading said" },
      rows: [["Heading"]],
      blocks: [{ words: "x heading." }],
    };
    const [row] = await test.inScope(({ sql }) =>
      sql<{ after: object }>("SELECT words_without($1::jsonb, name_pattern($2, NULL), false) AS after", [
        JSON.stringify(before),
        "Marta Heading",
      ]),
    );
    expect(row?.after).toEqual({
      ...{ kind: "heading", reasons: { part: "as [erased] said" } },
      ...{ rows: [["[erased]"]], blocks: [{ words: "x [erased]." }] },
    });
  });

  it("leaves room for somebody new on the same job, who is not taken for the one before", async () => {
    const jobId = await makeJob(test.app);
    const edit = async (customerName: string | null) => {
      const { job } = await load(jobId);
      const { deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, complaint, symptoms } = job;
      const { symptomNote, priceLimitMinor, dueOn, intakeDetails } = job;
      const kept = { deviceKind, deviceMaker, deviceModel, deviceSerial, deviceAgeYears, complaint, symptoms };
      const values = { ...kept, symptomNote, priceLimitMinor, dueOn, intakeDetails, customerName };
      await request(test.app)
        .patch(`/api/jobs/${jobId}/intake`)
        .send({
          ...{ writeId: newId(), version: job.version },
          values: { ...values, customerContact: null, ownersWords: null },
        })
        .expect(200);
    };
    await edit("Arno Beck");
    const { customerId } = await customer(jobId);
    await post(`/jobs/${jobId}/customer/erasure`, { id: newId(), customerId, personId: null }).expect(200);
    await edit(null);
    expect((await load(jobId)).job.customerErasedAt).not.toBeNull();
    await edit("Tilda Rosso");
    expect((await load(jobId)).job).toMatchObject({ customerName: "Tilda Rosso", customerErasedAt: null });
    expect(await rowsWith("arno|beck")).toEqual([]);
  });
});

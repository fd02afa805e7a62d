import { type BenchPage, benchPageSize, type Problem } from "@pale-cap/contract";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { benchLines, makeJob, makePart, newId, openTestApp, type TestApp, testClock } from "../../testing/testApp";

const noon = Date.parse("2026-11-23T12:00:00Z");
let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const page = async (query = "") => (await request(test.app).get(`/api/bench${query}`).expect(200)).body as BenchPage;
const lineOf = async (jobId: string) => (await page()).lines.find((line) => line.id === jobId);
const folded = async () => {
  await benchLines(test);
};
const handOver = (jobId: string, version = 1) =>
  request(test.app)
    .post(`/api/jobs/${jobId}/hand-over`)
    .send({
      ...{ id: newId(), version, isReopened: false, handedOverAt: "2026-11-23T12:00:00Z", warrantyMonths: 6 },
      ...{ spentMinutes: null, note: null, clockId: testClock, personId: null },
    })
    .expect(200);

/** As many jobs as that one, with its summary: made in the database, since what is asked is only how they are listed. */
async function copiesOf(jobId: string, count: number): Promise<readonly string[]> {
  const ids = Array.from({ length: count }, newId);
  await test.inScope(async ({ rows, sql }) => {
    const [job, summary] = [await rows.jobs.first({ id: jobId }), await rows.jobSummaries.first({ jobId })];
    const numbers = await sql<{ number: number }>(
      "SELECT nextval(pg_get_serial_sequence('jobs', 'number'))::int AS number FROM generate_series(1, $1::int)",
      [count],
    );
    const numbered = ids.map((id, n) => ({ id, number: numbers[n]?.number as number }));
    await rows.jobs.insertAll(numbered.map((one) => ({ ...job, ...one })));
    await rows.jobSummaries.insertAll(numbered.map(({ id, number }) => ({ ...summary, jobId: id, number })));
  });
  return ids;
}

describe("the bench", () => {
  it("has every open job, however many were closed after it", async () => {
    const first = await makeJob(test.app, { complaint: "the oldest" });
    const second = await makeJob(test.app);
    await folded();
    const after = await copiesOf(second, benchPageSize + 5);
    // One is handed over; the rest is closed as handing over leaves it, without the reports that belong to it.
    await handOver(second);
    const closed = after.filter((_, n) => n % 2 === 0);
    await folded();
    await test.inScope(async ({ rows }) => {
      await rows.jobs.update({ handedOverAt: new Date(noon) }, { id: closed });
      await rows.jobSummaries.update({ isClosed: true }, { jobId: closed });
    });
    const open = await page();
    expect(open.lines.every((line) => line.handedOverAt === null)).toBe(true);
    expect(open.lines.map((line) => line.id)).toContain(first);
    expect(open.lines.length).toBe(open.total);
    const numbers = open.lines.map((line) => line.number);
    expect(numbers).toEqual([...numbers].sort((a, b) => b - a));
  });

  it("comes in pages that hold each job once", async () => {
    const one = await makeJob(test.app);
    await folded();
    await copiesOf(one, benchPageSize);
    const first = await page();
    expect(first.lines).toHaveLength(benchPageSize);
    const second = await page(`?below=${first.nextBelow}`);
    expect(second.nextBelow).toBeNull();
    const all = [...first.lines, ...second.lines].map((line) => line.id);
    expect([new Set(all).size, all.length]).toEqual([first.total, first.total]);
  });

  it("finds jobs by words of device, fault and number, whatever a word holds", async () => {
    const id = await makeJob(test.app, { deviceMaker: "Vellamo", deviceModel: "B_12%", complaint: "ticks, then dark" });
    await folded();
    const found = async (words: string) =>
      (await page(`?search=${encodeURIComponent(words)}`)).lines.map((line) => line.id);
    expect(await found("vellamo DARK")).toEqual([id]);
    expect(await found("b_12%")).toEqual([id]);
    // Neither mark stands for anything but itself.
    expect(await found("b%2")).toEqual([]);
    expect(await found("v_llamo")).toEqual([]);
    expect(await found("vellamo bright")).toEqual([]);
    const number = (await lineOf(id))?.number;
    expect(await found(String(number).padStart(4, "0"))).toContain(id);
  });

  it("refuses a page that is none", async () => {
    for (const query of ["?state=lost", "?below=0", "?below=x", `?search=${"x".repeat(81)}`]) {
      const answer = await request(test.app).get(`/api/bench${query}`).expect(422);
      expect((answer.body as Problem).code).toBe("invalid_body");
    }
  });
});

describe("the charge on the bench", () => {
  async function verified() {
    const jobId = await makeJob(test.app);
    const part = await makePart(test.app, jobId);
    const storeId = newId();
    const store = { id: storeId, name: "Bulk", kind: "bulk", positionId: part.positionId, netId: null };
    const values = { capacitanceFarads: 1e-4, expectedVolts: 325, bleederOhms: null, drainOhms: null };
    await request(test.app)
      .post(`/api/jobs/${jobId}/energy-stores`)
      .send({ ...store, ...values })
      .expect(201);
    const measured = (volts: number, secondsAgo = 0) =>
      request(test.app)
        .post(`/api/jobs/${jobId}/charge-events`)
        .send({
          ...{ id: newId(), storeId, kind: "voltage_measured", volts, resistanceOhms: null, drainItem: null },
          ...{
            isMeterProved: true,
            at: new Date(test.now() - secondsAgo * 1000).toISOString(),
            clockId: testClock,
            personId: null,
          },
        })
        .expect(201);
    await measured(311, 90);
    await measured(2, 60);
    await measured(2);
    await folded();
    return { jobId, measured };
  }

  it("is verified while it counts, and unknown from the moment it expires, without any write", async () => {
    test.setNow(new Date(noon));
    const { jobId } = await verified();
    const before = await lineOf(jobId);
    expect(before).toMatchObject({ chargeName: "verified", chargeVolts: 2 });
    test.setNow(new Date(noon + 1800e3));
    expect((await lineOf(jobId))?.chargeName).toBe("verified");
    test.setNow(new Date(noon + 1801e3));
    const after = await lineOf(jobId);
    expect(after).toMatchObject({ chargeName: "unknown", chargeVolts: null });
    // Nobody had a hand at the mains side: time alone opens no point.
    expect(after?.openPointCount).toBe(before?.openPointCount);
    test.setNow(new Date(noon));
  });

  it("is unknown while it is not folded yet", async () => {
    test.setNow(new Date(noon));
    const { jobId } = await verified();
    await test.inScope(({ rows }) => rows.jobSummaries.update({ isStale: true }, { jobId }));
    expect(await lineOf(jobId)).toMatchObject({ chargeName: "unknown", chargeVolts: null });
  });

  it("stays stale where a write came while it was folded", async () => {
    const { jobId } = await verified();
    await test.inScope(({ rows }) => rows.jobSummaries.update({ isStale: true, marked: 999 }, { jobId }));
    // What a fold of an older mark would store finds no row.
    await test.inScope(({ rows }) => rows.jobSummaries.update({ isStale: false }, { jobId, marked: 998 }));
    const row = await test.inScope(({ rows }) => rows.jobSummaries.first({ jobId }));
    expect(row?.isStale).toBe(true);
  });
});

describe("a changed rule", () => {
  it("marks open jobs and leaves closed ones as they are", async () => {
    const [open, closed] = [await makeJob(test.app), await makeJob(test.app)];
    await handOver(closed);
    await folded();
    const marks = () =>
      test.inScope(async ({ rows }) => {
        const [one, other] = [
          await rows.jobSummaries.first({ jobId: open }),
          await rows.jobSummaries.first({ jobId: closed }),
        ];
        return [one?.marked ?? 0, other?.marked ?? 0] as const;
      });
    const before = await marks();
    await request(test.app)
      .post("/api/house-rules/changes")
      .send({
        ...{ id: newId(), key: "charge.workingVolts", value: 5, reason: null, changedAt: "2026-11-23T12:00:00Z" },
        ...{ version: 0, clockId: testClock, personId: null },
      })
      .expect(201);
    expect(await marks()).toEqual([before[0] + 1, before[1]]);
    await test.heavy.settled();
    expect((await test.inScope(({ rows }) => rows.jobSummaries.first({ jobId: open })))?.isStale).toBe(false);
  });
});

import type { HandOver } from "@pale-cap/contract";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { HttpProblem } from "../http/problems";
import { makeJob, newId, openTestApp, type TestApp } from "../testing/testApp";
import { saveBlob } from "./blobStore";
import { closingOf } from "./closing";
import { formerJob } from "./formerJob";
import { requireRoom } from "./jobRoom";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const update = (jobId: string, values: Readonly<Record<string, string | null>>) =>
  test.inScope(({ sql }) =>
    sql(`UPDATE jobs SET ${Object.keys(values).map((name, n) => `${name} = $${n + 2}`)} WHERE id = $1 RETURNING id`, [
      jobId,
      ...Object.values(values),
    ]),
  );

describe("the promise of a unit that leaves", () => {
  /** A repaired unit that was in the shop from 1 to 11 March, back from a job whose promise ended so. */
  async function promised(formerUntil: string | null, kind: string | null): Promise<string | null> {
    const [former, jobId] = [await makeJob(test.app), await makeJob(test.app)];
    await update(former, { handed_over_at: "2026-09-20T10:00:00Z", warranty_until: formerUntil });
    const from: Readonly<Record<string, string>> = kind === null ? {} : { comeback_of: former, comeback_kind: kind };
    await update(jobId, { created_at: "2027-03-01T10:00:00Z", ...from });
    const body = {
      ...{ id: newId(), version: 1, isReopened: false, handedOverAt: "2027-03-11T10:00:00.000Z", warrantyMonths: 3 },
      ...{ spentMinutes: 25, note: "fan cleaned", clockId: null, personId: null },
    } as HandOver;
    const closing = await test.inScope((scope) => closingOf(scope, jobId, body));
    expect(closing).toMatchObject({ handedOverAt: body.handedOverAt, spentMinutes: 25, handOverNote: "fan cleaned" });
    return closing.warrantyUntil;
  }

  it("goes on by the days in the shop where the same fault is back in time, and is the house's own otherwise", async () => {
    expect(await promised("2027-08-31", "same_fault")).toBe("2027-09-10");
    // A day of the shop before it was over still counts; the house's own is later then.
    expect(await promised("2027-03-01", "same_fault")).toBe("2027-06-11");
    expect(await promised("2027-08-31", "another_fault")).toBe("2027-06-11");
    expect(await promised("2027-08-31", "unknown")).toBe("2027-06-11");
    expect(await promised(null, "same_fault")).toBe("2027-06-11");
    expect(await promised("2027-08-31", null)).toBe("2027-06-11");
  });
});

it("knows the job that a unit comes back from: of this shop, and handed over", async () => {
  const jobId = await makeJob(test.app);
  const said = (id: string) =>
    test
      .inScope((scope) => formerJob(scope, id))
      .then(
        () => null,
        (problem: HttpProblem) => `${problem.code}: ${problem.detail}`,
      );
  expect(await said(newId())).toBe("not_found: There is no job with this id that a unit could come back from.");
  expect(await said(jobId)).toBe("conflict: That job is not handed over yet: go on with it.");
  await update(jobId, { handed_over_at: "2026-11-20T10:00:00Z" });
  expect(await said(jobId)).toBeNull();
});

describe("the room of a job", () => {
  it("is what its own pictures and captures leave, each stored content once", async () => {
    const [jobId, other] = [await makeJob(test.app), await makeJob(test.app)];
    await test.inScope(async (scope) => {
      const picture = await saveBlob(scope, Buffer.alloc(600, 1), "image/webp");
      const small = await saveBlob(scope, Buffer.alloc(100, 2), "image/webp");
      for (const id of [jobId, jobId, other]) {
        await scope.rows.photos.insert({
          ...{ id: newId(), jobId: id, version: 1, kind: "other", caption: null, marks: [], isRemoved: false },
          ...{ imageSha256: picture, thumbnailSha256: small, widthPixels: 4, heightPixels: 3 },
          ...{ takenAt: scope.now, personId: null },
        });
      }
    });
    const room = (bytes: number, id = jobId) =>
      test
        .inScope((scope) => requireRoom(scope, id, bytes, 1000))
        .then(
          () => true,
          () => false,
        );
    expect([await room(300), await room(301)]).toEqual([true, false]);
    expect(await room(1000, await makeJob(test.app))).toBe(true);
  });
});

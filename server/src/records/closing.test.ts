import type { HandOver } from "@pale-cap/contract";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, newId, openTestApp, type TestApp } from "../testing/testApp";
import { saveBlob } from "./blobStore";
import { closingOf } from "./closing";
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

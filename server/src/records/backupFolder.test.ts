import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, it } from "vitest";
import { backupMoments, backupState } from "./backupFolder";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "pale-cap-backups-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const put = (name: string, content: object | string) =>
  writeFileSync(join(folder, name), typeof content === "string" ? content : JSON.stringify(content));
const paper = (takenAt: string, sizeBytes: number) => ({
  ...{ takenAt, sizeBytes },
  tables: { jobs: { count: 3 }, readings: { count: 40 } },
});

it("knows of no backups where the database is somebody else's, where there is no folder and where it is empty", async () => {
  expect(await backupState(null)).toEqual({ isOurs: false, newest: null, count: 0 });
  expect(await backupMoments(null)).toEqual([]);
  const none = { isOurs: true, newest: null, count: 0 };
  expect(await backupState(join(folder, "nowhere"))).toEqual(none);
  expect(await backupState(folder)).toEqual(none);
});

it("tells the newest by the papers beside them, with its rows; what cannot be read counts for nothing", async () => {
  put("a.manifest.json", paper("2026-11-20T10:00:00.000Z", 10));
  put("b.manifest.json", paper("2026-11-22T10:00:00.000Z", 12));
  put("c.manifest.json", paper("2026-11-21T10:00:00.000Z", 11));
  put("torn.manifest.json", "{");
  put("undated.manifest.json", paper("some day", 99));
  put("d.json", paper("2026-11-30T10:00:00.000Z", 99));
  expect(await backupState(folder)).toEqual({
    isOurs: true,
    count: 3,
    newest: { at: "2026-11-22T10:00:00.000Z", sizeBytes: 12, rowCount: 43 },
  });
  expect((await backupMoments(folder)).map((at) => at.slice(8, 10))).toEqual(["22", "21", "20"]);
});

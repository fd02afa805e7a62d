import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import type { BackupState } from "@pale-cap/contract";

/** What is read of the paper beside a backup; scripts/backup.mjs writes it. */
interface Manifest {
  readonly takenAt: string;
  readonly sizeBytes: number;
  readonly tables: Readonly<Record<string, { readonly count: number }>>;
}

/** The newest backup in a folder, by the manifests beside them; one that cannot be read counts for nothing. */
export async function backupState(folder: string | null): Promise<BackupState> {
  if (folder === null) return { isOurs: false, newest: null, count: 0 };
  const read = await manifestsIn(folder);
  const [newest] = read;
  if (!newest) return { isOurs: true, newest: null, count: 0 };
  const rowCount = Object.values(newest.tables).reduce((sum, { count }) => sum + count, 0);
  return { isOurs: true, count: read.length, newest: { at: newest.takenAt, sizeBytes: newest.sizeBytes, rowCount } };
}

/** When each of them was taken, the newest first. */
export async function backupMoments(folder: string | null): Promise<readonly string[]> {
  return folder === null ? [] : (await manifestsIn(folder)).map((one) => one.takenAt);
}

async function manifestsIn(folder: string): Promise<readonly Manifest[]> {
  const names = await readdir(folder).catch(() => [] as string[]);
  const manifests = await Promise.all(
    names.filter((name) => name.endsWith(".manifest.json")).map((name) => manifestAt(join(folder, name))),
  );
  return manifests.filter((one) => one !== null).sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1));
}

async function manifestAt(path: string): Promise<Manifest | null> {
  try {
    const found = JSON.parse(await readFile(path, "utf8")) as Manifest;
    return Number.isFinite(Date.parse(found.takenAt)) ? found : null;
  } catch {
    return null;
  }
}

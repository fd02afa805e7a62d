import type { CatalogueEntry, FileMapping } from "@pale-cap/core";
import { expose } from "comlink";
import {
  decodeFile,
  type FileLook,
  type FileRead,
  type FileRefusal,
  lookAt,
  parseRows,
  readRows,
} from "./catalogueFile";

let rows: readonly string[][] = [];
let entries: readonly CatalogueEntry[] = [];
let isStopped = false;

const worker = {
  async look(file: Blob): Promise<FileLook | FileRefusal> {
    const { text, encoding } = decodeFile(new Uint8Array(await file.arrayBuffer()));
    const parsed = parseRows(text);
    rows = parsed.rows;
    return lookAt(rows, parsed.delimiter, encoding);
  },
  /** null: it was stopped. The entries stay here until they are packed. */
  async read(
    mapping: FileMapping,
    onProgress: (rowCount: number) => void,
  ): Promise<
    (Omit<FileRead, "entries"> & { readonly count: number; readonly first: readonly CatalogueEntry[] }) | null
  > {
    isStopped = false;
    const read = await readRows(rows, mapping, async (count) => {
      onProgress(count);
      // A message that stops it has its turn here.
      await new Promise((resolve) => setTimeout(resolve, 0));
      return !isStopped;
    });
    if (!read) return null;
    entries = read.entries;
    return { bad: read.bad, badCount: read.badCount, count: entries.length, first: entries.slice(0, 5) };
  },
  stop(): void {
    isStopped = true;
  },
  /** What was read, zipped for the way. */
  async packed(): Promise<Blob> {
    const zipped = new Blob([JSON.stringify(entries)]).stream().pipeThrough(new CompressionStream("gzip"));
    return new Response(zipped).blob();
  },
};

export type CatalogueFileWorker = typeof worker;
expose(worker);

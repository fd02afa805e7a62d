import { crc32 } from "node:zlib";
import { bundleLimits } from "@pale-cap/contract";
import { type Entry, fromBuffer, type ZipFile } from "yauzl";
import { HttpProblem } from "../http/problems";

/** What cannot be a bundle, said to whoever gave it. */
export const refused = (detail: string) =>
  new HttpProblem("invalid_body", `${detail} Nothing was taken in.`, {
    errors: [{ path: "bundle", code: "not_taken" }],
  });

/** Letters, digits, dots, dashes and single slashes: nothing that leads out of a folder or hides in a name. */
const plainName = /^[A-Za-z0-9][A-Za-z0-9._-]*(\/[A-Za-z0-9][A-Za-z0-9._-]*)*$/;
/** The kind of a file in a Unix archive: anything but a regular one is refused. */
const kindMask = 0o170000;
const regularFile = 0o100000;

/**
 * Unpacks an archive in memory, within bounds that hold against what it says of itself and against what it really holds. Links, double
 * and crooked names, wrong sums, too many or too large entries end it.
 *
 * @throws {HttpProblem} with the reason; nothing is left behind
 */
export async function readArchive(bytes: Buffer): Promise<ReadonlyMap<string, Buffer>> {
  const zip = await opened(bytes);
  if (zip.entryCount > bundleLimits.entries) {
    throw refused(`It says it holds ${zip.entryCount} files; ${bundleLimits.entries} are the most.`);
  }
  const files = new Map<string, Buffer>();
  let total = 0;
  for await (const entry of entriesOf(zip)) {
    const name = entry.fileName;
    if (!plainName.test(name) || name.length > 200)
      throw refused(`It holds a file of the name “${name.slice(0, 60)}”.`);
    if (files.has(name)) throw refused(`It holds ${name} twice.`);
    const kind = (entry.externalFileAttributes >>> 16) & kindMask;
    if (kind !== 0 && kind !== regularFile) throw refused(`${name} is a link or no file.`);
    if (files.size >= bundleLimits.entries) throw refused(`It holds more than ${bundleLimits.entries} files.`);
    if (entry.uncompressedSize > bundleLimits.entryBytes) throw refused(`${name} is too large.`);
    const content = await contentOf(zip, entry, Math.min(bundleLimits.entryBytes, bundleLimits.unpackedBytes - total));
    if (crc32(content) !== entry.crc32) throw refused(`${name} is damaged: its sum differs.`);
    total += content.length;
    files.set(name, content);
  }
  return files;
}

function opened(bytes: Buffer): Promise<ZipFile> {
  const options = { lazyEntries: true, validateEntrySizes: true, strictFileNames: true, autoClose: false };
  return new Promise((resolve, reject) =>
    fromBuffer(bytes, options, (error, zip) =>
      error || !zip ? reject(refused("It is no archive that can be read.")) : resolve(zip),
    ),
  );
}

async function* entriesOf(zip: ZipFile): AsyncGenerator<Entry> {
  for (;;) {
    const entry = await new Promise<Entry | null>((resolve, reject) => {
      const done = (found: Entry | null) => {
        zip.removeAllListeners();
        resolve(found);
      };
      zip.on("entry", done);
      zip.on("end", () => done(null));
      zip.on("error", (error: Error) => {
        zip.removeAllListeners();
        reject(refused(`It is no archive that can be read: ${error.message.slice(0, 120)}.`));
      });
      zip.readEntry();
    });
    if (entry === null) return;
    yield entry;
  }
}

/** Stops at the first byte too many, whatever the archive said of its size. */
function contentOf(zip: ZipFile, entry: Entry, mostBytes: number): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error || !stream) return reject(refused(`${entry.fileName} cannot be unpacked.`));
      const chunks: Buffer[] = [];
      let size = 0;
      stream.on("data", (chunk: Buffer) => {
        size += chunk.length;
        if (size > mostBytes) {
          stream.destroy();
          reject(refused("Unpacked it is larger than a bundle may be."));
        } else chunks.push(chunk);
      });
      stream.on("error", () => reject(refused(`${entry.fileName} cannot be unpacked.`)));
      stream.on("end", () => resolve(Buffer.concat(chunks)));
    });
  });
}

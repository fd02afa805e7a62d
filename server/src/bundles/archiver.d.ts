/** The part of the package that is used here; it carries no types of its own. */
declare module "archiver" {
  import type { Transform } from "node:stream";

  interface EntryData {
    readonly name: string;
    readonly date?: Date;
    readonly mode?: number;
  }

  export class ZipArchive extends Transform {
    constructor(options: { readonly zlib: { readonly level: number }; readonly forceUTC: boolean });
    append(content: Buffer | string, data: EntryData): this;
    symlink(path: string, target: string, mode?: number): this;
    finalize(): Promise<void>;
  }
}

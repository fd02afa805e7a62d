import {
  analyseCapture,
  type CaptureAnalysis,
  type CaptureMapping,
  type CaptureProblem,
  CaptureReader,
  type CaptureShape,
  captureShape,
  isCaptureProblem,
} from "@pale-cap/core";
import { expose, transfer } from "comlink";
import Papa from "papaparse";

const previewRows = 60;
const previewBytes = 64 * 1024;

export interface CapturePreview {
  readonly rows: readonly (readonly string[])[];
  readonly shape: CaptureShape | null;
  readonly separator: string;
}

export interface ReadChannel {
  readonly name: string;
  readonly analysis: CaptureAnalysis;
  readonly samples: Float32Array;
  readonly packed: Uint8Array;
  readonly clippedCount: number;
}

let isCancelled = false;

const worker = {
  /** The first rows, and what they seem to be. */
  async preview(file: File): Promise<CapturePreview> {
    const text = (await file.slice(0, previewBytes).text()).replace(/^\ufeff/, "");
    const isWhole = file.size <= previewBytes;
    // Files of one column hold no separator at all.
    const separator = [";", "\t", ","].find((one) => isSeparator(text, one)) ?? ",";
    const parsed = Papa.parse<string[]>(text, { delimiter: separator, preview: previewRows });
    const rows = isWhole || parsed.data.length >= previewRows ? parsed.data : parsed.data.slice(0, -1);
    return { rows, shape: captureShape(rows), separator };
  },

  cancel(): void {
    isCancelled = true;
  },

  /** Reads, analyses and packs the whole file, piece by piece; null where it was cancelled. */
  async read(
    file: File,
    mapping: CaptureMapping,
    separator: string,
    mainsHertz: number,
    progress: (share: number) => void,
  ): Promise<readonly ReadChannel[] | CaptureProblem | null> {
    isCancelled = false;
    const reader = new CaptureReader(mapping);
    await new Promise<void>((resolve, reject) => {
      Papa.parse<string[]>(file, {
        delimiter: separator,
        chunkSize: 1024 * 1024,
        chunk: ({ data, meta }, parser) => {
          reader.take(data);
          progress(Math.min(meta.cursor / Math.max(file.size, 1), 1));
          if (isCancelled || reader.problem) parser.abort();
        },
        complete: () => resolve(),
        error: reject,
      });
    });
    if (isCancelled) return null;
    const result = reader.finish();
    if (isCaptureProblem(result)) return result;
    const channels: ReadChannel[] = [];
    for (const { name, samples, clippedCount } of result.channels) {
      channels.push({
        name,
        samples,
        clippedCount,
        analysis: analyseCapture(samples, result.intervalSeconds, mainsHertz),
        packed: await packed(samples),
      });
    }
    return transfer(
      channels,
      channels.flatMap((one) => [one.samples.buffer, one.packed.buffer]),
    );
  },

  /** The analysis alone, of samples that are stored. */
  analysisOf(samples: Float32Array, intervalSeconds: number, mainsHertz: number): CaptureAnalysis {
    return analyseCapture(samples, intervalSeconds, mainsHertz);
  },

  /** The same for samples that came from an instrument. */
  async analyse(volts: readonly number[], intervalSeconds: number, mainsHertz: number): Promise<ReadChannel> {
    const samples = Float32Array.from(volts);
    return {
      name: "",
      samples,
      clippedCount: 0,
      analysis: analyseCapture(samples, intervalSeconds, mainsHertz),
      packed: await packed(samples),
    };
  },
};

/** Whether nearly all later lines hold it, equally often. */
function isSeparator(text: string, separator: string): boolean {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== "");
  const counts = lines.slice(-12, -1).map((line) => line.split(separator).length - 1);
  // A comma may be the decimal mark of a file with one column, or between columns of whole numbers.
  const isDecimalOnly = separator === "," && lines.slice(-12, -1).every((line) => /^\s*[-+]?\d+,\d+\s*$/.test(line));
  return counts.length > 0 && !isDecimalOnly && counts.every((one) => one > 0 && one === counts[0]);
}

async function packed(samples: Float32Array): Promise<Uint8Array> {
  const stream = new Blob([samples as Float32Array<ArrayBuffer>]).stream().pipeThrough(new CompressionStream("gzip"));
  return new Uint8Array(await new Response(stream).arrayBuffer());
}

export type CaptureWorker = typeof worker;
expose(worker);

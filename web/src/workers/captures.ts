import { type Remote, wrap } from "comlink";
import type { CaptureWorker } from "./captureWorker";

let remote: Remote<CaptureWorker> | undefined;

/** The worker that reads and analyses captures; one for all screens. */
export function captureWorker(): Remote<CaptureWorker> {
  remote ??= wrap<CaptureWorker>(new Worker(new URL("./captureWorker.ts", import.meta.url), { type: "module" }));
  return remote;
}

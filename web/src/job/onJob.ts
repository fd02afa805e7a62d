import { path } from "@pale-cap/contract";

/** What is asked of one job. */
export interface OnJob<T> {
  readonly jobId: string;
  readonly body: T;
}

/** A path of the server for the one api's base address. */
export const url = (pattern: string, jobId: string, more: Record<string, string> = {}) =>
  path(pattern, { jobId, ...more }).slice(1);

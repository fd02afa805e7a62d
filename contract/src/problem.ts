import type { Fault } from "./faults";
/** One thing that is wrong with one field. */
export interface FieldProblem extends Fault {
  /** Path into the body as typed, for example `device.kind`; empty for the whole body. */
  readonly path: string;
}

export const problemCodes = [
  "invalid_body",
  "malformed_json",
  "body_too_large",
  "not_found",
  "id_reused",
  "stale_version",
  "conflict",
  "method_not_allowed",
  "unsupported_media_type",
  "not_signed_in",
  "not_allowed",
  "too_many",
  "unavailable",
  "internal",
] as const;
export type ProblemCode = (typeof problemCodes)[number];

/**
 * The shape of every error from the server (problem details of RFC 9457, with a code and field paths). The client
 * switches on `code`, never on wording.
 */
export interface Problem {
  readonly type: "about:blank";
  readonly title: string;
  readonly status: number;
  readonly code: ProblemCode;
  readonly detail: string;
  readonly errors: readonly FieldProblem[];
  /** With stale_version: the row as it stands now. */
  readonly current?: unknown;
}

export const problemMediaType = "application/problem+json";

export function isProblem(value: unknown): value is Problem {
  return typeof value === "object" && value !== null && "code" in value && "status" in value && "errors" in value;
}

/** So many faults of one body are told at most. */
export const mostFieldProblems = 100;

/**
 * What says nothing against an entry itself: it waits until somebody signs in or may, until there are fewer requests, or
 * until the database is back.
 */
export const waitingCodes: readonly ProblemCode[] = ["not_signed_in", "not_allowed", "too_many", "unavailable"];

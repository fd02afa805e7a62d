import type { JobDetail } from "@pale-cap/contract";
import { isAction, type Middleware } from "@reduxjs/toolkit";
import { api } from "../api/api";
import { jobApi } from "./jobApi";

type Recipe<R, A> = (detail: JobDetail, result: R, argument: A) => JobDetail;

interface Awaited {
  readonly jobId: string;
  lay(detail: JobDetail, result: unknown): JobDetail;
}

/** What is done with the answer of each request that is under way. */
const awaited = new Map<string, Awaited>();

interface Started<R> {
  readonly requestId: string;
  /** Names the answer's type; the answer itself is taken as it is told. */
  readonly queryFulfilled: Promise<{ data: R }>;
}

/** For `onQueryStarted`: after a write the answer is laid into the cached job; nothing is fetched again. */
export function patching<R, A extends { readonly jobId: string }>(recipe: Recipe<R, A>) {
  return (argument: A, { requestId }: Started<R>): void => {
    awaited.set(requestId, {
      jobId: argument.jobId,
      lay: (detail, result) => recipe(detail, result as R, argument),
    });
  };
}

/**
 * Lays an answer into its job in the very step in which it is told to the store: whoever waits for the request sees the
 * job with it, and the next edit in turn is made from it.
 */
export const layAnswers: Middleware = (store) => (next) => (action) => {
  const result = next(action);
  if (!isAnswer(action)) return result;
  const one = awaited.get(action.meta.requestId);
  awaited.delete(action.meta.requestId);
  if (!one || action.meta.requestStatus !== "fulfilled") return result;
  // Thunks of the one api: the store's own type would make this file and the store's import each other.
  const dispatch = store.dispatch as (thunk: unknown) => unknown;
  dispatch(jobApi.util.updateQueryData("job", one.jobId, (detail) => one.lay(detail, action.payload)));
  dispatch(api.util.invalidateTags(["Bench"]));
  return result;
};

interface Answer {
  readonly payload: unknown;
  readonly meta: { readonly requestId: string; readonly requestStatus: "fulfilled" | "rejected" };
}

function isAnswer(action: unknown): action is Answer {
  return isAction(action) && /^api\/executeMutation\/(fulfilled|rejected)$/.test(action.type);
}

/** Adds a row, or replaces the one with the same key. */
export function upsert<T>(rows: readonly T[], row: T, key: (row: T) => string): T[] {
  const others = rows.filter((one) => key(one) !== key(row));
  return [...others, row];
}

export const byId = (row: { readonly id: string }) => row.id;

/** Adds or replaces several rows. */
export const upsertAll = <T>(rows: readonly T[], changed: readonly T[], key: (row: T) => string): T[] => {
  const keys = new Set(changed.map(key));
  return [...rows.filter((one) => !keys.has(key(one))), ...changed];
};

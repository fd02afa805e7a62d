import { type JobDetail, path } from "@pale-cap/contract";
import { api } from "../api/api";

export interface OnJob<T> {
  readonly jobId: string;
  readonly body: T;
}

type Recipe<R, A> = (detail: JobDetail, result: R, argument: A) => JobDetail;

/** After a write the answer is laid into the cached job; nothing is fetched again. */
export function patching<R, A extends { readonly jobId: string }>(recipe: Recipe<R, A>) {
  return async (
    argument: A,
    // biome-ignore lint/suspicious/noExplicitAny: the life-cycle's own generics name the whole api
    { dispatch, queryFulfilled }: { dispatch: (action: any) => unknown; queryFulfilled: Promise<{ data: R }> },
  ) => {
    const answer = await queryFulfilled.catch(() => null);
    if (!answer) return;
    // The endpoint is injected elsewhere; naming it here by its type would make the two files import each other.
    const lay = (detail: JobDetail) => recipe(detail, answer.data, argument);
    dispatch(api.util.updateQueryData("job" as never, argument.jobId as never, lay as never));
    dispatch(api.util.invalidateTags(["Bench"]));
  };
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

/** A path of the server for the one api's base address. */
export const url = (pattern: string, jobId: string, more: Record<string, string> = {}) =>
  path(pattern, { jobId, ...more }).slice(1);

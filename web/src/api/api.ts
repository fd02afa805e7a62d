import { clockHeaders, isProblem, type Problem } from "@pale-cap/contract";
import {
  type BaseQueryApi,
  type BaseQueryFn,
  createApi,
  type FetchArgs,
  fetchBaseQuery,
} from "@reduxjs/toolkit/query/react";
import { copiedEndpoints, shownCopies, takeOfflineCopy } from "../offline/offlineCopies";
import { pageClock } from "./clock";
import { serverAnswered, serverFellSilent } from "./serverSilence";
import { sessionLost } from "./sessionLoss";

const raw = fetchBaseQuery({
  baseUrl: "/",
  timeout: 20_000,
  prepareHeaders: (headers) => {
    headers.set(clockHeaders.clockId, pageClock.id);
    headers.set(clockHeaders.sentAt, String(pageClock.now()));
  },
});

export const silence: Problem = {
  type: "about:blank",
  title: "The server does not answer",
  status: 0,
  code: "unavailable",
  detail: "Nothing was stored. What you typed is still here; try again when the server runs.",
  errors: [],
};

/** What was read of it last, for a page that was opened while the server is silent; one that shows it already keeps what it has. */
function copyFor({ type, endpoint, getState, queryCacheKey }: BaseQueryApi): Promise<unknown> | undefined {
  if (type !== "query" || !queryCacheKey || !copiedEndpoints.includes(endpoint)) return undefined;
  const { queries } = (
    getState() as {
      readonly api: { readonly queries: Readonly<Record<string, { readonly data?: unknown } | undefined>> };
    }
  ).api;
  return queries[queryCacheKey]?.data === undefined ? takeOfflineCopy(queryCacheKey) : undefined;
}

/** Every failure reaches the screens as a Problem; no answer at all becomes one too. */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, Problem> = async (args, api, options) => {
  const sentAt = pageClock.now();
  const result = await raw(args, api, options);
  const serverNow = Number(result.meta?.response?.headers.get(clockHeaders.serverNow) ?? Number.NaN);
  if (Number.isFinite(serverNow)) pageClock.heard(sentAt, serverNow);
  const problem = result.error && (isProblem(result.error.data) ? result.error.data : silence);
  if (problem?.code === "unavailable") serverFellSilent();
  else serverAnswered();
  // A wrong password is told where it was typed.
  const asked = typeof args === "string" ? args : args.url;
  if (problem?.code === "not_signed_in" && !asked.startsWith("api/session")) sessionLost();
  if (!problem) {
    if (typeof args === "string") shownCopies.over();
    return { data: result.data };
  }
  const copy = problem.code === "unavailable" ? await copyFor(api) : undefined;
  return copy === undefined ? { error: problem } : { data: copy };
};

/** The one api; endpoints are injected beside what they serve. */
export const api = createApi({
  reducerPath: "api",
  baseQuery,
  tagTypes: [
    "Backups",
    "Bench",
    "People",
    "Session",
    "BoardType",
    "Catalogue",
    "Instruments",
    "Job",
    "HouseRules",
    "Orders",
    "Papers",
    "Practice",
    "Reports",
    "Runs",
    "Stock",
  ],
  endpoints: () => ({}),
});

import { clockHeaders, isProblem, type Problem } from "@pale-cap/contract";
import { type BaseQueryFn, createApi, type FetchArgs, fetchBaseQuery } from "@reduxjs/toolkit/query/react";
import { pageClock } from "./clock";
import { serverAnswered, serverFellSilent } from "./serverSilence";

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

/** Every failure reaches the screens as a Problem; no answer at all becomes one too. */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, Problem> = async (args, api, options) => {
  const sentAt = pageClock.now();
  const result = await raw(args, api, options);
  const serverNow = Number(result.meta?.response?.headers.get(clockHeaders.serverNow) ?? Number.NaN);
  if (Number.isFinite(serverNow)) pageClock.heard(sentAt, serverNow);
  const problem = result.error && (isProblem(result.error.data) ? result.error.data : silence);
  if (problem?.code === "unavailable") serverFellSilent();
  else serverAnswered();
  return problem ? { error: problem } : { data: result.data };
};

/** The one api; endpoints are injected beside what they serve. */
export const api = createApi({
  reducerPath: "api",
  baseQuery,
  tagTypes: [
    "Backups",
    "Bench",
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

import { isProblem, type Problem } from "@pale-cap/contract";
import { type BaseQueryFn, createApi, type FetchArgs, fetchBaseQuery } from "@reduxjs/toolkit/query/react";

const raw = fetchBaseQuery({ baseUrl: "/", timeout: 20_000 });

/** Every failure reaches the screens as a Problem; no answer at all becomes one too. */
const baseQuery: BaseQueryFn<string | FetchArgs, unknown, Problem> = async (args, api, options) => {
  const result = await raw(args, api, options);
  if (!result.error) return { data: result.data };
  if (isProblem(result.error.data)) return { error: result.error.data };
  return {
    error: {
      type: "about:blank",
      title: "The server does not answer",
      status: 0,
      code: "internal",
      detail: "Nothing was stored. What you typed is still here; try again when the server runs.",
      errors: [],
    },
  };
};

/** The one api; endpoints are injected beside what they serve. */
export const api = createApi({
  reducerPath: "api",
  baseQuery,
  tagTypes: ["Bench", "BoardType", "Instruments", "Job", "HouseRules", "Papers"],
  endpoints: () => ({}),
});

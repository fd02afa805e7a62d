import { type FactAnswer, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "../job/onJob";

export const factApi = api.injectEndpoints({
  endpoints: (build) => ({
    logFacts: build.mutation<readonly FactAnswer[], OnJob<{ readonly facts: readonly object[] }>>({
      query: ({ jobId, body }) => ({ url: url(routes.facts, jobId), method: "POST", body }),
    }),
  }),
});

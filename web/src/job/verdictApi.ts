import { type Job, routes, type VerdictSummaryEdit } from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";
import { patching } from "./patching";

export const verdictApi = api.injectEndpoints({
  endpoints: (build) => ({
    editVerdictSummary: build.mutation<Job, OnJob<VerdictSummaryEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.verdictSummary, jobId), method: "PUT", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
  }),
});

export const { useEditVerdictSummaryMutation } = verdictApi;

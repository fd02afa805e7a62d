import { type NewRun, path, type RunRow, type RunSamples, type RunWord, routes } from "@pale-cap/contract";
import { api } from "../../../api/api";
import { newId } from "../../../api/newId";
import { url } from "../../../job/onJob";

const ofRun = (pattern: string, jobId: string, runId: string) => path(pattern, { jobId, runId }).slice(1);

const runApi = api.injectEndpoints({
  endpoints: (build) => ({
    runs: build.query<readonly RunRow[], string>({
      query: (jobId) => url(routes.runs, jobId),
      providesTags: ["Runs"],
    }),
    beginRun: build.mutation<RunRow, { readonly jobId: string; readonly body: NewRun }>({
      query: ({ jobId, body }) => ({ url: url(routes.runs, jobId), method: "POST", body }),
      invalidatesTags: (_result, _error, { jobId }) => ["Runs", { type: "Job", id: jobId }],
    }),
    tellRun: build.mutation<
      RunRow,
      { readonly jobId: string; readonly runId: string; readonly word: RunWord; readonly personId: string | null }
    >({
      query: ({ jobId, runId, word, personId }) => ({
        url: ofRun(routes.runWords, jobId, runId),
        method: "POST",
        body: { id: newId(), word, personId },
      }),
      invalidatesTags: ["Runs"],
    }),
    runSamples: build.query<RunSamples, { readonly jobId: string; readonly runId: string; readonly after: number }>({
      query: ({ jobId, runId, after }) => `${ofRun(routes.runSamples, jobId, runId)}?after=${after}`,
      // Each answer is a piece of a longer list that is kept beside it.
      keepUnusedDataFor: 0,
    }),
  }),
});

export const { useRunsQuery, useBeginRunMutation, useTellRunMutation, useLazyRunSamplesQuery } = runApi;

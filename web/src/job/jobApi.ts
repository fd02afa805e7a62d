import { type JobDetail, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { url } from "./onJob";

export const jobApi = api.injectEndpoints({
  endpoints: (build) => ({
    job: build.query<JobDetail, string>({
      query: (jobId) => url(routes.job, jobId),
      providesTags: (_result, _error, jobId) => [{ type: "Job", id: jobId }],
    }),
  }),
});

export const { useJobQuery } = jobApi;

import { type JobChanges, routes } from "@pale-cap/contract";
import { api } from "../../api/api";
import { url } from "../onJob";

export const liveApi = api.injectEndpoints({
  endpoints: (build) => ({
    jobChanges: build.query<JobChanges, { readonly jobId: string; readonly after: number }>({
      query: ({ jobId, after }) => `${url(routes.jobChanges, jobId)}?after=${after}`,
    }),
  }),
});

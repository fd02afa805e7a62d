import {
  type ComebackEdit,
  type CustomerState,
  type Erasure,
  type FormerJobs,
  type Job,
  routes,
} from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";
import { patching } from "./patching";

export const returnApi = api.injectEndpoints({
  endpoints: (build) => ({
    formerJobs: build.query<FormerJobs, { readonly jobId: string; readonly version: number }>({
      query: ({ jobId }) => url(routes.formerJobs, jobId),
      keepUnusedDataFor: 0,
    }),
    editComeback: build.mutation<Job, OnJob<ComebackEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.comeback, jobId), method: "PUT", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
    customer: build.query<CustomerState, { readonly jobId: string; readonly version: number }>({
      query: ({ jobId }) => url(routes.customer, jobId),
      keepUnusedDataFor: 0,
      providesTags: ["Job"],
    }),
    erase: build.mutation<CustomerState, OnJob<Erasure>>({
      query: ({ jobId, body }) => ({ url: url(routes.erasure, jobId), method: "POST", body }),
      // Nothing that was read before may hold the name.
      invalidatesTags: ["Bench", "Job", "Reports"],
    }),
  }),
});

export const { useFormerJobsQuery, useEditComebackMutation, useCustomerQuery, useEraseMutation } = returnApi;

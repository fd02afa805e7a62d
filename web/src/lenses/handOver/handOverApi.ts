import { type HandOver, type Job, routes } from "@pale-cap/contract";
import { api } from "../../api/api";
import { type OnJob, url } from "../../job/onJob";
import { patching } from "../../job/patching";

export const handOverApi = api.injectEndpoints({
  endpoints: (build) => ({
    handOver: build.mutation<Job, OnJob<HandOver>>({
      query: ({ jobId, body }) => ({ url: url(routes.handOver, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
  }),
});

export const { useHandOverMutation } = handOverApi;

import {
  type ClosedJobs,
  type Family,
  type FamilyGrid,
  type FollowStudy,
  type NewUnits,
  routes,
} from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";

const familyApi = api.injectEndpoints({
  endpoints: (build) => ({
    family: build.query<Family, string>({
      query: (jobId) => url(routes.family, jobId),
      // What is logged on any unit may change the list; every write of a job invalidates the bench.
      providesTags: ["Bench"],
    }),
    makeUnits: build.mutation<Family, OnJob<NewUnits>>({
      query: ({ jobId, body }) => ({ url: url(routes.familyUnits, jobId), method: "POST", body }),
      invalidatesTags: ["Bench"],
    }),
    familyGrid: build.query<FamilyGrid, string>({
      query: (jobId) => url(routes.familyGrid, jobId),
      providesTags: ["Bench"],
    }),
    followStudy: build.mutation<Omit<Family, "findings">, OnJob<FollowStudy>>({
      query: ({ jobId, body }) => ({ url: url(routes.familyFollow, jobId), method: "POST", body }),
      invalidatesTags: ["Bench", "Job"],
    }),
    closedJobs: build.query<ClosedJobs, string>({
      query: (jobId) => url(routes.closedJobs, jobId),
      providesTags: ["Bench"],
    }),
  }),
});

export const { useFamilyQuery, useFamilyGridQuery, useFollowStudyMutation, useMakeUnitsMutation, useClosedJobsQuery } =
  familyApi;

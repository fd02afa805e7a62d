import { type IntakeEdit, type Job, routes } from "@pale-cap/contract";
import { api } from "../../api/api";
import { type OnJob, url } from "../../job/onJob";
import { patching } from "../../job/patching";

export const intakeApi = api.injectEndpoints({
  endpoints: (build) => ({
    editIntake: build.mutation<Job, OnJob<IntakeEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.intake, jobId), method: "PATCH", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
  }),
});

export const { useEditIntakeMutation } = intakeApi;

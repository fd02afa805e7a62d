import { type NewTeardownStep, routes, type TeardownStepEdit, type TeardownStepRow } from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";
import { byId, patching, upsert } from "./patching";

export const teardownApi = api.injectEndpoints({
  endpoints: (build) => ({
    addTeardownStep: build.mutation<TeardownStepRow, OnJob<NewTeardownStep>>({
      query: ({ jobId, body }) => ({ url: url(routes.teardownSteps, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({
        ...detail,
        teardownSteps: upsert(detail.teardownSteps, row, byId),
      })),
    }),
    editTeardownStep: build.mutation<
      TeardownStepRow & { readonly isRemoved: boolean },
      OnJob<TeardownStepEdit> & { readonly stepId: string }
    >({
      query: ({ jobId, stepId, body }) => ({ url: url(routes.teardownStep, jobId, { stepId }), method: "PATCH", body }),
      onQueryStarted: patching((detail, { isRemoved, ...row }) => ({
        ...detail,
        teardownSteps: isRemoved
          ? detail.teardownSteps.filter((one) => one.id !== row.id)
          : upsert(detail.teardownSteps, row, byId),
      })),
    }),
  }),
});

export const { useAddTeardownStepMutation, useEditTeardownStepMutation } = teardownApi;

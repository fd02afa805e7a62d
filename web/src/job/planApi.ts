import { type PlanAnswer, type PlanEdit, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";
import { patching, upsert, upsertAll } from "./patching";

export const planApi = api.injectEndpoints({
  endpoints: (build) => ({
    editPlan: build.mutation<PlanAnswer, OnJob<PlanEdit> & { readonly positionId: string }>({
      query: ({ jobId, positionId, body }) => ({ url: url(routes.plan, jobId, { positionId }), method: "PUT", body }),
      // Refused too: then somebody else was faster, and the drawers say so.
      invalidatesTags: ["Stock"],
      onQueryStarted: patching((detail, { plan, fittedParts }) => ({
        ...detail,
        plans: upsert(detail.plans, plan, (one) => one.positionId),
        fittedParts: upsertAll(detail.fittedParts, fittedParts, (one) => one.id),
      })),
    }),
  }),
});

export const { useEditPlanMutation } = planApi;

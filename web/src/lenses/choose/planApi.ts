import { type PlanEdit, type PlanRow, routes } from "@pale-cap/contract";
import { api } from "../../api/api";
import { type OnJob, url } from "../../job/onJob";
import { patching, upsert } from "../../job/patching";

export const planApi = api.injectEndpoints({
  endpoints: (build) => ({
    editPlan: build.mutation<PlanRow, OnJob<PlanEdit> & { readonly positionId: string }>({
      query: ({ jobId, positionId, body }) => ({ url: url(routes.plan, jobId, { positionId }), method: "PUT", body }),
      onQueryStarted: patching((detail, row) => ({
        ...detail,
        plans: upsert(detail.plans, row, (plan) => plan.positionId),
      })),
    }),
  }),
});

export const { useEditPlanMutation } = planApi;

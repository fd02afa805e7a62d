import { type HouseRuleChange, type HouseRuleValues, routes, type ToldRuleChange } from "@pale-cap/contract";
import { api } from "../api/api";

export const houseRulesApi = api.injectEndpoints({
  endpoints: (build) => ({
    houseRules: build.query<HouseRuleValues, void>({
      query: () => routes.houseRules.slice(1),
      providesTags: ["HouseRules"],
    }),
    houseRuleChanges: build.query<readonly ToldRuleChange[], void>({
      query: () => routes.houseRuleChanges.slice(1),
      providesTags: ["HouseRules"],
    }),
    changeHouseRule: build.mutation<ToldRuleChange, HouseRuleChange>({
      query: (body) => ({ url: routes.houseRuleChanges.slice(1), method: "POST", body }),
      // What closed jobs say comes with each job.
      invalidatesTags: ["HouseRules", "Bench", "Job"],
    }),
  }),
});

export const { useHouseRulesQuery, useHouseRuleChangesQuery, useChangeHouseRuleMutation } = houseRulesApi;

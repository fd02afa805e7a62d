import {
  type Acceptance,
  type BenchLine,
  type Board,
  type BoardEdit,
  type ChargeEventRow,
  type CreateJob,
  type EnergyStoreEdit,
  type EnergyStoreRow,
  type FittedPartRow,
  type HandOver,
  type HouseRuleChange,
  type HouseRuleValues,
  type IntakeEdit,
  type Job,
  type JobDetail,
  type Net,
  type NewEnergyStore,
  type NewReading,
  type NewSigns,
  type NewTicks,
  type OverruleRow,
  type Person,
  type PlanEdit,
  type PlanRow,
  type Position,
  type PowerEventRow,
  type ReadingRow,
  routes,
  type SignRow,
  type StockedPart,
  type TickRow,
  type ToldRuleChange,
  type VerdictSummaryEdit,
} from "@pale-cap/contract";
import { api } from "../api/api";
import { byId, type OnJob, patching, upsert, url } from "./patching";

interface BoardRows {
  readonly board: Board;
  readonly nets: readonly Net[];
  readonly positions: readonly Position[];
  readonly fittedParts: readonly FittedPartRow[];
}

export const jobApi = api.injectEndpoints({
  endpoints: (build) => ({
    bench: build.query<readonly BenchLine[], void>({ query: () => routes.bench.slice(1), providesTags: ["Bench"] }),
    people: build.query<readonly Person[], void>({ query: () => routes.people.slice(1) }),
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
      invalidatesTags: ["HouseRules", "Bench"],
    }),
    catalogue: build.query<readonly StockedPart[], void>({ query: () => routes.catalogue.slice(1) }),
    job: build.query<JobDetail, string>({
      query: (jobId) => url(routes.job, jobId),
      providesTags: (_result, _error, jobId) => [{ type: "Job", id: jobId }],
    }),
    createJob: build.mutation<JobDetail, CreateJob>({
      query: (body) => ({ url: routes.jobs.slice(1), method: "POST", body }),
      invalidatesTags: ["Bench"],
    }),
    editIntake: build.mutation<Job, OnJob<IntakeEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.intake, jobId), method: "PATCH", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
    editBoard: build.mutation<BoardRows, OnJob<BoardEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.boardEdits, jobId), method: "POST", body }),
      invalidatesTags: ["BoardType"],
      onQueryStarted: patching((detail, rows) => ({ ...detail, ...rows })),
    }),
    logReading: build.mutation<ReadingRow, OnJob<NewReading>>({
      query: ({ jobId, body }) => ({ url: url(routes.readings, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({ ...detail, readings: upsert(detail.readings, row, byId) })),
    }),
    logSigns: build.mutation<readonly SignRow[], OnJob<NewSigns>>({
      query: ({ jobId, body }) => ({ url: url(routes.signs, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, rows) => ({
        ...detail,
        signs: rows.reduce((signs: readonly SignRow[], row) => upsert(signs, row, byId), detail.signs),
      })),
    }),
    logOverrule: build.mutation<OverruleRow, OnJob<OverruleRow>>({
      query: ({ jobId, body }) => ({ url: url(routes.overrules, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({ ...detail, overrules: upsert(detail.overrules, row, byId) })),
    }),
    editVerdictSummary: build.mutation<Job, OnJob<VerdictSummaryEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.verdictSummary, jobId), method: "PUT", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
    addEnergyStore: build.mutation<EnergyStoreRow, OnJob<NewEnergyStore>>({
      query: ({ jobId, body }) => ({ url: url(routes.energyStores, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({ ...detail, energyStores: upsert(detail.energyStores, row, byId) })),
    }),
    editEnergyStore: build.mutation<EnergyStoreRow, OnJob<EnergyStoreEdit> & { readonly storeId: string }>({
      query: ({ jobId, storeId, body }) => ({
        url: url(routes.energyStore, jobId, { storeId }),
        method: "PATCH",
        body,
      }),
      onQueryStarted: patching((detail, row) => ({
        ...detail,
        energyStores: detail.energyStores.map((one) => (one.id === row.id ? row : one)),
      })),
    }),
    logCharge: build.mutation<ChargeEventRow, OnJob<ChargeEventRow>>({
      query: ({ jobId, body }) => ({ url: url(routes.chargeEvents, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({ ...detail, chargeEvents: upsert(detail.chargeEvents, row, byId) })),
    }),
    logPower: build.mutation<PowerEventRow, OnJob<PowerEventRow>>({
      query: ({ jobId, body }) => ({ url: url(routes.powerEvents, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({ ...detail, powerEvents: upsert(detail.powerEvents, row, byId) })),
    }),
    editPlan: build.mutation<PlanRow, OnJob<PlanEdit> & { readonly positionId: string }>({
      query: ({ jobId, positionId, body }) => ({ url: url(routes.plan, jobId, { positionId }), method: "PUT", body }),
      onQueryStarted: patching((detail, row) => ({
        ...detail,
        plans: upsert(detail.plans, row, (plan) => plan.positionId),
      })),
    }),
    logTicks: build.mutation<
      { readonly ticks: readonly TickRow[]; readonly fittedParts: readonly FittedPartRow[] },
      OnJob<NewTicks>
    >({
      query: ({ jobId, body }) => ({ url: url(routes.ticks, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, { ticks, fittedParts }) => ({
        ...detail,
        ticks: ticks.reduce((rows: readonly TickRow[], row) => upsert(rows, row, byId), detail.ticks),
        fittedParts: fittedParts.reduce(
          (rows: readonly FittedPartRow[], row) => upsert(rows, row, byId),
          detail.fittedParts,
        ),
      })),
    }),
    acceptPoint: build.mutation<Acceptance, OnJob<Acceptance>>({
      query: ({ jobId, body }) => ({ url: url(routes.acceptances, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, row) => ({ ...detail, acceptances: upsert(detail.acceptances, row, byId) })),
    }),
    handOver: build.mutation<Job, OnJob<HandOver>>({
      query: ({ jobId, body }) => ({ url: url(routes.handOver, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
  }),
});

export const {
  useBenchQuery,
  usePeopleQuery,
  useHouseRulesQuery,
  useHouseRuleChangesQuery,
  useChangeHouseRuleMutation,
  useCatalogueQuery,
  useJobQuery,
  useCreateJobMutation,
  useEditIntakeMutation,
  useEditBoardMutation,
  useAddEnergyStoreMutation,
  useEditEnergyStoreMutation,
  useEditPlanMutation,
  useAcceptPointMutation,
  useHandOverMutation,
  useEditVerdictSummaryMutation,
} = jobApi;

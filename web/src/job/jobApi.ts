import {
  type BackupState,
  type BenchPage,
  type BenchQuery,
  type Board,
  type BoardEdit,
  type CreateJob,
  type EnergyStoreEdit,
  type EnergyStoreRow,
  type ExportKind,
  type FactAnswer,
  type FittedPartRow,
  type HandOver,
  type HouseRuleChange,
  type HouseRuleValues,
  type IntakeEdit,
  type Job,
  type JobDetail,
  type Net,
  type NewEnergyStore,
  type Person,
  type PlanEdit,
  type PlanRow,
  type Position,
  routes,
  type StockedPart,
  type ToldRuleChange,
  type VerdictSummaryEdit,
} from "@pale-cap/contract";
import { api } from "../api/api";
import { byId, type OnJob, patching, upsert, url } from "./patching";

/** Which jobs are wanted, over all pages. */
type BenchWanted = Omit<BenchQuery, "below">;

interface ExportTold {
  readonly id: string;
  readonly what: ExportKind;
  readonly personId: string | null;
}

/** The newest open jobs: what the strip and the command box know. */
const firstPage: BenchQuery = { state: "open", search: null, below: null };

function benchSearch({ state, search, below }: BenchQuery): string {
  const words = new URLSearchParams({ state });
  if (search) words.set("search", search);
  if (below !== null) words.set("below", String(below));
  return words.toString();
}

interface BoardRows {
  readonly board: Board;
  readonly nets: readonly Net[];
  readonly positions: readonly Position[];
  readonly fittedParts: readonly FittedPartRow[];
}

export const jobApi = api.injectEndpoints({
  endpoints: (build) => ({
    bench: build.query<BenchPage, BenchQuery | undefined>({
      query: (asked) => `${routes.bench.slice(1)}?${benchSearch(asked ?? firstPage)}`,
      providesTags: ["Bench"],
    }),
    benchPages: build.infiniteQuery<BenchPage, BenchWanted, number | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: (page) => page.nextBelow ?? undefined },
      query: ({ queryArg, pageParam }) => `${routes.bench.slice(1)}?${benchSearch({ ...queryArg, below: pageParam })}`,
      providesTags: ["Bench"],
    }),
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
    editPlan: build.mutation<PlanRow, OnJob<PlanEdit> & { readonly positionId: string }>({
      query: ({ jobId, positionId, body }) => ({ url: url(routes.plan, jobId, { positionId }), method: "PUT", body }),
      onQueryStarted: patching((detail, row) => ({
        ...detail,
        plans: upsert(detail.plans, row, (plan) => plan.positionId),
      })),
    }),
    logFacts: build.mutation<readonly FactAnswer[], OnJob<{ readonly facts: readonly object[] }>>({
      query: ({ jobId, body }) => ({ url: url(routes.facts, jobId), method: "POST", body }),
    }),
    tellExport: build.mutation<unknown, OnJob<ExportTold>>({
      query: ({ jobId, body }) => ({ url: url(routes.exports, jobId), method: "POST", body }),
    }),
    backups: build.query<BackupState, void>({ query: () => routes.backups.slice(1), providesTags: ["Backups"] }),
    handOver: build.mutation<Job, OnJob<HandOver>>({
      query: ({ jobId, body }) => ({ url: url(routes.handOver, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
    }),
  }),
});

export const {
  useBackupsQuery,
  useBenchPagesInfiniteQuery,
  useBenchQuery,
  useLazyBenchQuery,
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
  useHandOverMutation,
  useTellExportMutation,
  useEditVerdictSummaryMutation,
} = jobApi;

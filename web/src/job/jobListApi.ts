import {
  type BenchPage,
  type BenchQuery,
  type CodeTarget,
  type CreateJob,
  type JobDetail,
  type ReminderRow,
  routes,
} from "@pale-cap/contract";
import { api } from "../api/api";

/** Which jobs are wanted, over all pages. */
type BenchWanted = Omit<BenchQuery, "below">;

/** The newest open jobs: what the strip and the command box know. */
const firstPage: BenchQuery = { state: "open", search: null, below: null };

function benchSearch({ state, search, below }: BenchQuery): string {
  const words = new URLSearchParams({ state });
  if (search) words.set("search", search);
  if (below !== null) words.set("below", String(below));
  return words.toString();
}

export const jobListApi = api.injectEndpoints({
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
    code: build.query<CodeTarget, string>({
      query: (code) => `${routes.code.slice(1)}?code=${encodeURIComponent(code)}`,
      keepUnusedDataFor: 0,
    }),
    reminders: build.query<readonly ReminderRow[], void>({
      query: () => routes.reminders.slice(1),
      providesTags: ["Bench"],
    }),
    createJob: build.mutation<JobDetail, CreateJob>({
      query: (body) => ({ url: routes.jobs.slice(1), method: "POST", body }),
      invalidatesTags: ["Bench"],
    }),
  }),
});

export const {
  useCodeQuery,
  useRemindersQuery,
  useBenchQuery,
  useLazyBenchQuery,
  useBenchPagesInfiniteQuery,
  useCreateJobMutation,
} = jobListApi;

import { type BenchPage, type BenchQuery, type CreateJob, type JobDetail, routes } from "@pale-cap/contract";
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
    createJob: build.mutation<JobDetail, CreateJob>({
      query: (body) => ({ url: routes.jobs.slice(1), method: "POST", body }),
      invalidatesTags: ["Bench"],
    }),
  }),
});

export const { useBenchQuery, useLazyBenchQuery, useBenchPagesInfiniteQuery, useCreateJobMutation } = jobListApi;

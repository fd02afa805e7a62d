import {
  type HandAct,
  type NewPractice,
  type PracticeEnd,
  type PracticeList,
  type PracticeListPage,
  type PracticePage,
  type PracticeState,
  path,
  routes,
} from "@pale-cap/contract";
import { api } from "../api/api";
import { newId } from "../api/newId";

const at = (pattern: string, jobId: string) => path(pattern, { jobId }).slice(1);
/** A bench makes a supply, and looks for the best way through it, in some seconds. */
const makingMilliseconds = 120_000;

interface Act {
  readonly jobId: string;
  readonly act: HandAct;
  readonly personId: string | null;
}

export const practiceApi = api.injectEndpoints({
  endpoints: (build) => ({
    practicePage: build.query<PracticePage, string | null>({
      query: (personId) => `${routes.practice.slice(1)}${personId ? `?person=${personId}` : ""}`,
      providesTags: ["Practice"],
    }),
    practice: build.query<PracticeState | null, string>({
      query: (jobId) => at(routes.jobPractice, jobId),
      providesTags: (_result, _error, jobId) => [{ type: "Practice", id: jobId }],
    }),
    beginPractice: build.mutation<unknown, NewPractice>({
      query: (body) => ({ url: routes.practice.slice(1), method: "POST", body, timeout: makingMilliseconds }),
      invalidatesTags: ["Practice", "Bench", "Instruments"],
    }),
    handAct: build.mutation<PracticeState, Act>({
      query: ({ jobId, act, personId }) => ({
        url: at(routes.practiceActs, jobId),
        method: "POST",
        body: { id: newId(), act, personId },
      }),
      invalidatesTags: (_result, _error, { jobId }) => [{ type: "Practice", id: jobId }],
    }),
    takeHint: build.mutation<
      PracticeState,
      { readonly jobId: string; readonly level: number; readonly personId: string | null }
    >({
      query: ({ jobId, level, personId }) => ({
        url: at(routes.practiceHints, jobId),
        method: "POST",
        body: { id: newId(), level, personId },
      }),
      invalidatesTags: (_result, _error, { jobId }) => [{ type: "Practice", id: jobId }],
    }),
    endPractice: build.mutation<PracticeState, { readonly jobId: string; readonly body: PracticeEnd }>({
      query: ({ jobId, body }) => ({
        ...{ url: at(routes.practiceEnd, jobId), method: "POST", body, timeout: makingMilliseconds },
      }),
      invalidatesTags: ["Practice", "Instruments"],
    }),
    practiceList: build.query<PracticeListPage, string>({
      query: (listId) => path(routes.practiceList, { listId }).slice(1),
      providesTags: ["Practice"],
    }),
    makePracticeList: build.mutation<PracticeListPage, PracticeList & { readonly personId: string | null }>({
      query: (body) => ({ url: routes.practiceLists.slice(1), method: "POST", body }),
      invalidatesTags: ["Practice"],
    }),
    removePracticeList: build.mutation<void, string>({
      query: (listId) => ({
        url: path(routes.practiceList, { listId }).slice(1),
        method: "DELETE",
        body: { writeId: newId(), version: 1 },
      }),
      invalidatesTags: ["Practice"],
    }),
  }),
});

export const {
  usePracticePageQuery,
  usePracticeQuery,
  useBeginPracticeMutation,
  useHandActMutation,
  useTakeHintMutation,
  useEndPracticeMutation,
  usePracticeListQuery,
  useMakePracticeListMutation,
  useRemovePracticeListMutation,
} = practiceApi;

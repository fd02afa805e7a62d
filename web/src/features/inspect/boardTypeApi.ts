import {
  type BoardTypeLine,
  type BoardTypeOfJob,
  type JobDetail,
  routes,
  type SaveBoardType,
  type TakeBoardType,
} from "@pale-cap/contract";
import { api } from "../../api/api";
import { type OnJob, patching, url } from "../../job/patching";

type BoardRows = Pick<JobDetail, "board" | "nets" | "positions" | "fittedParts">;

const boardTypeApi = api.injectEndpoints({
  endpoints: (build) => ({
    boardTypes: build.query<readonly BoardTypeLine[], void>({
      query: () => routes.boardTypes.slice(1),
      providesTags: ["Bench"],
    }),
    boardTypeOfJob: build.query<BoardTypeOfJob | null, string>({
      query: (jobId) => url(routes.boardTypeOfJob, jobId),
      // Every edit of a board invalidates the bench, and the comparison with it.
      providesTags: ["Bench"],
    }),
    saveBoardType: build.mutation<BoardTypeOfJob, OnJob<SaveBoardType>>({
      query: ({ jobId, body }) => ({ url: url(routes.boardTypeOfJob, jobId), method: "POST", body }),
      invalidatesTags: ["Bench"],
    }),
    takeBoardType: build.mutation<BoardRows, OnJob<TakeBoardType>>({
      query: ({ jobId, body }) => ({ url: url(routes.boardTypeUse, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, rows) => ({ ...detail, ...rows })),
    }),
  }),
});

export const { useBoardTypesQuery, useBoardTypeOfJobQuery, useSaveBoardTypeMutation, useTakeBoardTypeMutation } =
  boardTypeApi;

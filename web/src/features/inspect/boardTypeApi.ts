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
      providesTags: ["BoardType"],
    }),
    boardTypeOfJob: build.query<BoardTypeOfJob | null, string>({
      query: (jobId) => url(routes.boardTypeOfJob, jobId),
      // Only an edit of a board can change the comparison; looking and measuring cannot.
      providesTags: ["BoardType"],
    }),
    saveBoardType: build.mutation<BoardTypeOfJob, OnJob<SaveBoardType>>({
      query: ({ jobId, body }) => ({ url: url(routes.boardTypeOfJob, jobId), method: "POST", body }),
      invalidatesTags: ["BoardType"],
    }),
    takeBoardType: build.mutation<BoardRows, OnJob<TakeBoardType>>({
      query: ({ jobId, body }) => ({ url: url(routes.boardTypeUse, jobId), method: "POST", body }),
      invalidatesTags: ["BoardType"],
      onQueryStarted: patching((detail, rows) => ({ ...detail, ...rows })),
    }),
  }),
});

export const { useBoardTypesQuery, useBoardTypeOfJobQuery, useSaveBoardTypeMutation, useTakeBoardTypeMutation } =
  boardTypeApi;

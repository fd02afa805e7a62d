import { type Board, type BoardEdit, type FittedPartRow, type Net, type Position, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";
import { patching } from "./patching";

interface BoardRows {
  readonly board: Board;
  readonly nets: readonly Net[];
  readonly positions: readonly Position[];
  readonly fittedParts: readonly FittedPartRow[];
}

export const boardApi = api.injectEndpoints({
  endpoints: (build) => ({
    editBoard: build.mutation<BoardRows, OnJob<BoardEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.boardEdits, jobId), method: "POST", body }),
      invalidatesTags: ["BoardType"],
      onQueryStarted: patching((detail, rows) => ({ ...detail, ...rows })),
    }),
  }),
});

export const { useEditBoardMutation } = boardApi;

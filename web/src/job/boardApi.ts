import { type Board, type BoardEdit, type BoardRows, type NewBoard, path, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { newId } from "../api/newId";
import { type OnJob, url } from "./onJob";
import { patching } from "./patching";

export const boardApi = api.injectEndpoints({
  endpoints: (build) => ({
    editBoard: build.mutation<BoardRows, OnJob<BoardEdit>>({
      query: ({ jobId, body }) => ({ url: url(routes.boardEdits, jobId), method: "POST", body }),
      invalidatesTags: ["BoardType"],
      onQueryStarted: patching((detail, rows) => ({ ...detail, ...rows })),
    }),
    addBoard: build.mutation<BoardRows, OnJob<NewBoard>>({
      query: ({ jobId, body }) => ({ url: url(routes.boards, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, rows) => ({ ...detail, ...rows })),
    }),
    removeBoard: build.mutation<BoardRows, OnJob<Pick<Board, "id" | "version">>>({
      query: ({ jobId, body }) => ({
        url: path(routes.board, { jobId, boardId: body.id }).slice(1),
        method: "DELETE",
        body: { writeId: newId(), version: body.version },
      }),
      onQueryStarted: patching((detail, rows) => ({ ...detail, ...rows })),
    }),
  }),
});

export const { useEditBoardMutation, useAddBoardMutation, useRemoveBoardMutation } = boardApi;

import {
  type AttachmentKind,
  type BenchNotes,
  type BoardRows,
  type BoardTypeLine,
  type BoardTypeOfJob,
  type BoardTypePapers,
  path,
  routes,
  type SaveBoardType,
  type TakeBoardType,
} from "@pale-cap/contract";
import { api } from "../../api/api";
import { newId } from "../../api/newId";
import { type OnJob, url } from "../../job/onJob";
import { patching } from "../../job/patching";

const boardTypeApi = api.injectEndpoints({
  endpoints: (build) => ({
    boardTypes: build.query<readonly BoardTypeLine[], void>({
      query: () => routes.boardTypes.slice(1),
      providesTags: ["BoardType"],
    }),
    boardTypeOfJob: build.query<BoardTypeOfJob | null, { readonly jobId: string; readonly boardId: string }>({
      query: ({ jobId, boardId }) => `${url(routes.boardTypeOfJob, jobId)}?board=${boardId}`,
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
    boardTypePapers: build.query<BoardTypePapers, string>({
      query: (boardTypeId) => path(routes.boardTypePapers, { boardTypeId }).slice(1),
      providesTags: ["Papers"],
    }),
    keepBenchNotes: build.mutation<
      BoardTypePapers,
      { readonly boardTypeId: string; readonly version: number; readonly benchNotes: BenchNotes }
    >({
      query: ({ boardTypeId, ...body }) => ({
        url: path(routes.boardTypePapers, { boardTypeId }).slice(1),
        method: "PUT",
        body: { writeId: newId(), ...body },
      }),
      invalidatesTags: ["Papers"],
    }),
    addAttachment: build.mutation<
      BoardTypePapers,
      {
        readonly boardTypeId: string;
        readonly about: { readonly id: string; readonly kind: AttachmentKind; readonly name: string };
        readonly file: Blob;
      }
    >({
      query: ({ boardTypeId, about, file }) => {
        const body = new FormData();
        body.append("about", JSON.stringify(about));
        body.append("paper", file, "paper");
        return { url: path(routes.boardTypeAttachments, { boardTypeId }).slice(1), method: "POST", body };
      },
      invalidatesTags: ["Papers"],
    }),
    removeAttachment: build.mutation<BoardTypePapers, { readonly attachmentId: string; readonly version: number }>({
      query: ({ attachmentId, version }) => ({
        url: path(routes.attachment, { attachmentId }).slice(1),
        method: "DELETE",
        body: { writeId: newId(), version },
      }),
      invalidatesTags: ["Papers"],
    }),
  }),
});

export const attachmentAddress = (attachmentId: string) => path(routes.attachment, { attachmentId });

export const {
  useBoardTypesQuery,
  useBoardTypeOfJobQuery,
  useSaveBoardTypeMutation,
  useTakeBoardTypeMutation,
  useBoardTypePapersQuery,
  useKeepBenchNotesMutation,
  useAddAttachmentMutation,
  useRemoveAttachmentMutation,
} = boardTypeApi;

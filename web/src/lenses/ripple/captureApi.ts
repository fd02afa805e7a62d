import { type CaptureAnalysisEdit, type CaptureRow, type NewCapture, routes } from "@pale-cap/contract";
import { api } from "../../api/api";
import { type OnJob, url } from "../../job/onJob";
import { byId, patching, upsert } from "../../job/patching";

/** Taking a row off, from the version that the person saw. */
interface Removal {
  readonly writeId: string;
  readonly version: number;
}

export const captureApi = api.injectEndpoints({
  endpoints: (build) => ({
    addCapture: build.mutation<CaptureRow, OnJob<NewCapture> & { readonly packed: Blob }>({
      query: ({ jobId, body, packed }) => {
        const form = new FormData();
        form.append("about", JSON.stringify(body));
        form.append("capture", packed, "samples.gz");
        return { url: url(routes.captures, jobId), method: "POST", body: form };
      },
      onQueryStarted: patching((detail, row) => ({ ...detail, captures: upsert(detail.captures, row, byId) })),
    }),
    redoAnalysis: build.mutation<CaptureRow, OnJob<CaptureAnalysisEdit> & { readonly captureId: string }>({
      query: ({ jobId, captureId, body }) => ({
        url: url(routes.captureAnalysis, jobId, { captureId }),
        method: "PUT",
        body,
      }),
      onQueryStarted: patching((detail, row) => ({ ...detail, captures: upsert(detail.captures, row, byId) })),
    }),
    removeCapture: build.mutation<null, OnJob<Removal> & { readonly captureId: string }>({
      query: ({ jobId, captureId, body }) => ({
        url: url(routes.capture, jobId, { captureId }),
        method: "DELETE",
        body,
      }),
      invalidatesTags: (_result, _error, { jobId }) => [{ type: "Job", id: jobId }],
    }),
  }),
});

export const { useAddCaptureMutation, useRedoAnalysisMutation, useRemoveCaptureMutation } = captureApi;

import { type ExportKind, routes } from "@pale-cap/contract";
import { api } from "../api/api";
import { type OnJob, url } from "./onJob";

interface ExportTold {
  readonly id: string;
  readonly what: ExportKind;
  readonly personId: string | null;
}

export const exportApi = api.injectEndpoints({
  endpoints: (build) => ({
    tellExport: build.mutation<unknown, OnJob<ExportTold>>({
      query: ({ jobId, body }) => ({ url: url(routes.exports, jobId), method: "POST", body }),
    }),
  }),
});

export const { useTellExportMutation } = exportApi;

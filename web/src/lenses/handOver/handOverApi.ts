import {
  type HandOver,
  type Job,
  type ReportAudience,
  type ReportDocument,
  type ReportVersion,
  routes,
} from "@pale-cap/contract";
import { api } from "../../api/api";
import { type OnJob, url } from "../../job/onJob";
import { patching } from "../../job/patching";

/** A report as it stands, or a version of it; `waiting` entries make it another one once they are stored. */
export interface ReportAsked {
  readonly jobId: string;
  readonly audience: ReportAudience;
  readonly reportId: string | null;
  readonly waiting: number;
}

const reportUrl = (jobId: string, reportId: string | null) =>
  reportId === null ? url(routes.report, jobId) : url(routes.storedReport, jobId, { reportId });

/** Where its paper is. */
export const reportFileUrl = ({ jobId, audience, reportId }: Omit<ReportAsked, "waiting">): string =>
  `/${reportId === null ? url(routes.reportFile, jobId) : url(routes.storedReportFile, jobId, { reportId })}?audience=${audience}`;

export const handOverApi = api.injectEndpoints({
  endpoints: (build) => ({
    handOver: build.mutation<Job, OnJob<HandOver>>({
      query: ({ jobId, body }) => ({ url: url(routes.handOver, jobId), method: "POST", body }),
      onQueryStarted: patching((detail, job) => ({ ...detail, job })),
      invalidatesTags: ["Reports"],
    }),
    report: build.query<ReportDocument, ReportAsked>({
      query: ({ jobId, audience, reportId }) => `${reportUrl(jobId, reportId)}?audience=${audience}`,
      // A stored one never changes; what stands now is asked each time.
      keepUnusedDataFor: 0,
      providesTags: ["Reports"],
    }),
    reportVersions: build.query<readonly ReportVersion[], string>({
      query: (jobId) => url(routes.reports, jobId),
      providesTags: ["Reports"],
    }),
  }),
});

export const { useHandOverMutation, useReportQuery, useReportVersionsQuery } = handOverApi;

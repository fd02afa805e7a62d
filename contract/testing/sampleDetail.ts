import type { JobFacts } from "@pale-cap/core";
import { sampleJob } from "@pale-cap/core/testing";
import type { JobDetail } from "../src/index";

/** What a test says of a job: core's sample, and rows of the wire where it needs them. */
export type SampleDetail = Partial<JobFacts> & Partial<Pick<JobDetail, "acceptances" | "photos">>;

/** A job as the client holds it, with the sample board of core's tests. */
export function sampleDetail(more: SampleDetail = {}): JobDetail {
  const { complaint, symptoms, handedOverAt, device, ...facts } = sampleJob(more);
  const versioned = <T extends object>(rows: readonly T[]) => rows.map((row) => ({ version: 1, ...row }));
  const detail = {
    ...{ acceptances: [], quotes: [], quoteAnswers: [], photos: [], ...facts },
    job: {
      ...{ id: "job-1", number: 1, version: 1, complaint, symptoms, handedOverAt },
      ...{ deviceKind: device.kind, deviceAgeYears: device.ageYears, intakeDetails: { topology: device.topology } },
    },
    boards: [{ id: "board-1", place: 1, version: 1, widthMetres: 0.1, depthMetres: 0.1, outline: null, lidZones: [] }],
    nets: versioned(facts.nets).map((net) => ({ boardId: "board-1", ...net })),
    positions: versioned(facts.positions).map((position) => ({ boardId: "board-1", ...position })),
    fittedParts: versioned(facts.fittedParts.map((part) => ({ cataloguePartId: null, ...part }))),
  };
  // Rows that no test of the client's rules looks at are left out.
  return detail as unknown as JobDetail;
}

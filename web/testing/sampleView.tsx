import { foldHouseRules, type JobDetail, jobFacts, jobRules } from "@pale-cap/contract";
import {
  firstPower,
  type JobFacts,
  jobChargeStates,
  judgeBoard,
  judgeDevices,
  roundNumber,
  roundView,
  worstChargeState,
} from "@pale-cap/core";
import { sampleJob } from "@pale-cap/core/testing";
import type { ReactNode } from "react";
import { Provider } from "react-redux";
import { store } from "../src/app/store/store";
import { onBoard, shownBoard } from "../src/job/boards";
import { JobContext, type JobView } from "../src/job/JobContext";

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

/** A moment half an hour after the sample's first readings. */
export const sampleNow = Date.UTC(2026, 10, 23, 10, 30);

/** Everything that core draws from a job, as the provider of a lens gives it, without a worker. */
export function sampleView(whole: JobDetail, nowMilliseconds = sampleNow): JobView {
  const houseRules = foldHouseRules([]);
  const rules = jobRules(houseRules);
  const wholeFacts = jobFacts(whole);
  const [detail, facts] = [roundView(whole), roundView(wholeFacts)];
  const chargeStates = jobChargeStates(wholeFacts, rules.charge, nowMilliseconds);
  return {
    shown: onBoard(detail, shownBoard(detail, undefined)),
    ...{ detail, facts, houseRules, rules, chargeStates, nowMilliseconds },
    whole: { detail: whole, facts: wholeFacts },
    round: roundNumber(whole.acts),
    judgements: judgeBoard(facts, rules.judgement),
    devices: judgeDevices(facts),
    explanation: null,
    charge: worstChargeState(chargeStates),
    power: firstPower(wholeFacts, chargeStates),
    progress: [],
    openPoints: [],
  };
}

/** What hooks of a lens stand under: the store and a job. */
export const underJob =
  (view: () => JobView) =>
  ({ children }: { readonly children: ReactNode }) => (
    <Provider store={store}>
      <JobContext.Provider value={view()}>{children}</JobContext.Provider>
    </Provider>
  );

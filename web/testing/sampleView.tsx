import { foldHouseRules, type JobDetail, jobFacts, jobRules, onBoard, shownBoard } from "@pale-cap/contract";
import {
  firstPower,
  jobChargeStates,
  judgeBoard,
  judgeDevices,
  roundNumber,
  roundView,
  worstChargeState,
} from "@pale-cap/core";
import type { ReactNode } from "react";
import { Provider } from "react-redux";
import { store } from "../src/app/store/store";
import { JobContext, type JobView } from "../src/job/JobContext";

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

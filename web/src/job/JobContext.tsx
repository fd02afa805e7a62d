import {
  acrossBoards,
  type BoardDetail,
  type HouseRuleValues,
  type JobDetail,
  jobFacts,
  jobRules,
  onBoard,
  shownBoard,
} from "@pale-cap/contract";
import {
  type ChargeState,
  type DeviceJudgement,
  type FirstPower,
  firstPower,
  type JobExplanation,
  type JobFacts,
  type JobRules,
  jobChargeStates,
  type LensProgress,
  lensProgress,
  type OpenPoint,
  openPoints,
  type PartJudgement,
  roundNumber,
  roundView,
  worstChargeState,
} from "@pale-cap/core";
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import { pageClock } from "../api/clock";
import { useAppSelector } from "../app/store/hooks";
import { withOutbox } from "../outbox/fact";
import { useJobJudgement } from "../workers/useJobJudgement";
import { useForgetting } from "./useForgetting";

/** One job with everything that core draws from it; every lens reads this and nothing is computed twice. */
export interface JobView {
  /**
   * The job as its current round sees it: what stood there when it began is what was found. Every board of the unit; what
   * has a namesake on another carries the name of its board.
   */
  readonly detail: JobDetail;
  /** The board that is drawn and edited, with what is on it under the names that stand on it. */
  readonly shown: BoardDetail;
  readonly facts: JobFacts;
  /** The job with all its rounds: for what is told of the whole, and for charge, power and what is open. */
  readonly whole: { readonly detail: JobDetail; readonly facts: JobFacts };
  readonly round: number;
  readonly houseRules: HouseRuleValues;
  readonly rules: JobRules;
  readonly judgements: ReadonlyMap<string, PartJudgement>;
  /** Verdicts on the parts that are no capacitors. */
  readonly devices: ReadonlyMap<string, DeviceJudgement>;
  /** What the fault model makes of it all; null while nothing speaks to it, or it is still being worked out. */
  readonly explanation: JobExplanation | null;
  /** State of every energy store; `charge` is the worst of them. */
  readonly chargeStates: readonly ChargeState[];
  readonly charge: ChargeState;
  /** What stands against the mains, and how the last first power-up went. */
  readonly power: FirstPower;
  readonly progress: readonly LensProgress[];
  readonly openPoints: readonly OpenPoint[];
  readonly nowMilliseconds: number;
}

/** Above every lens; tests put a view of their own there. */
export const JobContext = createContext<JobView | null>(null);

/** The job of the current screen. */
export function useJob(): JobView {
  const view = useContext(JobContext);
  if (!view) throw new Error("useJob needs a JobProvider above it");
  return view;
}

/** While something drains or a wait runs the clock ticks each second, otherwise slowly. */
function useClock(isFast: boolean): number {
  const [now, setNow] = useState(() => pageClock.serverNow());
  useEffect(() => {
    const timer = setInterval(() => setNow(pageClock.serverNow()), isFast ? 1000 : 15_000);
    return () => clearInterval(timer);
  }, [isFast]);
  return now;
}

export function JobProvider(props: {
  readonly detail: JobDetail;
  readonly houseRules: HouseRuleValues;
  readonly children: ReactNode;
}) {
  const { houseRules } = props;
  const queued = useAppSelector((state) => state.outbox.facts);
  const stored = useMemo(
    () =>
      withOutbox(
        props.detail,
        queued.filter((fact) => fact.jobId === props.detail.job.id),
        pageClock.aheadSecondsOf,
      ),
    [props.detail, queued],
  );
  const boardId = useAppSelector((state) => state.workplace.shownBoards[props.detail.job.id]);
  const whole = useMemo(() => acrossBoards(stored), [stored]);
  const wholeFacts = useMemo(() => jobFacts(whole), [whole]);
  const detail = useMemo(() => roundView(whole), [whole]);
  // With one board nothing is renamed: what the round sees is the same.
  const shown = useMemo(
    () => onBoard(whole === stored ? detail : roundView(stored), shownBoard(stored, boardId)),
    [whole, stored, detail, boardId],
  );
  const facts = useMemo(() => roundView(wholeFacts), [wholeFacts]);
  const rules = useMemo(() => jobRules(houseRules), [houseRules]);
  const { judgements, devices, explanation, ripple } = useJobJudgement(detail.job.id, wholeFacts, rules);
  useForgetting(stored);
  const isRunning = useMemo(() => {
    const states = jobChargeStates(wholeFacts, rules.charge, pageClock.serverNow());
    return states.some((one) => one.name === "draining" || one.waitUntilMilliseconds !== null);
  }, [wholeFacts, rules.charge]);
  const tick = useClock(isRunning);
  const view = useMemo((): JobView => {
    // A fact logged since the last tick must not lie in the future of the fold.
    const nowMilliseconds = Math.max(tick, pageClock.serverNow());
    const chargeStates = jobChargeStates(wholeFacts, rules.charge, nowMilliseconds);
    const points = openPoints(wholeFacts, rules, nowMilliseconds, judgements, explanation, ripple);
    return {
      detail,
      shown,
      facts,
      whole: { detail: whole, facts: wholeFacts },
      round: roundNumber(whole.acts),
      houseRules,
      rules,
      judgements,
      devices,
      explanation,
      chargeStates,
      charge: worstChargeState(chargeStates),
      power: firstPower(wholeFacts, chargeStates),
      progress: lensProgress(wholeFacts, rules, nowMilliseconds, judgements, points),
      openPoints: points,
      nowMilliseconds,
    };
  }, [detail, shown, facts, whole, wholeFacts, houseRules, rules, judgements, devices, explanation, ripple, tick]);
  return <JobContext.Provider value={view}>{props.children}</JobContext.Provider>;
}

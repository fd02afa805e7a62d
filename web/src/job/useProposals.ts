import { nextTargets, type ProposedTarget } from "@pale-cap/core";
import { useCallback, useMemo } from "react";
import { useAppDispatch } from "../app/store/hooks";
import { useJob } from "./JobContext";
import { useTarget } from "./useTarget";
import { probeSet } from "./workplaceSlice";

/** What core proposes to read next, and the way there: part, quantity and state in one step. */
export function useProposals(): readonly [readonly ProposedTarget[], (proposal: ProposedTarget) => void] {
  const { detail, facts, judgements, explanation, houseRules, charge } = useJob();
  const [, select] = useTarget();
  const dispatch = useAppDispatch();
  const strategy = houseRules["choose.howMany"];
  const isChargeVerified = charge.name === "verified";
  const { deviceKind } = detail.job;
  const proposals = useMemo(
    () =>
      nextTargets({
        facts,
        judgements,
        deviceKind,
        strategy,
        isChargeVerified,
        ...(explanation && { gains: explanation.gains }),
      }),
    [facts, judgements, explanation, deviceKind, strategy, isChargeVerified],
  );
  const take = useCallback(
    ({ positionId, terminals, quantity, circuitState }: ProposedTarget) => {
      select({ kind: "part", id: positionId, ...(terminals && { terminals }) });
      dispatch(probeSet({ quantity, circuitState }));
    },
    [dispatch, select],
  );
  return [proposals, take];
}

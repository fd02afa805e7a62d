import { areTipsFirst, nextTargets, type ProposedTarget } from "@pale-cap/core";
import { useCallback, useMemo } from "react";
import { useAppDispatch } from "../app/store/hooks";
import { useJob } from "./JobContext";
import { useIsOwnStep } from "./practice/usePractice";
import { useTarget } from "./useTarget";
import { probeSet, tipsTogether } from "./workplaceSlice";

export interface Proposals {
  readonly list: readonly ProposedTarget[];
  /** Part, quantity and state in one step. */
  readonly take: (proposal: ProposedTarget) => void;
  /** The tips go together before anything else. */
  readonly areTipsFirst: boolean;
  readonly takeTips: () => void;
  /** The first of all of these; nothing where nothing is proposed. */
  readonly takeFirst: () => void;
  /** On a practice supply the next step is the learner's own: nothing is proposed before its end. */
  readonly isOwnStep: boolean;
}

/** What core proposes to read next, and the way there. */
export function useProposals(): Proposals {
  const { detail, facts, judgements, explanation, houseRules, charge } = useJob();
  const [, select] = useTarget();
  const dispatch = useAppDispatch();
  const strategy = houseRules["choose.howMany"];
  const isChargeVerified = charge.name === "verified";
  const { deviceKind } = detail.job;
  const isOwnStep = useIsOwnStep();
  const proposals = useMemo(
    () =>
      isOwnStep
        ? []
        : nextTargets({
            facts,
            judgements,
            deviceKind,
            strategy,
            isChargeVerified,
            ...(explanation && { gains: explanation.gains }),
          }),
    [facts, judgements, explanation, deviceKind, strategy, isChargeVerified, isOwnStep],
  );
  const take = useCallback(
    ({ positionId, terminals, quantity, circuitState }: ProposedTarget) => {
      select({ kind: "part", id: positionId, ...(terminals && { terminals }) });
      dispatch(probeSet({ quantity, circuitState }));
    },
    [dispatch, select],
  );
  const isTips = !isOwnStep && areTipsFirst(judgements);
  const { id } = detail.job;
  const takeTips = useCallback(() => {
    select({ kind: "unit", id, terminals: tipsTogether });
    dispatch(probeSet({ quantity: "esr" }));
  }, [dispatch, select, id]);
  const [first] = proposals;
  const takeFirst = () => (isTips ? takeTips() : first && take(first));
  return { list: proposals, take, areTipsFirst: isTips, takeTips, takeFirst, isOwnStep };
}

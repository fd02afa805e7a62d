import type { Problem } from "@pale-cap/contract";
import { jobApi } from "../job/jobApi";
import { type AppDispatch, store } from "../job/store";
import { teardownApi } from "../job/teardownApi";
import { asProblem } from "../ui/ProblemNote";
import type { Fact } from "./fact";
import { factConfirmed, factRefused, factSettled, factsRestored, serverHeard } from "./outboxSlice";
import { outboxStorage } from "./outboxStorage";
import { createSender } from "./sender";

/** One request through the one api, so that the answer is laid into the cached job like any other. */
async function send(dispatch: AppDispatch, fact: Fact): Promise<Problem | undefined> {
  const { logReading, logSigns, logOverrule, logCharge, logPower, logTicks } = jobApi.endpoints;
  const { jobId } = fact;
  const answers = {
    reading: () => fact.kind === "reading" && dispatch(logReading.initiate({ jobId, body: fact.body })),
    signs: () => fact.kind === "signs" && dispatch(logSigns.initiate({ jobId, body: fact.body })),
    overrule: () => fact.kind === "overrule" && dispatch(logOverrule.initiate({ jobId, body: fact.body })),
    charge: () => fact.kind === "charge" && dispatch(logCharge.initiate({ jobId, body: fact.body })),
    power: () => fact.kind === "power" && dispatch(logPower.initiate({ jobId, body: fact.body })),
    ticks: () => fact.kind === "ticks" && dispatch(logTicks.initiate({ jobId, body: fact.body })),
    return: () =>
      fact.kind === "return" && dispatch(teardownApi.endpoints.logTeardownReturn.initiate({ jobId, body: fact.body })),
  };
  const answer = await answers[fact.kind]();
  // The answer is laid into the cached job a moment after the request resolves; only then may the fact leave.
  await new Promise((resolve) => setTimeout(resolve, 0));
  return answer ? asProblem(answer.error) : undefined;
}

const { dispatch } = store;

/** The outbox of this page. */
export const outbox = createSender({
  send: (fact) => send(dispatch, fact),
  storage: outboxStorage,
  queued: () => store.getState().outbox.facts,
  confirmed: (fact) => dispatch(factConfirmed(fact)),
  restored: (facts) => dispatch(factsRestored(facts)),
  settled: (id) => dispatch(factSettled(id)),
  refused: (id, refusal) => dispatch(factRefused({ id, refusal })),
  heard: (isAnswering) => dispatch(serverHeard(isAnswering)),
  wait: (milliseconds, then) => setTimeout(then, milliseconds),
});

import type { Problem } from "@pale-cap/contract";
import { api } from "../api/api";
import { pageClock } from "../api/clock";
import { serverSilence } from "../api/serverSilence";
import { store } from "../app/store/store";
import { jobApi } from "../job/jobApi";
import { asProblem } from "../ui/ProblemNote";
import type { Fact, NewFact } from "./fact";
import { factApi } from "./factApi";
import { inJobTurn } from "./jobTurns";
import { layStored } from "./layStored";
import { factLeft, factsLaid, serverHeard, storageOpened } from "./outboxSlice";
import { outboxStorage } from "./outboxStorage";
import { createSender, type Outcome } from "./sender";

const { dispatch } = store;

/** Tells the other pages of this browser that the shared outbox changed. */
const others = "BroadcastChannel" in globalThis ? new BroadcastChannel("pale-cap-outbox") : null;

const closed: Problem = {
  type: "about:blank",
  title: "This job is closed",
  status: 409,
  code: "conflict",
  detail: "Nothing is entered on a closed job. Open it again in Hand over.",
  errors: [],
};

const sender = createSender({
  send: async (jobId, facts) => {
    const body = { facts: facts.map(({ kind, body: fact }) => ({ kind, body: fact })) };
    const answer = await dispatch(factApi.endpoints.logFacts.initiate({ jobId, body }));
    const problem = asProblem(answer.error);
    return problem ?? answer.data ?? [];
  },
  storage: {
    put: async (fact) => {
      await outboxStorage.put(fact);
      others?.postMessage("changed");
    },
    remove: async (id) => {
      await outboxStorage.remove(id);
      others?.postMessage("changed");
    },
    all: outboxStorage.all,
  },
  queued: () => store.getState().outbox.facts,
  laid: (facts) => dispatch(factsLaid(facts)),
  stored: (fact, rows) => layStored(fact, rows),
  left: (id) => dispatch(factLeft(id)),
  storedElsewhere: (jobId) => dispatch(api.util.invalidateTags([{ type: "Job", id: jobId }, "Bench"])),
  heard: (isAnswering, because) => dispatch(serverHeard({ isAnswering, because })),
  storageOpens: (isOpen) => dispatch(storageOpened(isOpen)),
  exclusively: (work) =>
    "locks" in navigator ? (navigator.locks.request("pale-cap-outbox", work) as ReturnType<typeof work>) : work(),
  inTurn: inJobTurn,
  wait: (milliseconds, then) => {
    const timer = setTimeout(then, milliseconds);
    return () => clearTimeout(timer);
  },
});

/** The outbox of this browser, as this page sees it. */
export const outbox = {
  ...sender,
  /** Confirms a fact by this page's clock. A closed job takes none. */
  submit: (fact: NewFact): Promise<Outcome> => {
    const detail = jobApi.endpoints.job.select(fact.jobId)(store.getState()).data;
    if (detail?.job.handedOverAt) return Promise.resolve({ state: "refused", problem: closed });
    return sender.submit({ ...fact, body: { ...fact.body, clockId: pageClock.id } } as Fact);
  },
};

/** Sends what waits as soon as the network, or the server, is back, and hears what other pages do. */
export function openOutbox(): void {
  void outbox.restore();
  globalThis.addEventListener("online", () => void outbox.flush());
  let wasSilent = false;
  serverSilence.subscribe(() => {
    const isSilent = serverSilence.get();
    if (wasSilent && !isSilent) {
      void outbox.flush();
      // Whatever could not be read meanwhile is read now.
      dispatch(
        api.util.invalidateTags([
          "Session",
          "Bench",
          "Job",
          "HouseRules",
          "BoardType",
          "Instruments",
          "Papers",
          "People",
        ]),
      );
    }
    wasSilent = isSilent;
  });
  let isTakingUp = false;
  others?.addEventListener("message", () => {
    if (isTakingUp) return;
    isTakingUp = true;
    setTimeout(() => {
      isTakingUp = false;
      void outbox.takeUp();
    }, 200);
  });
}

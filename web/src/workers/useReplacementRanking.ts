import type { StockedPart } from "@pale-cap/contract";
import type { Requirement, Section } from "@pale-cap/core";
import { proxy, type Remote, wrap } from "comlink";
import { useCallback, useEffect, useState } from "react";
import type { BankAsked, FoundBank, RankingOrder, ReplacementWorker, ShownRanking } from "./replacementWorker";

export type { ShownRanking } from "./replacementWorker";

let remote: Remote<ReplacementWorker> | undefined;
/** Lists that the worker holds, newest last; as many as it keeps. */
let held: readonly { readonly id: number; readonly parts: readonly StockedPart[] }[] = [];
let lastId = 0;
const mostHeld = 6;

/** One worker for the whole visit; a list of parts crosses over once. */
async function workerWith(parts: readonly StockedPart[]): Promise<readonly [Remote<ReplacementWorker>, number]> {
  remote ??= wrap<ReplacementWorker>(
    new Worker(new URL("./replacementWorker.ts", import.meta.url), { type: "module" }),
  );
  const known = held.find((one) => one.parts === parts);
  if (known) return [remote, known.id];
  lastId += 1;
  const id = lastId;
  held = [...held, { id, parts }].slice(-mostHeld);
  await remote.load(id, parts);
  return [remote, id];
}

/**
 * Asks the worker about some parts; undefined while it is reckoned. A question is compared by value: it is made anew on every
 * render of the lens.
 */
function useAnswer<Question, Answer>(
  question: Question | null,
  parts: readonly StockedPart[] | undefined,
  ask: (worker: Remote<ReplacementWorker>, listId: number, question: Question) => Promise<Answer>,
): Answer | undefined {
  const [answer, setAnswer] = useState<Answer>();
  const text = JSON.stringify(question);
  useEffect(() => {
    setAnswer(undefined);
    const asked = JSON.parse(text) as Question | null;
    if (!asked || !parts) return;
    let isCurrent = true;
    void workerWith(parts)
      .then(([worker, listId]) => ask(worker, listId, asked))
      .then((found) => {
        if (isCurrent) setAnswer(found);
      });
    return () => {
      isCurrent = false;
    };
  }, [text, parts, ask]);
  return answer;
}

/** Fills places of one rail together, off the main thread; the share that is done while it is reckoned. */
export function useBankChoice(asked: BankAsked | null, parts: readonly StockedPart[] | undefined) {
  const [progress, setProgress] = useState(0);
  const ask = useCallback((worker: Remote<ReplacementWorker>, listId: number, question: BankAsked) => {
    setProgress(0);
    return worker.bank(listId, question, proxy(setProgress)) as Promise<FoundBank | null>;
  }, []);
  return { bank: useAnswer(asked, parts, ask) ?? null, progress };
}

interface RankingAsked {
  readonly requirement: Requirement;
  readonly section: Section;
  readonly order: RankingOrder;
}

const askRanking = (worker: Remote<ReplacementWorker>, listId: number, { requirement, section, order }: RankingAsked) =>
  worker.rank(listId, requirement, section, order) as Promise<ShownRanking>;

/** Ranks parts against a requirement off the main thread. */
export const useReplacementRanking = (asked: RankingAsked | null, parts: readonly StockedPart[] | undefined) =>
  useAnswer(asked, parts, askRanking);

import type { StockedPart } from "@pale-cap/contract";
import type { BankFilling, BankQuestion, Requirement, Section } from "@pale-cap/core";
import { type Remote, wrap } from "comlink";
import { useEffect, useState } from "react";
import type { RankingOrder, ReplacementWorker, ShownRanking } from "./replacementWorker";

export type { ShownRanking } from "./replacementWorker";

let remote: Remote<ReplacementWorker> | undefined;
let loaded: readonly StockedPart[] | undefined;

/** One worker for the whole visit, holding the parts that were asked for last. */
async function workerWith(parts: readonly StockedPart[]): Promise<Remote<ReplacementWorker>> {
  remote ??= wrap<ReplacementWorker>(
    new Worker(new URL("./replacementWorker.ts", import.meta.url), { type: "module" }),
  );
  if (loaded !== parts) {
    loaded = parts;
    await remote.load(parts);
  }
  return remote;
}

/**
 * Asks the worker about some parts; undefined while it is reckoned. A question is compared by value: it is made anew on every
 * render of the lens.
 */
function useAnswer<Question, Answer>(
  question: Question | null,
  parts: readonly StockedPart[] | undefined,
  ask: (worker: Remote<ReplacementWorker>, question: Question) => Promise<Answer>,
): Answer | undefined {
  const [answer, setAnswer] = useState<Answer>();
  const text = JSON.stringify(question);
  useEffect(() => {
    setAnswer(undefined);
    const asked = JSON.parse(text) as Question | null;
    if (!asked || !parts) return;
    let isCurrent = true;
    void workerWith(parts)
      .then((worker) => ask(worker, asked))
      .then((found) => {
        if (isCurrent) setAnswer(found);
      });
    return () => {
      isCurrent = false;
    };
  }, [text, parts, ask]);
  return answer;
}

export interface ShownBank {
  readonly ranked: readonly BankFilling[];
  readonly kitCount: number;
  readonly candidateCount: number;
}

interface BankAsked {
  readonly places: Omit<BankQuestion, "candidates">;
  readonly section: Section;
  readonly isLowEsrOnly: boolean;
  readonly count: number;
}

const askBank = (worker: Remote<ReplacementWorker>, { places, section, isLowEsrOnly, count }: BankAsked) =>
  worker.bank(places, section, isLowEsrOnly, count) as Promise<ShownBank>;

/** Fills places of one rail together, off the main thread. */
export const useBankChoice = (asked: BankAsked | null, parts: readonly StockedPart[] | undefined) =>
  useAnswer(asked, parts, askBank);

interface RankingAsked {
  readonly requirement: Requirement;
  readonly section: Section;
  readonly order: RankingOrder;
}

const askRanking = (worker: Remote<ReplacementWorker>, { requirement, section, order }: RankingAsked) =>
  worker.rank(requirement, section, order) as Promise<ShownRanking>;

/** Ranks parts against a requirement off the main thread. */
export const useReplacementRanking = (asked: RankingAsked | null, parts: readonly StockedPart[] | undefined) =>
  useAnswer(asked, parts, askRanking);

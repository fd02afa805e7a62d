import type {
  BankFilling,
  BankQuestion,
  CataloguePart,
  ReplacementRanking,
  Requirement,
  Section,
} from "@pale-cap/core";
import { type Remote, wrap } from "comlink";
import { useEffect, useState } from "react";
import type { ReplacementWorker } from "./replacementWorker";

export interface ShownRanking extends ReplacementRanking {
  readonly survivorCount: number;
}

let remote: Remote<ReplacementWorker> | undefined;
let loaded: readonly CataloguePart[] | undefined;

/** One worker for the whole visit, holding the catalogue. */
async function workerWith(catalogue: readonly CataloguePart[]): Promise<Remote<ReplacementWorker>> {
  remote ??= wrap<ReplacementWorker>(
    new Worker(new URL("./replacementWorker.ts", import.meta.url), { type: "module" }),
  );
  if (loaded !== catalogue) {
    loaded = catalogue;
    await remote.load(catalogue);
  }
  return remote;
}

export interface ShownBank {
  readonly ranked: readonly BankFilling[];
  readonly kitCount: number;
  readonly candidateCount: number;
}

/** Fills places of one rail together, off the main thread; undefined while it is being computed. */
export function useBankChoice(
  question: Omit<BankQuestion, "candidates"> | null,
  section: Section,
  isLowEsrOnly: boolean,
  count: number,
  catalogue: readonly CataloguePart[] | undefined,
): ShownBank | undefined {
  const [bank, setBank] = useState<ShownBank>();
  const asked = JSON.stringify({ question, section, isLowEsrOnly, count });
  useEffect(() => {
    setBank(undefined);
    const wanted = JSON.parse(asked) as {
      question: typeof question;
      section: Section;
      isLowEsrOnly: boolean;
      count: number;
    };
    const { question: places } = wanted;
    if (!places || !catalogue) return;
    let isCurrent = true;
    void workerWith(catalogue)
      .then((worker) => worker.bank(places, wanted.section, wanted.isLowEsrOnly, wanted.count))
      .then((result) => {
        if (isCurrent) setBank(result);
      });
    return () => {
      isCurrent = false;
    };
  }, [asked, catalogue]);
  return bank;
}

/** Ranks the catalogue against a requirement off the main thread; undefined while it is being computed. */
export function useReplacementRanking(
  requirement: Requirement | null,
  section: Section,
  catalogue: readonly CataloguePart[] | undefined,
): ShownRanking | undefined {
  const [ranking, setRanking] = useState<ShownRanking>();
  // Compared by value: a requirement is made anew on every render of the lens.
  const question = JSON.stringify({ requirement, section });
  useEffect(() => {
    setRanking(undefined);
    const asked = JSON.parse(question) as { requirement: Requirement | null; section: Section };
    const wanted = asked.requirement;
    if (!wanted || !catalogue) return;
    let isCurrent = true;
    void workerWith(catalogue)
      .then((worker) => worker.rank(wanted, asked.section))
      .then((result) => {
        if (isCurrent) setRanking(result);
      });
    return () => {
      isCurrent = false;
    };
  }, [question, catalogue]);
  return ranking;
}

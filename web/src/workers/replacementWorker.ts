import {
  type BankQuestion,
  bankCandidates,
  type CataloguePart,
  chooseBank,
  type Requirement,
  rankReplacements,
  type Section,
} from "@pale-cap/core";
import { expose } from "comlink";

let catalogue: readonly CataloguePart[] = [];

const worker = {
  /** The catalogue crosses over once; a ranking sends only the requirement. */
  load(parts: readonly CataloguePart[]): void {
    catalogue = parts;
  },
  rank(requirement: Requirement, section: Section) {
    const ranking = rankReplacements(requirement, section, catalogue);
    return { ...ranking, survivors: ranking.survivors.slice(0, 60), survivorCount: ranking.survivors.length };
  },
  /** The best kits for places of one rail that are filled together. */
  bank(question: Omit<BankQuestion, "candidates">, section: Section, isLowEsrOnly: boolean, count: number) {
    const candidates = bankCandidates(catalogue, question, section, isLowEsrOnly);
    if (candidates.length === 0) return { ranked: [], kitCount: 0, candidateCount: 0 };
    const { ranked, kitCount } = chooseBank({ ...question, candidates }, count);
    return { ranked, kitCount, candidateCount: candidates.length };
  },
};

export type ReplacementWorker = typeof worker;
expose(worker);

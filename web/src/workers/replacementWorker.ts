import type { StockedPart } from "@pale-cap/contract";
import {
  type BankQuestion,
  bankCandidates,
  chooseBank,
  firstReason,
  orderReplacements,
  type ReplacementOrder,
  type Requirement,
  rankReplacements,
  type Section,
} from "@pale-cap/core";
import { expose } from "comlink";

let parts: readonly StockedPart[] = [];

/** What decides which part stands first. */
export interface RankingOrder {
  readonly order: ReplacementOrder;
  readonly warrantyHours: number;
  readonly returnCostMinor: number;
}

/** As many as a person looks through. */
const mostShown = 60;

const worker = {
  /** The parts cross over once; a ranking sends only the requirement. */
  load(found: readonly StockedPart[]): void {
    parts = found;
  },
  rank(requirement: Requirement, section: Section, order: RankingOrder) {
    const ranking = rankReplacements(requirement, section, parts);
    const stock = new Map(parts.map((one) => [one.id, one.stockCount]));
    const stockCountOf = (id: string) => stock.get(id) ?? 0;
    const survivors = orderReplacements(ranking.survivors, { ...order, stockCountOf });
    return {
      survivors: survivors.slice(0, mostShown),
      survivorCount: survivors.length,
      firstReason: firstReason(survivors, order.order),
      nearMisses: ranking.nearMisses.map((one) => ({ ...one, stockCount: stockCountOf(one.part.id) })),
      refusedCounts: ranking.refusedCounts,
    };
  },
  /** The best kits for places of one rail that are filled together. */
  bank(question: Omit<BankQuestion, "candidates">, section: Section, isLowEsrOnly: boolean, count: number) {
    const candidates = bankCandidates(parts, question, section, isLowEsrOnly);
    if (candidates.length === 0) return { ranked: [], kitCount: 0, candidateCount: 0 };
    const { ranked, kitCount } = chooseBank({ ...question, candidates }, count);
    return { ranked, kitCount, candidateCount: candidates.length };
  },
};

export type ReplacementWorker = typeof worker;
export type ShownRanking = ReturnType<typeof worker.rank>;
expose(worker);

import type { StockedPart } from "@pale-cap/contract";
import {
  asCandidate,
  type BankFilling,
  type BankQuestion,
  bankCandidates,
  bankOfTwoKinds,
  bankParts,
  chooseBank,
  firstReason,
  mergedBanks,
  orderReplacements,
  type ReplacementOrder,
  type Requirement,
  rankReplacements,
  type Section,
  type SharedQuestion,
} from "@pale-cap/core";
import { expose } from "comlink";

/** A place's parts and a bank's are asked for side by side: each question names its own list. */
const lists = new Map<number, readonly StockedPart[]>();
const mostLists = 6;

function listed(id: number): readonly StockedPart[] {
  return lists.get(id) ?? [];
}

/** What decides which part stands first. */
export interface RankingOrder {
  readonly order: ReplacementOrder;
  readonly warrantyHours: number;
  readonly returnCostMinor: number;
}

export interface BankAsked {
  readonly places: Omit<BankQuestion, "candidates">;
  /** The same with two cans in one of the places, for each that has room. */
  readonly shared: readonly Pick<SharedQuestion, "at" | "places">[];
  readonly section: Section;
  readonly isLowEsrOnly: boolean;
  readonly count: number;
}

export interface FoundBank {
  readonly ranked: readonly BankFilling[];
  /** As many may stand there; of these every kit of one or two kinds was tried. */
  readonly partCount: number;
  /** Of these every kit of any number of kinds. */
  readonly leadingCount: number;
}

/** The newest question about a bank: what it overtakes stops. */
let asked = 0;
const breathMilliseconds = 40;

/** As many as a person looks through. */
const mostShown = 60;

const worker = {
  /** The parts cross over once; a ranking sends only the requirement. */
  load(id: number, found: readonly StockedPart[]): void {
    lists.set(id, found);
    for (const old of [...lists.keys()].slice(0, -mostLists)) lists.delete(old);
  },
  rank(id: number, requirement: Requirement, section: Section, order: RankingOrder) {
    const parts = listed(id);
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
  /**
   * The best kits for places of one rail that are filled together: of one or two kinds out of everything, of more kinds out
   * of the leading parts. null: a newer question stopped it.
   */
  async bank(
    id: number,
    { places: question, shared, section, isLowEsrOnly, count }: BankAsked,
    onProgress: (ratio: number) => void,
  ): Promise<FoundBank | null> {
    asked += 1;
    const own = asked;
    const found: BankFilling[][] = [];
    const fits = bankParts(listed(id), question, section, isLowEsrOnly);
    if (fits.length === 0) return { ranked: [], partCount: 0, leadingCount: 0 };
    const parts = fits.map(asCandidate);
    // For one place alone its own ranking stands; here it is asked what two would do.
    const isAlone = question.places.length === 1;
    const variants = [...(isAlone ? [] : [{ at: null, places: question.places }]), ...shared];
    let breath = performance.now();
    for (const [n, { at, places }] of variants.entries()) {
      const search = bankOfTwoKinds({ ...question, places, candidates: parts }, count);
      let step = search.next();
      while (!step.done) {
        if (performance.now() - breath > breathMilliseconds) {
          onProgress((n + step.value) / variants.length);
          await new Promise((resolve) => setTimeout(resolve, 0));
          if (own !== asked) return null;
          breath = performance.now();
        }
        step = search.next();
      }
      // A shared place of which one half stays empty is no kit of its own.
      found.push(
        at === null
          ? [...step.value.ranked]
          : step.value.ranked.flatMap((one) =>
              one.ids[at] === null || one.ids.at(-1) === null ? [] : [{ ...one, sharedAt: at }],
            ),
      );
    }
    const candidates = isAlone ? [] : bankCandidates(fits, question);
    const more = isAlone ? [] : chooseBank({ ...question, candidates }, count).ranked;
    const ranked = mergedBanks(question.mode, [...found, more], count);
    return { ranked, partCount: fits.length, leadingCount: candidates.length };
  },
};

export type ReplacementWorker = typeof worker;
export type ShownRanking = ReturnType<typeof worker.rank>;
expose(worker);

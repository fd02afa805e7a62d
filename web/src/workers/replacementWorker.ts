import { type CataloguePart, type Requirement, rankReplacements, type Section } from "@pale-cap/core";
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
};

export type ReplacementWorker = typeof worker;
expose(worker);

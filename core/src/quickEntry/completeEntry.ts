import { classWords, sectionWords, stripeWords } from "./entryWords";
import { parsePartEntry } from "./parsePartEntry";

export interface Completion {
  readonly word: string;
  /** What it stands for: a section, a rail of the board, a capacitor class, a direction. */
  readonly kind: "section" | "rail" | "class" | "stripe" | "designator";
}

/**
 * Words that could stand where the last one is being typed. Nothing is offered twice: a line that has its section is not
 * offered another.
 *
 * @param rails names of the board's rails
 * @param nextDesignator offered on an empty line
 */
export function completeEntry(
  line: string,
  rails: readonly string[],
  nextDesignator: string | null,
): readonly Completion[] {
  const typed = /\S*$/.exec(line)?.[0]?.toLowerCase() ?? "";
  const { entry } = parsePartEntry(line.slice(0, line.length - typed.length));
  const offers: Completion[] = [];
  const offer = (kind: Completion["kind"], candidates: readonly string[]) => {
    for (const word of candidates) {
      if (word.toLowerCase().startsWith(typed) && word.toLowerCase() !== typed) offers.push({ word, kind });
    }
  };
  if (entry.designators.length === 0) {
    offer("designator", nextDesignator ? [nextDesignator] : []);
    return offers;
  }
  if (entry.section === null && entry.railName === null) {
    offer("section", spellings(Object.values(sectionWords), typed));
    offer(
      "rail",
      rails.map((name) => (/\s/.test(name) ? `:"${name}"` : `:${name}`)),
    );
  }
  if (typed === "") return offers;
  if (entry.capacitorClass === null) {
    offer("class", spellings(Object.values(classWords), typed));
  }
  if (entry.stripeDegrees === null) offer("stripe", Object.keys(stripeWords));
  return offers;
}

/** Of each word's spellings the one that is being typed, the short one first. */
function spellings(words: readonly (readonly string[])[], typed: string): readonly string[] {
  return words.map((all) => all.find((one) => one.startsWith(typed)) ?? "");
}

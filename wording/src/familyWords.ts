import type { BehindStudy } from "@pale-cap/contract";
import type { FamilyCell } from "@pale-cap/core";
import { listWords } from "./boardWords";
import { verdictLabels } from "./verdictWords";

/** How a place stands on a unit, for ears. */
export function cellWords(cell: FamilyCell, goesIn: string | null): string {
  return [
    verdictLabels[cell.verdict ?? "not_measured"],
    cell.differs && "not as on the study",
    cell.isApart && "reads apart from its brothers",
    cell.isFitted ? "a new part is in" : goesIn && `${goesIn} goes in`,
  ]
    .filter(Boolean)
    .join(", ");
}

/** What of the study a unit does not have. */
export function behindWords(behind: BehindStudy | null): string {
  if (!behind) return "";
  return [
    behind.complaint && "the complaint",
    behind.rails.length > 0 && `rails ${listWords(behind.rails)}`,
    behind.places.length > 0 && `places ${listWords(behind.places)}`,
    behind.choices.length > 0 && `what goes in at ${listWords(behind.choices)}`,
  ]
    .filter(Boolean)
    .join("; ");
}

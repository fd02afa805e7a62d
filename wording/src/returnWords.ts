import type { ComebackKind, CustomerState, FormerJob } from "@pale-cap/contract";
import type { WarrantyState } from "@pale-cap/core";
import { dayText } from "./times";

/** Why a unit is back. */
export const comebackLabels: Readonly<Record<ComebackKind, string>> = {
  same_fault: "the same fault",
  another_fault: "another fault",
  handling: "how it was handled",
  no_fault_found: "no fault found",
};

/** What the earlier promise does for a unit that came back. */
export function warrantyWords(state: WarrantyState, { warrantyUntil, replaced }: FormerJob): string {
  const until = warrantyUntil === null ? "" : dayText(warrantyUntil);
  const parts = replaced.length > 0 ? ` and ${replaced.join(", ")}` : "";
  switch (state) {
    case "none":
      return "Nothing was promised with it.";
    case "over":
      return `Its warranty was over on ${until}, before it came back.`;
    case "covers":
      return `Under warranty until ${until}: the same fault${parts} free of charge, and its time in the shop does not count.`;
    case "other":
      return `Under warranty until ${until}, and that reaches only the same fault${parts}.`;
    case "open":
      return `Under warranty until ${until} for the same fault${parts}: say what it is.`;
  }
}

/** What an erasure takes, and what it leaves: said before it is done. */
export function erasureWords({ jobNumbers, photoCount }: CustomerState): readonly string[] {
  const jobs = jobNumbers.map((one) => String(one).padStart(4, "0")).join(", ");
  return [
    `Name, contact and the owner's words go from ${jobNumbers.length === 1 ? "job" : "jobs"} ${jobs}, from every note and report of ${jobNumbers.length === 1 ? "it" : "them"}, and from the search. What was measured and done stays.`,
    ...(photoCount > 0
      ? [
          `${photoCount} ${photoCount === 1 ? "photo is" : "photos are"} left as ${photoCount === 1 ? "it is" : "they are"}: nobody reads names out of a picture. Look through them.`,
        ]
      : []),
    "Other computers forget what was typed there when they open the job.",
  ];
}

/** Backups that were taken before hold the name until they are gone. */
export function backupsLeftWords(at: readonly string[]): string {
  if (at.length === 0) return "No backup of before is known here. Copies that somebody took away are not known.";
  const days = at.map(dayText);
  return `${at.length} ${at.length === 1 ? "backup" : "backups"} of before still ${at.length === 1 ? "holds" : "hold"} the name, of ${days.join(", ")}. Whoever restores one has it erased again at the next start.`;
}

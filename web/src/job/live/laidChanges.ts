import { type AddedList, addedLists, type JobChanges, type JobDetail } from "@pale-cap/contract";

/** The last place in the shop's order that a job shows. */
export function sequenceOf(detail: JobDetail): number {
  let last = 0;
  for (const list of addedLists) for (const { sequence } of detail[list]) last = Math.max(last, sequence ?? 0);
  return last;
}

/** A job with what came to it. Lists that got nothing stay the same, so that nothing is computed anew for them. */
export function laidChanges(detail: JobDetail, { added, rest }: JobChanges): JobDetail {
  const lists: Partial<Record<AddedList, readonly unknown[]>> = {};
  for (const list of addedLists) {
    if (added[list].length === 0) continue;
    const came = added[list] as readonly { readonly id: string; readonly sequence: number | null }[];
    const ids = new Set(came.map((one) => one.id));
    const others = (detail[list] as typeof came).filter((one) => !ids.has(one.id));
    lists[list] = [...others, ...came].sort((a, b) => (a.sequence ?? Infinity) - (b.sequence ?? Infinity));
  }
  if (rest === null && Object.keys(lists).length === 0) return detail;
  return { ...detail, ...rest, ...lists } as JobDetail;
}

import type { JobDetail } from "@pale-cap/contract";
import { useEffect } from "react";
import { dropDraftsOf, readDraft, writeDraft } from "../ui/useDraft";

/**
 * Where a job's customer was erased, here or at another computer, what was typed of it here and stored nowhere goes too: once, so that
 * what is typed afterwards stays.
 */
export function useForgetting(detail: JobDetail): void {
  const { id, customerErasedAt } = detail.job;
  useEffect(() => {
    const done = `erased ${id}`;
    if (customerErasedAt === null || readDraft<string>(done) === customerErasedAt) return;
    const rows = [detail.photos, detail.positions, detail.nets, detail.boards, detail.fittedParts];
    dropDraftsOf([id, ...rows.flatMap((list) => list.map((one) => one.id))]);
    writeDraft(done, customerErasedAt, false);
  }, [id, customerErasedAt, detail]);
}

import type { Problem } from "@pale-cap/contract";
import { useCallback, useState } from "react";
import type { NewFact } from "./fact";
import { outbox } from "./outbox";

/**
 * Hands a fact to the outbox. For forms that keep what was typed: a refused fact is shown there and does not stay in the
 * outbox. Resolves to whether the fact is stored or safe.
 */
export function useSubmit() {
  const [problem, setProblem] = useState<Problem>();
  const [pendingCount, setPending] = useState(0);
  const submit = useCallback(async (fact: NewFact): Promise<boolean> => {
    setPending((count) => count + 1);
    const outcome = await outbox.submit(fact);
    setPending((count) => count - 1);
    setProblem(outcome.state === "refused" ? outcome.problem : undefined);
    if (outcome.state === "refused") await outbox.letGo(fact.body.id);
    return outcome.state !== "refused";
  }, []);
  return [submit, { problem, isLoading: pendingCount > 0 }] as const;
}

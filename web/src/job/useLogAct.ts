import type { NewJobAct } from "@pale-cap/contract";
import { pageClock } from "../api/clock";
import { newId } from "../api/newId";
import { useAppSelector } from "../app/store/hooks";
import { useSubmit } from "../outbox/useSubmit";
import { useJob } from "./JobContext";

type Act = Pick<NewJobAct, "kind"> &
  Partial<Pick<NewJobAct, "subjectId" | "word" | "note" | "value" | "numbers" | "photoId">>;

/** Logs something that was done or decided on the job; resolves to whether it is stored or safe. */
export function useLogAct() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [submit, result] = useSubmit();
  const log = (act: Act): Promise<boolean> => {
    const nothing = { subjectId: null, word: null, note: null };
    const body = { ...nothing, ...act, id: newId(), at: pageClock.moment(), personId };
    return submit({ kind: "act", jobId: detail.job.id, body });
  };
  return [log, result] as const;
}

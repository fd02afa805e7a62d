import { useNavigate } from "react-router";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useBeginPracticeMutation } from "../../job/practiceApi";
import { asProblem } from "../../ui/ProblemNote";

/** Begins a practice supply and goes to its job. */
export function useBegin() {
  const personId = useAppSelector((state) => state.workplace.personId);
  const navigate = useNavigate();
  const [send, { error, isLoading, originalArgs }] = useBeginPracticeMutation();
  async function begin(supply: string, listId: string | null = null) {
    const id = newId();
    const answer = await send({ id, supply, listId, personId });
    if (!("error" in answer)) navigate(`/jobs/${id}/intake`);
  }
  return {
    begin,
    isBeginning: isLoading,
    beginning: isLoading ? (originalArgs?.supply ?? null) : null,
    problem: asProblem(error),
  };
}

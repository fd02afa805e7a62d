import { untilThenWords } from "../../outbox/keepingWords";
import text from "../../ui/text.module.css";
import { useAppSelector } from "../store/hooks";

/** That entries wait here for somebody to be in: signing out loses none of them. */
export function WaitingNote() {
  const { facts, isStorageShut } = useAppSelector((state) => state.outbox);
  const count = facts.length;
  if (count === 0) return null;
  return (
    <p role="status" className={text.softLine}>
      {count === 1 ? "One entry is" : `${count} entries are`} stored when somebody is signed in here.{" "}
      {untilThenWords(facts, isStorageShut)}
    </p>
  );
}

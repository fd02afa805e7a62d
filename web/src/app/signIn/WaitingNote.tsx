import text from "../../ui/text.module.css";
import { useAppSelector } from "../store/hooks";

/** That entries wait here for somebody to be in: signing out loses none of them. */
export function WaitingNote() {
  const count = useAppSelector((state) => state.outbox.facts.length);
  const isShut = useAppSelector((state) => state.outbox.isStorageShut);
  if (count === 0) return null;
  return (
    <p role="status" className={text.softLine}>
      {count === 1 ? "One entry is" : `${count} entries are`} stored when somebody is signed in here.{" "}
      {isShut
        ? "Nothing is kept on this computer: stay on this page until then."
        : "Until then this computer keeps what was entered."}
    </p>
  );
}

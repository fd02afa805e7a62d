import { clockWords, momentText } from "@pale-cap/wording";
import { useSyncExternalStore } from "react";
import { pageClock } from "../../api/clock";
import { serverSilence } from "../../api/serverSilence";
import { shownCopies } from "../../offline/offlineCopies";
import { useAppSelector } from "../store/hooks";
import classes from "./frame.module.css";

/** Below the ladder of every screen: that nothing can be read just now, or that this computer's clock is wrong. */
export function ServerNote() {
  const isSilent = useSyncExternalStore(serverSilence.subscribe, serverSilence.get);
  // Entries that wait for the server say it themselves.
  const isTold = useAppSelector(({ outbox }) => outbox.isServerSilent && outbox.facts.some((fact) => !fact.aside));
  const aheadSeconds = useSyncExternalStore(pageClock.subscribe, pageClock.disagreementSeconds);
  const copiedAt = useSyncExternalStore(shownCopies.subscribe, shownCopies.oldestAt);
  const minutes = aheadSeconds === null ? null : Math.round(aheadSeconds / 60) * 60;
  if (isSilent && !isTold) {
    return (
      <span role="status" className={classes.serverNote}>
        No answer from the server: it is asked again every two seconds.{" "}
        {copiedAt === null
          ? "What you see may be old."
          : `You see a copy of ${momentText(new Date(copiedAt).toISOString())} without customers. What you log is kept here and sent when it answers.`}
      </span>
    );
  }
  if (minutes === null) return null;
  return (
    <span role="status" className={classes.serverNote}>
      {clockWords(minutes)}
    </span>
  );
}

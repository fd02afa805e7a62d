import { deviceName, reminderWords } from "@pale-cap/wording";
import { Link } from "react-router";
import { pageClock } from "../../api/clock";
import { useRemindersQuery } from "../../job/jobListApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import classes from "./bench.module.css";

const everyMilliseconds = 60_000;
/** As many as stand above the jobs; the rest is counted. */
const mostShown = 8;
const lensOf = { call_back: "intake", cured: "rework", burn_in: "prove", due: "hand-over" } as const;

/** What the open jobs want somebody to think of, the soonest first; nothing where they want nothing. */
export function Reminders() {
  const { data = [], error } = useRemindersQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: everyMilliseconds,
  });
  const now = pageClock.serverNow();
  const sorted = [...data].sort((a, b) => a.at.localeCompare(b.at));
  if (error) return <ProblemNote problem={asProblem(error)} />;
  if (sorted.length === 0) return null;
  return (
    <section className={classes.reminders} aria-label="To think of">
      <h2>To think of</h2>
      <ul>
        {sorted.slice(0, mostShown).map((one) => (
          <li key={`${one.jobId} ${one.kind} ${one.at}`} data-past={Date.parse(one.at) <= now || undefined}>
            <Link to={`/jobs/${one.jobId}/${lensOf[one.kind]}`}>{String(one.jobNumber).padStart(4, "0")}</Link>{" "}
            {deviceName(one)}: {reminderWords(one, now)}
          </li>
        ))}
      </ul>
      {sorted.length > mostShown && <p>and {sorted.length - mostShown} more later</p>}
    </section>
  );
}

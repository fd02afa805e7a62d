import { type LensState, lenses } from "@pale-cap/core";
import { lensLabels, lensStateLabels } from "@pale-cap/wording";
import { NavLink, useNavigate } from "react-router";
import { useJob } from "../../job/JobContext";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import classes from "./frame.module.css";

/** The nine lenses as rungs, each with its state and what is still missing. */
export function Ladder() {
  const { detail, progress } = useJob();
  const navigate = useNavigate();
  useKeys(
    "Lenses",
    lenses.map((lens, index) => ({
      key: `alt+${index + 1}`,
      label: lensLabels[lens],
      action: () => navigate(`/jobs/${detail.job.id}/${lens}`),
    })),
  );
  return (
    <nav className={classes.ladder} aria-label="Lenses">
      {progress.map(({ lens, state, missingCount }, index) => (
        <NavLink key={lens} to={`/jobs/${detail.job.id}/${lens}`} className={classes.rung}>
          <span className={classes.rungNumber}>{index + 1}</span>{" "}
          <span className={classes.rungName}>{lensLabels[lens]}</span>
          {missingCount > 0 && (
            <>
              {" "}
              <span className={classes.rungCount}>{missingCount}</span>
              <span className={text.unseen}> missing</span>
            </>
          )}
          <span className={text.unseen}>, {lensStateLabels[state]}</span>
          <RungMark state={state} />
        </NavLink>
      ))}
    </nav>
  );
}

/** A rung of its own: hollow, half filled, filled, dashed while it waits, crossed out when overtaken. */
function RungMark({ state }: { readonly state: LensState }) {
  return (
    <svg viewBox="0 0 18 10" width="18" height="10" aria-hidden="true">
      <rect
        x="0.7"
        y="1.7"
        width="16.6"
        height="6.6"
        rx="1.5"
        fill={state === "done" ? "var(--accent)" : "none"}
        stroke={state === "untouched" || state === "waiting" ? "var(--ink-soft)" : "var(--accent)"}
        strokeWidth="1.2"
        strokeDasharray={state === "waiting" ? "2 2" : undefined}
      />
      {state === "open" && <rect x="0.7" y="1.7" width="8.3" height="6.6" rx="1.5" fill="var(--accent)" />}
      {state === "stale" && <path d="M4 9.5 14 .5" stroke="var(--failed)" strokeWidth="1.6" />}
    </svg>
  );
}

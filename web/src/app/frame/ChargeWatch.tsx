import type { ChargeStateName } from "@pale-cap/core";
import { chargeWords } from "@pale-cap/wording";
import { useNavigate } from "react-router";
import { useJob } from "../../job/JobContext";
import classes from "./frame.module.css";

/** Two plates and what is between them: a mark of its own, not one of the verdicts. */
function ChargeMark({ state }: { readonly state: ChargeStateName }) {
  return (
    <svg
      viewBox="0 0 20 20"
      width="19"
      height="19"
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
    >
      <path d="M3 3v14M17 3v14" />
      {state === "charged" && <path d="M11.5 3.5 7.5 10.5h5L8.5 16.5" strokeWidth="1.7" />}
      {state === "draining" && <path d="M10 3.5v12M6.5 12l3.5 4 3.5-4" strokeWidth="1.7" />}
      {state === "drained_once" && <path d="M7 14.5h6M10 4v5" strokeWidth="1.7" />}
      {state === "verified" && <path d="M7 14.5h6" strokeWidth="1.7" />}
      {state === "unknown" && (
        <path d="M7.6 7.4a2.5 2.5 0 1 1 3.4 2.3c-.7.3-1 .8-1 1.6v.6M10 14.6v.7" strokeWidth="1.7" />
      )}
    </svg>
  );
}

/** The charge watch, in the frame of every screen of a job. */
export function ChargeWatch() {
  const { charge, detail, nowMilliseconds } = useJob();
  const navigate = useNavigate();
  const words = chargeWords(charge, detail.energyStores, nowMilliseconds);
  return (
    <button
      type="button"
      className={classes.charge}
      data-state={charge.name}
      title={words}
      aria-label={`Charge watch: ${words}`}
      onClick={() => navigate(`/jobs/${detail.job.id}/make-safe`)}
    >
      <ChargeMark state={charge.name} />
      <span aria-live="polite">{words}</span>
    </button>
  );
}

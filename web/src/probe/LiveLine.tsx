import type { Live } from "../instruments/useLive";
import { statusWords } from "../wording/instrumentWords";
import classes from "./probe.module.css";

/** Who reads along: whether its probes sit at the target, whether its value stands still, or what is wrong with it. */
export function LiveLine({ live, isTarget }: { readonly live: Live; readonly isTarget: boolean }) {
  const { instrument } = live;
  if (!instrument || !isTarget) return null;
  const words =
    instrument.status !== "ready"
      ? statusWords[instrument.status]
      : !live.isHere
        ? "probes elsewhere, p brings them"
        : (instrument.trouble ??
          (live.value === null ? "reads open" : live.isSteady ? "live, steady" : "live, settling"));
  return (
    <div className={classes.live} data-steady={(live.isHere && live.isSteady) || undefined}>
      {instrument.name}: {words}
    </div>
  );
}

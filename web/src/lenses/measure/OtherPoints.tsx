import type { ProbePoint } from "@pale-cap/core";
import { useJob } from "../../job/JobContext";
import { useTarget } from "../../job/useTarget";
import { Part } from "../../ui/Pane";
import classes from "./measure.module.css";
import { RailList } from "./RailPane";

/** The rest of what can be probed: other parts, the unit as a whole, the rails. */
export function OtherPoints({ points }: { readonly points: readonly ProbePoint[] }) {
  const { detail } = useJob();
  const [target, select] = useTarget();
  const devices = detail.positions.filter((position) =>
    points.some((one) => one.group === "device" && one.targetId === position.id),
  );
  return (
    <>
      {devices.length > 0 && (
        <Part title="Other parts">
          <div className={classes.chips}>
            {devices.map((position) => {
              const first = points.find((one) => one.targetId === position.id);
              return (
                <button
                  type="button"
                  key={position.id}
                  data-current={target?.id === position.id || undefined}
                  onClick={() =>
                    select({ kind: "part", id: position.id, ...(first?.terminals && { terminals: first.terminals }) })
                  }
                >
                  {position.designator}
                </button>
              );
            })}
            <button
              type="button"
              data-current={target?.kind === "unit" || undefined}
              onClick={() => select({ kind: "unit", id: detail.job.id })}
            >
              the unit
            </button>
          </div>
        </Part>
      )}
      <RailList />
    </>
  );
}

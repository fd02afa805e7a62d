import { netsInOrder } from "@pale-cap/contract";
import { Link } from "react-router";
import { Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { useJob } from "../JobContext";

/** The ripple lens of each rail with capacitors: one place, reached from Measure, Judge and Choose. */
export function RippleLinks() {
  const { detail } = useJob();
  const rails = netsInOrder(detail).filter((net) =>
    detail.positions.some((one) => one.netId === net.id && one.kind === "electrolytic"),
  );
  if (rails.length === 0) return null;
  return (
    <Part title="Ripple">
      {rails.map((net) => {
        const last = detail.captures.filter((one) => one.netId === net.id).at(-1);
        return (
          <div key={net.id}>
            <Link to={`/jobs/${detail.job.id}/ripple/${net.id}`}>Ripple of {net.name}</Link>
            {last && (
              <>
                , captured <Quantity value={last.analysis.quietPeakToPeakVolts} unit="V" />
              </>
            )}
          </div>
        );
      })}
    </Part>
  );
}

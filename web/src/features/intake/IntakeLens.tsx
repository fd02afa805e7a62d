import { BoardPanel } from "../../job/BoardPanel";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/LensLayout";
import { deviceName } from "../../job/parts";
import { useVerdictLook } from "../../job/useVerdictLook";
import { Pane } from "../../ui/Pane";
import { dayText } from "../../ui/times";
import { IntakeForm } from "./IntakeForm";

/** What it does wrong, what was agreed, and whose it is. */
export function IntakeLens() {
  const { detail } = useJob();
  const { job } = detail;
  const look = useVerdictLook("found");
  return (
    <LensLayout
      paneWidth="wide"
      board={<BoardPanel look={look} />}
      pane={
        <Pane
          title={`Intake of ${deviceName(job)}`}
          note={`Job ${String(job.number).padStart(4, "0")}, taken in ${dayText(job.createdAt)}`}
        >
          <IntakeForm key={job.id} job={job} />
        </Pane>
      }
    />
  );
}

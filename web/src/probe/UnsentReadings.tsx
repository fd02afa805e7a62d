import { Button } from "@mantine/core";
import { formatQuantity } from "@pale-cap/core";
import { readingSettled } from "../job/benchSlice";
import { useAppDispatch, useAppSelector } from "../job/hooks";
import { useJob } from "../job/JobContext";
import { quantityFacts } from "../wording/boardWords";
import classes from "./probe.module.css";
import { useSendReading } from "./useSendReading";

/** Readings that were confirmed here and are not stored: shown until they are, or until a person lets them go. */
export function UnsentReadings() {
  const { detail } = useJob();
  const unsent = useAppSelector((state) => state.bench.unsent).filter((one) => one.jobId === detail.job.id);
  const stuck = unsent.filter((one) => one.refusal !== null);
  const send = useSendReading(detail.job.id);
  const dispatch = useAppDispatch();
  const first = stuck[0];
  if (!first) return null;
  const name = (id: string) =>
    detail.positions.find((one) => one.id === id)?.designator ?? detail.nets.find((one) => one.id === id)?.name ?? "?";
  const { body, refusal } = first;
  const value = body.value === null ? "taken back" : formatQuantity(body.value, quantityFacts[body.quantity].unit).text;
  return (
    <div role="alert" className={classes.unsent}>
      <span>
        <b>
          {name(body.targetId)} {value}
        </b>{" "}
        is not stored{stuck.length > 1 ? `, nor ${stuck.length - 1} more` : ""}: {refusal}
      </span>
      <Button
        size="compact-sm"
        onClick={async () => {
          for (const one of stuck) await send(one.body);
        }}
      >
        Store now
      </Button>
      <Button size="compact-sm" onClick={() => dispatch(readingSettled(body.id))}>
        Let it go
      </Button>
    </div>
  );
}

import type { ProbePoint } from "@pale-cap/core";
import { cautions, deviceName } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { useTarget } from "../../job/useTarget";
import { tipsTogether } from "../../job/workplaceSlice";
import { Caution } from "../../ui/Caution";
import { Pane } from "../../ui/Pane";
import classes from "./measure.module.css";
import { OtherPoints } from "./OtherPoints";
import { ReadingList } from "./ReadingList";

/** The unit as a whole: idle watts, how long it takes, what it sounds and smells like. */
export function UnitPane({ points }: { readonly points: readonly ProbePoint[] }) {
  const { detail } = useJob();
  const [target] = useTarget();
  if (target?.terminals === tipsTogether) {
    return (
      <Pane title="The meter's leads" second={<OtherPoints points={points} />}>
        <p className={classes.hint}>
          Hold the two tips together and read. Leads that were not zeroed add the same to every ESR of a board: what is
          read here is taken off all of them, and the readings stay as they were typed. Read again where leads or meter
          change.
        </p>
        <ReadingList title="Readings of the tips together" targetId={detail.job.id} />
      </Pane>
    );
  }
  return (
    <Pane title="The unit" note={deviceName(detail.job)} second={<OtherPoints points={points} />}>
      <Caution>{cautions.underLoad}</Caution>
      <p className={classes.hint}>
        Idle power, the time to come up, sound and smell are readings too, before and after. What a nose or an ear says
        is noted as a word, with a note behind its number if you like.
      </p>
      <ReadingList title="Readings of the unit" targetId={detail.job.id} />
    </Pane>
  );
}

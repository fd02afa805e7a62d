import type { ProbePoint } from "@pale-cap/core";
import { cautions } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { deviceName } from "../../job/parts";
import { Caution } from "../../ui/Caution";
import { Pane } from "../../ui/Pane";
import classes from "./measure.module.css";
import { OtherPoints } from "./OtherPoints";
import { ReadingList } from "./ReadingList";

/** The unit as a whole: idle watts, how long it takes, what it sounds and smells like. */
export function UnitPane({ points }: { readonly points: readonly ProbePoint[] }) {
  const { detail } = useJob();
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

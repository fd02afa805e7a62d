import type { Position } from "@pale-cap/contract";
import { type PartKind, type ProbePoint, sectionFacts } from "@pale-cap/core";
import { cautions, netWords, partKindLabels } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { Caution } from "../../ui/Caution";
import { Pane } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./measure.module.css";
import { OtherPoints } from "./OtherPoints";
import { ReadingList } from "./ReadingList";
import { TestList } from "./TestList";

/** Kinds that sit on a heat sink. */
const onSink: readonly PartKind[] = ["transistor", "bridge", "diode", "heat-sink"];

/** A part that is no capacitor: its standard tests, pin by pin. */
export function DevicePane({
  position,
  points,
}: {
  readonly position: Position;
  readonly points: readonly ProbePoint[];
}) {
  const { detail, charge } = useJob();
  const net = detail.nets.find((one) => one.id === position.netId);
  const isMains = net ? sectionFacts[net.section].isMainsSide : true;
  const own = points.filter((one) => one.group === "device" && one.targetId === position.id);
  return (
    <Pane
      title={<span className={classes.designator}>{position.designator}</span>}
      note={`${partKindLabels[position.kind]}${net ? `, ${netWords(net)}` : ""}`}
      second={<OtherPoints points={points} />}
    >
      {isMains && charge.name !== "verified" && <Caution>{cautions.chargeUnknown}</Caution>}
      {isMains && onSink.includes(position.kind) && <Caution>{cautions.hotSink}</Caution>}
      {own.length === 0 && (
        <p className={text.soft}>No standard test for this kind. What you see or feel can be noted.</p>
      )}
      <TestList title="Tests, without power" points={own.filter((one) => !one.isLive)} />
      <TestList title="Under power: least and most" points={own.filter((one) => one.isLive)} />
      {position.note && <p>{position.note}</p>}
      <ReadingList title="Readings of this part" targetId={position.id} />
    </Pane>
  );
}

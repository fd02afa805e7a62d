import type { Net } from "@pale-cap/contract";
import { sectionFacts } from "@pale-cap/core";
import { useJob } from "../../job/JobContext";
import { netsInOrder } from "../../job/parts";
import { useTarget } from "../../job/useTarget";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import { netWords } from "../../wording/boardWords";
import { cautions } from "../../wording/cautions";
import classes from "./measure.module.css";
import { ReadingList } from "./ReadingList";

/** A rail as a probe point: a reading here is a live one, and the charge watch draws its conclusion from it. */
export function RailPane({ net }: { readonly net: Net }) {
  const { isMainsSide } = sectionFacts[net.section];
  return (
    <Pane title={net.name} note={netWords(net)}>
      <Caution>{isMainsSide ? cautions.livePrimary : cautions.underLoad}</Caution>
      <div className={classes.hint}>
        {net.nominalVolts === null ? (
          "No nominal voltage is entered for this rail: nothing to compare with."
        ) : (
          <>
            Nominal <Quantity value={net.nominalVolts} unit="V" />, read under power. The right voltage without load
            clears nothing: read it again under load, and its ripple, in Prove.
          </>
        )}
      </div>
      <ReadingList title="Readings of this rail" targetId={net.id} />
      <RailList />
    </Pane>
  );
}

/** The rails of the board, to aim the probe at. */
export function RailList() {
  const { detail } = useJob();
  const [target, select] = useTarget();
  const rails = netsInOrder(detail).filter((net) => net.id !== target?.id);
  if (rails.length === 0) return null;
  return (
    <Part title="Rails">
      <ul className={classes.next}>
        {rails.map((net) => (
          <li key={net.id}>
            <button type="button" onClick={() => select({ kind: "rail", id: net.id })}>
              <b>{net.name}</b> <Quantity value={net.nominalVolts} unit="V" />
            </button>
          </li>
        ))}
      </ul>
    </Part>
  );
}

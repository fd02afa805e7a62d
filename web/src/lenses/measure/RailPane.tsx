import type { Net } from "@pale-cap/contract";
import { netsInOrder } from "@pale-cap/contract";
import { hasBacklight, type ProbePoint, sectionFacts } from "@pale-cap/core";
import { cautions, netWords, probeCautionWords } from "@pale-cap/wording";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { RippleLinks } from "../../job/panels/RippleLinks";
import { useTarget } from "../../job/useTarget";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import classes from "./measure.module.css";
import { ReadingList } from "./ReadingList";
import { TestList } from "./TestList";

/** A rail as a probe point: a reading here is a live one, and the charge watch draws its conclusion from it. */
export function RailPane({ net, points }: { readonly net: Net; readonly points: readonly ProbePoint[] }) {
  const { detail } = useJob();
  const quantity = useAppSelector((state) => state.workplace.probe.quantity);
  const { isMainsSide } = sectionFacts[net.section];
  const own = points.filter((one) => one.targetId === net.id);
  const lowEnergy = own.filter((one) => one.group === "low_energy");
  const live = own.find((one) => one.quantity === "ripple_voltage" && one.group === "rail");
  return (
    <Pane
      title={net.name}
      note={netWords(net)}
      second={
        <>
          <RippleLinks />
          <RailList />
        </>
      }
    >
      <Caution>{isMainsSide ? cautions.livePrimary : cautions.underLoad}</Caution>
      {quantity === "ac_voltage" && <Caution>{cautions.phantomVolts}</Caution>}
      {!isMainsSide && hasBacklight(detail.job.deviceKind) && <Caution>{cautions.backlight}</Caution>}
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
      {live && (
        <p className={text.soft}>
          Black goes to the {live.ground} ground.{" "}
          {live.cautions
            .slice(1)
            .map((one) => probeCautionWords[one])
            .join(" ")}
        </p>
      )}
      <ReadingList title="Readings of this rail" targetId={net.id} />
      <TestList title="Before the mains, with little energy" points={lowEnergy} />
      {lowEnergy.length > 0 && <Caution>{cautions.limitedEnergy}</Caution>}
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

import { NativeSelect } from "@mantine/core";
import type { Net, NetValues } from "@pale-cap/contract";
import { netsInOrder } from "@pale-cap/contract";
import { type Section, sectionFacts, sections } from "@pale-cap/core";
import { CommittedText } from "../../../ui/CommittedText";
import { Part } from "../../../ui/Pane";
import { ProblemNote } from "../../../ui/ProblemNote";
import { useJob } from "../../JobContext";
import { netUpdate } from "../../netUpdate";
import { useShownBoardEdit } from "../../useBoardEdit";
import { RailEntry } from "./RailEntry";
import { RailField } from "./RailField";
import classes from "./rails.module.css";

/** The rails of the board: name, section, volts, and what each must deliver. The same table wherever rails are named. */
export function RailTable(props: { readonly title: string; readonly isShown?: (net: Net) => boolean }) {
  const { shown: detail } = useJob();
  const [edit, { problem }] = useShownBoardEdit();
  const change = ({ id }: Net, values: Partial<NetValues>) =>
    void edit((latest) => netUpdate(latest, id, () => values));
  return (
    <Part title={props.title}>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: only keeps Enter from meaning a form around the table */}
      <div
        onKeyDown={(event) => {
          if (event.key === "Enter" && event.target instanceof HTMLInputElement) event.preventDefault();
        }}
      >
        <ProblemNote problem={problem} />
        <div className={`${classes.rail} ${classes.heads}`} aria-hidden="true">
          <span>Rail</span>
          <span>Section</span>
          <span>Nominal</span>
          <span>Load</span>
          <span>± own</span>
        </div>
        {netsInOrder(detail)
          .filter(props.isShown ?? (() => true))
          .map((net) => (
            <div key={net.id} className={classes.rail}>
              <CommittedText
                name={`rail ${net.id}`}
                size="xs"
                aria-label={`${net.name}, name`}
                value={net.name}
                onCommit={(text) => {
                  const name = text.trim();
                  if (name !== "" && name !== net.name) change(net, { name });
                }}
              />
              <NativeSelect
                size="xs"
                aria-label={`${net.name}, section`}
                title={sectionFacts[net.section].label}
                value={net.section}
                data={sections.map((one) => ({ value: one, label: sectionFacts[one].label }))}
                onChange={(event) => change(net, { section: event.currentTarget.value as Section })}
              />
              <RailField
                of="volts"
                label={`${net.name}, nominal voltage`}
                value={net.nominalVolts}
                onCommit={(nominalVolts) => change(net, { nominalVolts })}
              />
              <RailField
                of="amps"
                label={`${net.name}, promised load`}
                value={net.fullLoadAmps}
                onCommit={(fullLoadAmps) => change(net, { fullLoadAmps })}
              />
              <RailField
                of="tolerance"
                label={`${net.name}, own tolerance`}
                value={net.toleranceRatio}
                onCommit={(toleranceRatio) => change(net, { toleranceRatio })}
              />
            </div>
          ))}
        <RailEntry />
      </div>
    </Part>
  );
}

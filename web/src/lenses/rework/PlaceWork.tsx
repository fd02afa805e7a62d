import { Button, NativeSelect, SegmentedControl, TextInput } from "@mantine/core";
import {
  heatAdvice,
  type JointPlane,
  jointPlanes,
  lastActOf,
  type OldPartPlace,
  oldPartPlaces,
  sectionFacts,
  usualLeadMetres,
} from "@pale-cap/core";
import { cautions, heatWords, oldPartLabels, planeLabels } from "@pale-cap/wording";
import { useState } from "react";
import { useJob } from "../../job/JobContext";
import { positionUpdate } from "../../job/positionUpdate";
import { useBoardEdit } from "../../job/useBoardEdit";
import { useLogAct } from "../../job/useLogAct";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import { DamageAt } from "./DamageAt";
import { OldPartToDrawer } from "./OldPartToDrawer";
import classes from "./rework.module.css";
import type { ReworkRow } from "./reworkRows";

/** What belongs to one place beside its ticks: its net shown, the heat for its joints, what is in for now, what was hurt. */
export function PlaceWork({ row }: { readonly row: ReworkRow }) {
  const { facts, houseRules, charge } = useJob();
  const [act, { problem }] = useLogAct();
  const { position, found, fitted, done } = row;
  const last = (kind: Parameters<typeof lastActOf>[1]) => lastActOf(facts.acts, kind, position.id);
  const plane = (last("joint_plane")?.word ?? "none") as JointPlane;
  const alloy = houseRules["rework.alloy"];
  const diameter = found?.diameterMetres ?? position.outlineDepthMetres;
  const advice = heatAdvice(
    plane,
    alloy === "leaded" ? "leaded" : "lead_free",
    usualLeadMetres(position.kind, diameter),
    position.pitchMetres,
  );
  const isMains = row.net !== undefined && sectionFacts[row.net.section].isMainsSide;
  return (
    <Part title={`At ${position.designator}`}>
      <ProblemNote problem={problem} />
      {isMains && charge.name !== "verified" && <Caution>{cautions.chargeUnknown}</Caution>}
      <div className={classes.work}>
        <NetShown row={row} />
        <div className={classes.workLine}>
          <span>Its joints</span>
          <SegmentedControl
            size="xs"
            aria-label={`${position.designator}: on a plane?`}
            value={plane}
            data={jointPlanes.map((value) => ({ value, label: planeLabels[value] }))}
            onChange={(word) => void act({ kind: "joint_plane", subjectId: position.id, word })}
          />
          <span className={text.soft}>{heatWords(advice)}</span>
        </div>
        {done.has("removed") && (
          <div className={classes.workLine}>
            <span>The old part to</span>
            <SegmentedControl
              size="xs"
              aria-label={`${position.designator}: where the old part goes`}
              value={last("old_part_to")?.word ?? ""}
              data={oldPartPlaces.map((value) => ({ value, label: oldPartLabels[value as OldPartPlace] }))}
              onChange={(word) => void act({ kind: "old_part_to", subjectId: position.id, word })}
            />
            {last("old_part_to")?.word === "drawer" && found && <OldPartToDrawer position={position} found={found} />}
          </div>
        )}
        {done.has("removed") && !done.has("fitted") && (
          <div className={classes.workLine}>
            <span>Its place</span>
            <Button
              size="compact-sm"
              aria-pressed={last("out_for_test") !== null}
              onClick={() => void act({ kind: "out_for_test", subjectId: position.id })}
            >
              Empty for a test
            </Button>
          </div>
        )}
        {fitted && (
          <div className={classes.workLine}>
            <span>What is in now</span>
            <SegmentedControl
              size="xs"
              aria-label={`${position.designator}: for now or for good`}
              value={last("temporary_part")?.word ?? "for_good"}
              data={[
                { value: "for_good", label: "for good" },
                { value: "for_now", label: "for now" },
              ]}
              onChange={(word) => void act({ kind: "temporary_part", subjectId: position.id, word })}
            />
          </div>
        )}
        <div className={classes.workLine}>
          <span>Glued</span>
          <QuantityInput
            label={`${position.designator}: glue cures for`}
            isLabelHidden
            isCompact
            size="xs"
            unit="h"
            limits={[0, 200]}
            value={(last("glue_set")?.value ?? 0) / 3600 || null}
            placeholder="24"
            onCommit={(hours) =>
              void act({ kind: "glue_set", subjectId: position.id, value: Math.round((hours ?? 0) * 3600) })
            }
          />
          <span className={text.soft}>it is not handed over before that</span>
        </div>
        <DamageAt position={position} amps={row.net?.fullLoadAmps ?? null} />
      </div>
    </Part>
  );
}

/** Before the first of a net comes out: that it leads there, by a meter. One that leads elsewhere moves there. */
function NetShown({ row }: { readonly row: ReworkRow }) {
  const { facts, detail } = useJob();
  const [act, { problem }] = useLogAct();
  const [edit, edited] = useBoardEdit();
  const [pin, setPin] = useState("");
  const { position, net } = row;
  if (!net) return null;
  const onNet = detail.positions.filter((one) => one.netId === net.id).map((one) => one.id);
  const shown = facts.acts.find(
    (one) => one.kind === "on_net" && one.word === "shown" && onNet.includes(one.subjectId ?? ""),
  );
  if (shown) {
    return (
      <div className={text.soft}>
        {net.name}: continuity from {detail.positions.find((one) => one.id === shown.subjectId)?.designator} was shown
        {shown.note && `, ${shown.note}`}.
      </div>
    );
  }
  return (
    <div className={classes.workLine}>
      <span>Leads to {net.name}?</span>
      <TextInput
        size="xs"
        aria-label={`${position.designator}: to which pin`}
        placeholder="to which pin"
        maxLength={60}
        value={pin}
        onChange={(event) => setPin(event.currentTarget.value)}
      />
      <Button
        size="compact-sm"
        onClick={() =>
          void act({
            kind: "on_net",
            subjectId: position.id,
            word: "shown",
            note: pin.trim() ? `to ${pin.trim()}` : null,
          })
        }
      >
        Shown
      </Button>
      <NativeSelect
        size="xs"
        aria-label={`${position.designator} leads elsewhere`}
        value=""
        data={[
          { value: "", label: "leads elsewhere …" },
          ...detail.nets.filter((one) => one.id !== net.id).map((one) => ({ value: one.id, label: one.name })),
        ]}
        onChange={(event) => {
          const netId = event.currentTarget.value;
          const other = detail.nets.find((one) => one.id === netId);
          if (!other) return;
          void edit((latest) => positionUpdate(latest, position.id, { netId })).then((refusal) => {
            if (!refusal) void act({ kind: "on_net", subjectId: position.id, word: "elsewhere", note: other.name });
          });
        }}
      />
      <ProblemNote problem={problem ?? edited.problem} />
    </div>
  );
}

import { SegmentedControl } from "@mantine/core";
import { doneSteps, isChosen, leakSigns, type ReworkStep, reworkOrder, stepsOf } from "@pale-cap/core";
import { cautions, reworkRuleWords } from "@pale-cap/wording";
import { useCallback, useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { useSelectedPosition } from "../../job/useTarget";
import { ProbeBar } from "../../probe/ProbeBar";
import { Caution } from "../../ui/Caution";
import { Pane } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { ClosingList } from "./ClosingList";
import { Mechanical } from "./Mechanical";
import { PlaceWork } from "./PlaceWork";
import { ReworkGroup } from "./ReworkGroup";
import classes from "./rework.module.css";
import type { ReworkRows } from "./reworkRows";
import { useReadAlone } from "./useReadAlone";
import { useReworkKeys } from "./useReworkKeys";
import { useReworkRows } from "./useReworkRows";
import { useTick } from "./useTick";
import { WorkList } from "./WorkList";
import { WorkPlan } from "./WorkPlan";

/** What comes out and goes in, which way round, ticked off in groups. */
export function ReworkLens() {
  const { detail, facts, charge, houseRules } = useJob();
  const groups = useReworkRows();
  const removing = houseRules["rework.removing"];
  const hasBoardPhoto = detail.photos.some((photo) => !photo.isRemoved && photo.kind.startsWith("board_"));
  /** Without a picture of the board or a place on the drawing, polarity lives in the old part alone. */
  const isOneAtATime = (group: ReworkRows) =>
    removing === "one_at_a_time" ||
    (removing === "group_with_photo" && !hasBoardPhoto && group.rows.some(({ position }) => position.xMetres === null));
  const hasLeaked = facts.signs.some((one) => one.state === "seen" && leakSigns.includes(one.sign));
  const [tick, { problem }] = useTick();
  const [isWhole, setWhole] = useReworkKeys(groups, tick, isOneAtATime);
  const target = useSelectedPosition();
  const rows = useMemo(() => groups.flatMap((one) => one.rows), [groups]);
  const selected = rows.find((one) => one.position.id === target?.id);
  const steps = useMemo(
    () =>
      reworkOrder(
        facts,
        rows.map((one) => one.position.id),
        hasBoardPhoto,
      ),
    [facts, rows, hasBoardPhoto],
  );
  const asked = useReadAlone(selected);
  const look = useCallback(
    (id: string) => {
      const isPlanned = facts.plans.some((plan) => plan.positionId === id && isChosen(plan));
      const steps = doneSteps(facts.ticks, id);
      const kind = facts.positions.find((one) => one.id === id)?.kind ?? "electrolytic";
      const isWhole = stepsOf(kind).every((step) => step === "removed" || steps.has(step));
      const note = noteOf(steps, isWhole, isPlanned);
      return { isFaded: !isPlanned, isEmpty: steps.has("removed") && !steps.has("fitted"), note };
    },
    [facts.plans, facts.ticks, facts.positions],
  );
  return (
    <LensLayout
      paneWidth="wide"
      board={<BoardPanel look={look} />}
      pane={
        <Pane
          title="Rework"
          note={groups.length > 0 ? "Parts of one value together. A tick can be taken back." : undefined}
        >
          {charge.name !== "verified" && detail.energyStores.length > 0 && <Caution>{cautions.chargeUnknown}</Caution>}
          <Caution>{cautions.polarity}</Caution>
          {hasLeaked && <Caution>{cautions.electrolyte}</Caution>}
          {groups.length === 0 && (
            <p className={text.soft}>
              Nothing was judged bad or chosen yet. Select a part on the board to take it out; what goes in is chosen in
              Choose.
            </p>
          )}
          {groups.length > 0 && (
            <p className={text.soft}>
              {reworkRuleWords(removing, houseRules["rework.alloy"])} {cautions.hotAir}
            </p>
          )}
          {groups.length > 0 && (
            <div className={classes.keys}>
              <span>
                <kbd>n</kbd> next place, <kbd>1</kbd> to <kbd>4</kbd> its steps, an arrow where the stripe is seen,{" "}
                <kbd>a</kbd>
              </span>
              <SegmentedControl
                size="xs"
                aria-label="What the keys tick"
                value={isWhole ? "whole" : "one"}
                data={[
                  { value: "one", label: "this place" },
                  { value: "whole", label: "all of its value" },
                ]}
                onChange={(value) => setWhole(value === "whole")}
              />
            </div>
          )}
          <ProblemNote problem={problem} />
          <WorkPlan steps={steps} rows={rows} />
          {groups.map((group) => (
            <ReworkGroup key={group.key} group={group} isOneAtATime={isOneAtATime(group)} />
          ))}
          {selected && <PlaceWork key={selected.position.id} row={selected} />}
          <WorkList />
          <Mechanical />
          <ClosingList />
        </Pane>
      }
      foot={asked ? <ProbeBar /> : undefined}
    />
  );
}

function noteOf(steps: ReadonlySet<ReworkStep>, isWhole: boolean, isPlanned: boolean): string | undefined {
  if (steps.has("fitted")) return isWhole ? "fitted" : "check polarity";
  if (steps.has("removed")) return "out";
  return isPlanned ? "to replace" : undefined;
}

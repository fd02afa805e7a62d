import { doneSteps, type ReworkStep } from "@pale-cap/core";
import { cautions, reworkRuleWords } from "@pale-cap/wording";
import { useCallback } from "react";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { Caution } from "../../ui/Caution";
import { Pane } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import { ClosingList } from "./ClosingList";
import { ReworkGroup } from "./ReworkGroup";
import type { ReworkRows } from "./reworkRows";
import { useReworkRows } from "./useReworkRows";

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
  const look = useCallback(
    (id: string) => {
      const isPlanned = facts.plans.some((plan) => plan.positionId === id && plan.cataloguePartId);
      const steps = doneSteps(facts.ticks, id);
      const note = noteOf(steps, isPlanned);
      return { isFaded: !isPlanned, isEmpty: steps.has("removed") && !steps.has("fitted"), note };
    },
    [facts.plans, facts.ticks],
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
          {groups.length === 0 && (
            <p className={text.soft}>
              Nothing is chosen yet. Take a part for each place in Choose; it then appears here.
            </p>
          )}
          {groups.length > 0 && <p className={text.soft}>{reworkRuleWords(removing, houseRules["rework.alloy"])}</p>}
          {groups.map((group) => (
            <ReworkGroup key={group.key} group={group} isOneAtATime={isOneAtATime(group)} />
          ))}
          <ClosingList />
        </Pane>
      }
    />
  );
}

function noteOf(steps: ReadonlySet<ReworkStep>, isPlanned: boolean): string | undefined {
  if (steps.has("fitted")) return steps.size === 4 ? "fitted" : "check polarity";
  if (steps.has("removed")) return "out";
  return isPlanned ? "to replace" : undefined;
}

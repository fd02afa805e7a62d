import { needsReplacement } from "@pale-cap/core";
import { useCallback, useMemo } from "react";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { BoardPanel } from "../../job/BoardPanel";
import { useJob } from "../../job/JobContext";
import { LensLayout } from "../../job/LensLayout";
import { capacitorsInOrder } from "../../job/parts";
import { useSelectedPosition, useTarget } from "../../job/useTarget";
import { Pane } from "../../ui/Pane";
import { verdictLabels } from "../../wording/verdictWords";
import classes from "./choose.module.css";
import { PositionChoice } from "./PositionChoice";

/** What goes in: a requirement for each failed place, and what the catalogue has for it. */
export function ChooseLens() {
  const { detail, judgements } = useJob();
  const [, select] = useTarget();
  const position = useSelectedPosition();
  const plans = useMemo(() => new Map(detail.plans.map((plan) => [plan.positionId, plan])), [detail.plans]);
  const wanted = capacitorsInOrder(detail).filter(({ position: one }) => {
    const judgement = judgements.get(one.id);
    return (judgement && needsReplacement(judgement)) || plans.get(one.id)?.cataloguePartId;
  });
  const wantedIds = wanted.map((one) => one.position.id).join();
  const look = useCallback(
    (id: string) => ({
      verdict: judgements.get(id)?.verdict,
      isFaded: !wantedIds.includes(id),
      note: plans.get(id)?.cataloguePartId ? "chosen" : undefined,
    }),
    [judgements, wantedIds, plans],
  );
  const shown = position?.kind === "electrolytic" ? position : undefined;
  return (
    <LensLayout
      paneWidth="wide"
      board={<BoardPanel look={look} />}
      pane={
        <Pane
          title={
            shown ? (
              <>
                For <span className={classes.designator}>{shown.designator}</span>
              </>
            ) : (
              "Choose replacements"
            )
          }
          actions={wanted.map(({ position: one }) => {
            const verdict = judgements.get(one.id)?.verdict ?? "not_measured";
            return (
              <button
                key={one.id}
                type="button"
                className={classes.tab}
                data-current={one.id === shown?.id || undefined}
                aria-label={`${one.designator}, ${verdictLabels[verdict]}`}
                onClick={() => select({ kind: "part", id: one.id })}
              >
                <VerdictGlyph verdict={verdict} size={14} /> {one.designator}
                {plans.get(one.id)?.cataloguePartId ? " ✓" : ""}
              </button>
            );
          })}
        >
          {shown ? (
            <PositionChoice key={shown.id} position={shown} />
          ) : (
            <p className={classes.soft}>
              {wanted.length === 0
                ? "Nothing was judged bad yet. Any part on the board can be chosen for all the same."
                : "Choose one of the places above."}
            </p>
          )}
        </Pane>
      }
    />
  );
}

import { capacitorsInOrder } from "@pale-cap/contract";
import { componentKindsOf, isChosen, needsReplacement, replacementSet } from "@pale-cap/core";
import { choosingRuleWords, listWords, verdictLabels } from "@pale-cap/wording";
import { useCallback, useMemo } from "react";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { RippleLinks } from "../../job/panels/RippleLinks";
import { useSelectedPosition, useTarget } from "../../job/useTarget";
import { Pane } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { ComponentChoice } from "./ComponentChoice";
import classes from "./choose.module.css";
import { PositionChoice } from "./PositionChoice";
import { StrategyTable } from "./StrategyTable";

/** What goes in: a requirement for each failed place, and what the catalogue has for it. */
export function ChooseLens() {
  const { detail, facts, judgements, houseRules } = useJob();
  const [, select] = useTarget();
  const position = useSelectedPosition();
  const plans = useMemo(() => new Map(detail.plans.map((plan) => [plan.positionId, plan])), [detail.plans]);
  const strategy = houseRules["choose.howMany"];
  const byRule = useMemo(() => replacementSet(facts, judgements, strategy), [facts, judgements, strategy]);
  const hasChoice = useCallback(
    (id: string) => {
      const plan = plans.get(id);
      return plan !== undefined && (isChosen(plan) || plan.isLeftEmpty);
    },
    [plans],
  );
  const wanted = capacitorsInOrder(detail).filter(({ position: one }) => {
    const judgement = judgements.get(one.id);
    const isBad = judgement && needsReplacement(judgement);
    return isBad || byRule.includes(one.id) || hasChoice(one.id);
  });
  const wantedKey = wanted.map((one) => one.position.id).join();
  const wantedIds = useMemo(() => new Set(wantedKey.split(",")), [wantedKey]);
  const wantedPositions = useMemo(
    () => detail.positions.filter((one) => wantedIds.has(one.id)),
    [detail.positions, wantedIds],
  );
  const look = useCallback(
    (id: string) => ({
      verdict: judgements.get(id)?.verdict,
      isFaded: !wantedIds.has(id),
      note: hasChoice(id) ? "chosen" : byRule.includes(id) ? "by the rule" : undefined,
    }),
    [judgements, wantedIds, hasChoice, byRule],
  );
  const shown = position?.kind === "electrolytic" ? position : undefined;
  const other = position && !shown && componentKindsOf(position.kind).length > 0 ? position : undefined;
  useKeys("Choose", [
    {
      key: "n",
      label: "next place",
      action: () => {
        const at = wanted.findIndex((one) => one.position.id === shown?.id);
        const next = wanted[(at + 1) % wanted.length];
        if (next) select({ kind: "part", id: next.position.id });
      },
    },
  ]);
  return (
    <LensLayout
      paneWidth="wide"
      board={<BoardPanel look={look} />}
      pane={
        <Pane
          title={
            (shown ?? other) ? (
              <>
                For <span className={classes.designator}>{(shown ?? other)?.designator}</span>
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
                {hasChoice(one.id) ? " ✓" : ""}
              </button>
            );
          })}
        >
          <p className={text.soft}>
            {choosingRuleWords({
              howMany: strategy,
              source: houseRules["choose.partSource"],
              transistor: houseRules["choose.transistor"],
            })}
            {byRule.length > 0 &&
              ` By the first, ${listWords(wanted.filter((one) => byRule.includes(one.position.id)).map((one) => one.position.designator))} ${byRule.length === 1 ? "goes" : "go"} too.`}
          </p>
          {wanted[0] && !other && <StrategyTable first={wanted[0].position} />}
          {other && <ComponentChoice key={other.id} position={other} />}
          {shown ? (
            <PositionChoice key={shown.id} position={shown} wanted={wantedPositions} />
          ) : other ? null : (
            <p className={text.soft}>
              {wanted.length === 0
                ? "Nothing was judged bad yet. Any part on the board can be chosen for all the same."
                : "Choose one of the places above; n goes to the next."}
            </p>
          )}
          <RippleLinks />
        </Pane>
      }
    />
  );
}

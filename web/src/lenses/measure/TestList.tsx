import { formatQuantity, type ProbePoint, standingReadings } from "@pale-cap/core";
import { coarseLabels, instrumentWords, quantityFacts, testWords } from "@pale-cap/wording";
import { useAppDispatch } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { useTarget } from "../../job/useTarget";
import { probeSet } from "../../job/workplaceSlice";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./measure.module.css";

/** Tests of one target, each with what a sound part shows and what was read; a click aims the bar at it. */
export function TestList({ title, points }: { readonly title: string; readonly points: readonly ProbePoint[] }) {
  const { detail } = useJob();
  const [target, select] = useTarget();
  const dispatch = useAppDispatch();
  if (points.length === 0) return null;
  const standing = standingReadings(detail.readings);
  return (
    <Part title={title}>
      <ul className={classes.tests}>
        {points.map((point) => {
          const last = standing
            .filter(
              (one) =>
                one.targetId === point.targetId && one.terminals === point.terminals && one.quantity === point.quantity,
            )
            .at(-1);
          const words = point.test && testWords[point.test];
          const pins = point.terminals?.includes(",") ? point.terminals.replace(",", " to ") : null;
          const isCurrent = target?.id === point.targetId && (target.terminals ?? null) === point.terminals;
          return (
            <li key={point.key} data-current={isCurrent || undefined}>
              <button
                type="button"
                onClick={() => {
                  const { targetKind: kind, targetId: id, terminals, circuitState, quantity } = point;
                  const isSame = target?.id === id;
                  select({ kind, id, ...(terminals && { terminals }) });
                  // Another row of the same part: it is held as it was.
                  dispatch(probeSet({ quantity, ...(circuitState && !isSame && { circuitState }) }));
                }}
              >
                <b>{pins ?? words?.name}</b> {pins && words ? `${words.name}, ` : ""}
                {quantityFacts[point.quantity].label.toLowerCase()}
                <span className={classes.read}>
                  {last &&
                    (last.coarseCode
                      ? coarseLabels[last.coarseCode]
                      : formatQuantity(last.value ?? 0, quantityFacts[last.quantity].unit).text)}
                </span>
              </button>
              {isCurrent && words && (
                <p className={text.soft}>
                  {words.how} With: {instrumentWords[point.instrument]}.
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </Part>
  );
}

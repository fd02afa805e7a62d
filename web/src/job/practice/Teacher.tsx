import type { PracticeState } from "@pale-cap/contract";
import { JobJudge, nextTargets, type ProposedTarget, practicePenalties, sectionFacts } from "@pale-cap/core";
import { circuitLabels, faultName, quantityFacts } from "@pale-cap/wording";
import { useState } from "react";
import text from "../../ui/text.module.css";
import { useJob } from "../JobContext";
import classes from "./hands.module.css";

const what = ({ quantity, circuitState }: Pick<ProposedTarget, "quantity" | "circuitState">) =>
  `${quantityFacts[quantity].label}, ${circuitLabels[circuitState]},`;

/** Help in three steps, each with its price; and what the application would have done where the last reading was taken. */
export function Teacher(props: { readonly practice: PracticeState; readonly takeHint: (level: number) => unknown }) {
  const { practice, takeHint } = props;
  const { facts, judgements, explanation, detail, rules, charge } = useJob();
  const [isAsked, setAsked] = useState(false);
  const { deviceKind } = detail.job;
  const bestOf = (of: typeof facts, judged: typeof judgements, gains: ReadonlyMap<string, number> | undefined) =>
    nextTargets({
      ...{ facts: of, judgements: judged, deviceKind, strategy: "failed_only" },
      isChargeVerified: charge.name === "verified",
      ...(gains ? { gains } : {}),
    })[0];
  const best = bestOf(facts, judgements, explanation?.gains);
  // A hint is for where things stand: what was read since then makes it old.
  const lastRead = Math.max(0, ...facts.readings.map((one) => one.sequence ?? 0));
  const level = Math.max(
    0,
    ...practice.acts
      .filter((one) => one.hintLevel !== null && one.sequence > lastRead)
      .map((one) => one.hintLevel ?? 0),
  );
  const place = detail.positions.find((one) => one.id === best?.positionId);
  const net = detail.nets.find((one) => one.id === place?.netId);
  const [lead] = [...(explanation?.ranking.probabilities ?? [])].sort((a, b) => b[1] - a[1]);
  const next = (level + 1) as 1 | 2 | 3;

  function before() {
    const last = [...facts.readings].sort((a, b) => (a.sequence ?? Infinity) - (b.sequence ?? Infinity)).at(-1);
    if (!last) return null;
    const then = { ...facts, readings: facts.readings.filter((one) => one.id !== last.id) };
    const judged = new JobJudge(then, rules).judge();
    return { last, target: bestOf(then, judged.judgements, judged.explanation?.gains) };
  }
  const told = isAsked ? before() : null;
  const nameOf = (id: string) => detail.positions.find((one) => one.id === id)?.designator ?? "the leads";

  return (
    <fieldset className={classes.part}>
      <legend>Teacher</legend>
      {level >= 1 && (
        <p>
          {best
            ? `Look at ${net ? sectionFacts[net.section].label.toLowerCase() : "the parts without a rail"}.`
            : "No reading is left that would tell more."}
        </p>
      )}
      {level >= 2 && best && (
        <p>
          Read {what(best)} of <b className={text.figure}>{nameOf(best.positionId)}</b>
          {best.terminals ? ` (${best.terminals})` : ""}.
        </p>
      )}
      {level >= 3 && best && (
        <p>
          It is expected to tell {best.gainBits.toFixed(2)} bit in {best.minutes} min
          {lead ? `; the likeliest now is ${faultName(lead[0])}, ${Math.round(100 * lead[1])} %.` : "."}
        </p>
      )}
      <div className={classes.acts}>
        {level < 3 && best && (
          <button type="button" className={classes.act} onClick={() => takeHint(next)}>
            {["Where to look", "Which test", "Why"][level]} (costs {practicePenalties[`hint_${next}`]})
          </button>
        )}
        <button
          type="button"
          className={classes.act}
          disabled={facts.readings.length === 0}
          onClick={() => setAsked(!isAsked)}
        >
          {isAsked ? "Thank you" : "What would you have done?"}
        </button>
      </div>
      {told && (
        <p>
          {told.target
            ? told.target.positionId === told.last.targetId && told.target.quantity === told.last.quantity
              ? `The same: ${nameOf(told.target.positionId)}, for ${told.target.gainBits.toFixed(2)} bit.`
              : `Instead of your last reading: ${what(told.target)} of ${nameOf(told.target.positionId)}, for an expected ${told.target.gainBits.toFixed(2)} bit in ${told.target.minutes} min.`
            : "Nothing more: what was there was enough, or no reading would have told more."}
        </p>
      )}
    </fieldset>
  );
}

import { Button, SegmentedControl } from "@mantine/core";
import type { PracticeState } from "@pale-cap/contract";
import { itemChances, outsideItem } from "@pale-cap/core";
import { answerSteps, outsideLabel, partKindLabels, scoreNote } from "@pale-cap/wording";
import { useCallback, useMemo, useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import type { PartLook } from "../../drawing/BoardDrawing";
import { StillBoard } from "../../drawing/StillBoard";
import { useJob } from "../../job/JobContext";
import { useEndPracticeMutation } from "../../job/practiceApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./practice.module.css";

/** The step that lies nearest to a chance. */
const nearest = (chance: number) =>
  answerSteps.reduce(
    (best, one, n) =>
      Math.abs(one.badProbability - chance) < Math.abs((answerSteps[best]?.badProbability ?? 0) - chance) ? n : best,
    0,
  );

/** How each step stands on the board. */
const stepLooks = ["sound", "sound", "cannot_tell", "worn", "failed"] as const;

/** How likely each part is bad, in five steps: as the ledger has it, until one says otherwise. */
export function LastWord({ practice }: { readonly practice: PracticeState }) {
  const { detail, shown, facts, judgements, devices, explanation } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [own, setOwn] = useState<Readonly<Record<string, number>>>({});
  const [end, { error, isLoading }] = useEndPracticeMutation();
  const [id] = useState(newId);
  const ledger = useMemo(() => {
    const chances = itemChances(facts, { judgements, devices, explanation, ripple: [] });
    const rows = detail.positions.map((one) => ({
      ...{ at: one.designator, kind: partKindLabels[one.kind], chance: chances.get(one.id) ?? 0.5 },
    }));
    return [...rows, { at: outsideItem, kind: "", chance: chances.get(outsideItem) ?? 0.5 }];
  }, [detail.positions, facts, judgements, devices, explanation]);
  const stepOf = (at: string, chance: number) => own[at] ?? nearest(chance);
  // What stands out first: few of them want a word.
  const rows = [...ledger].sort((a, b) => b.chance - a.chance);
  const look = useCallback(
    (positionId: string): PartLook => {
      const at = detail.positions.find((one) => one.id === positionId)?.designator ?? "";
      const known = ledger.find((one) => one.at === at);
      return { verdict: stepLooks[own[at] ?? nearest(known?.chance ?? 0.5)] ?? "cannot_tell" };
    },
    [detail.positions, ledger, own],
  );
  return (
    <div className={classes.debrief}>
      <StillBoard shown={shown} look={look}>
        As you are about to leave it.
      </StillBoard>
      <form
        className={classes.panel}
        onSubmit={(event) => {
          event.preventDefault();
          const answer = ledger.map(({ at, chance }) => ({
            at,
            badProbability:
              own[at] === undefined ? Math.min(Math.max(chance, 0), 1) : (answerSteps[own[at]]?.badProbability ?? 0.5),
          }));
          void end({ jobId: practice.jobId, body: { id, answer, personId } });
        }}
      >
        <h2>Your last word</h2>
        <p className={text.softLine}>
          How likely is each of them bad? It stands as your record has it; say where you hold otherwise. {scoreNote}
        </p>
        <ProblemNote problem={asProblem(error)} />
        <table className={`${text.table} ${text.ruled}`} aria-label="Last word">
          <TableHead names={["Part", "", "Bad?"]} />
          <tbody>
            {rows.map(({ at, kind, chance }) => (
              <tr key={at}>
                <td className={text.figure}>{at === outsideItem ? outsideLabel : at}</td>
                <td className={text.soft}>{kind}</td>
                <td>
                  <SegmentedControl
                    size="xs"
                    aria-label={at === outsideItem ? outsideLabel : `${at} is`}
                    data={answerSteps.map((one, n) => ({ value: String(n), label: one.label }))}
                    value={String(stepOf(at, chance))}
                    onChange={(value) => setOwn({ ...own, [at]: Number(value) })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <Button type="submit" loading={isLoading}>
          That is my last word: the truth, please
        </Button>
        {isLoading && (
          <p role="status" className={text.soft}>
            The bench looks for its best way, then everything is told again. This takes some seconds.
          </p>
        )}
      </form>
    </div>
  );
}

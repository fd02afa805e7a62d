import { Button, NativeSelect, NumberInput, TextInput } from "@mantine/core";
import type { NewTeardownStep, Problem, TeardownStepRow } from "@pale-cap/contract";
import { type TeardownKind, teardownKinds } from "@pale-cap/core";
import { photoKindLabels, teardownLabels } from "@pale-cap/wording";
import { useState } from "react";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { photoThumbnail } from "../../job/photoApi";
import { useAddTeardownStepMutation, useEditTeardownStepMutation } from "../../job/teardownApi";
import { useInTurn } from "../../job/useInTurn";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./opening.module.css";

/** The count is empty while it is being typed over. */
type Draft = Pick<NewTeardownStep, "kind" | "size" | "place" | "photoId"> & { readonly count: number | null };

const empty: Draft = { kind: "screws", count: 4, size: null, place: null, photoId: null };
/** What usually comes out at once. */
const usualCount = (kind: TeardownKind) => (kind === "screws" || kind === "earth_screws" ? 4 : 1);

/** The log of taking apart: one line a step, Enter logs it. Rework walks it backwards and counts. */
export function OpeningPage() {
  const { detail } = useJob();
  const personId = useAppSelector((state) => state.workplace.personId);
  const [add] = useAddTeardownStepMutation();
  const [editStep] = useEditTeardownStepMutation();
  const inTurn = useInTurn();
  const [draft, setDraft] = useDraft(`${detail.job.id} opening`, empty);
  const [problem, setProblem] = useState<Problem>();
  const [lastRemoved, setLastRemoved] = useState<TeardownStepRow | null>(null);
  const steps = [...detail.teardownSteps].sort((a, b) => a.number - b.number);
  const photos = detail.photos.filter((photo) => !photo.isRemoved);
  const set = (more: Partial<Draft>) => setDraft((now) => ({ ...now, ...more }));
  async function submit() {
    const { count } = draft;
    if (count === null) return;
    const body = { ...draft, count, id: newId(), doneAt: pageClock.moment(), personId };
    // The line is free for the next step at once; what is refused comes back only where nothing was typed since.
    const next = { ...empty, kind: draft.kind, count: usualCount(draft.kind), size: draft.size };
    setDraft(next);
    const refusal = await inTurn(
      async () => asProblem((await add({ jobId: detail.job.id, body })).error),
      (unsent) => unsent,
    );
    setProblem(refusal);
    if (refusal) setDraft((now) => (JSON.stringify(now) === JSON.stringify(next) ? draft : now));
  }

  const remove = (step: TeardownStepRow, isRemoved: boolean) =>
    void inTurn(async ({ job, teardownSteps }) => {
      const { id, kind, count, size, place, photoId } = step;
      const version = teardownSteps.find((one) => one.id === id)?.version ?? step.version;
      const body = { writeId: newId(), version, values: { kind, count, size, place, photoId, isRemoved } };
      const answer = await editStep({ jobId: job.id, stepId: id, body });
      setProblem(asProblem(answer.error));
      if (answer.data) setLastRemoved(isRemoved ? answer.data : null);
    }, setProblem);

  return (
    <Part title="Taking it apart" aside={<span className={text.softLine}>Rework closes it in reverse, counted</span>}>
      {steps.length > 0 && (
        <table className={`${text.table} ${text.ruled} ${classes.table}`}>
          <TableHead names={["", "What", "Out", "Size", "Where", "Photo", ""]} />
          <tbody>
            {steps.map((step) => (
              <tr key={step.id} data-earth={step.kind === "earth_screws" || undefined}>
                <td className={classes.number}>{step.number}</td>
                <td>{teardownLabels[step.kind]}</td>
                <td className={classes.number}>{step.count}</td>
                <td>{step.size}</td>
                <td>{step.place}</td>
                <td>
                  {step.photoId && <img src={photoThumbnail(step.photoId)} alt={`Step ${step.number} as it was`} />}
                </td>
                <td>
                  <Button
                    size="compact-xs"
                    aria-label={`Take step ${step.number} back`}
                    onClick={() => remove(step, true)}
                  >
                    Take back
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {lastRemoved && (
        <p className={text.softLine}>
          Step {lastRemoved.number} was taken back.{" "}
          <Button size="compact-xs" onClick={() => remove(lastRemoved, false)}>
            Undo
          </Button>
        </p>
      )}
      {steps.length === 0 && (
        <p className={text.softLine}>
          Log each step before the next: screws by place and size, earth screws, cables, glued seams, insulating sheets.
        </p>
      )}
      <form
        className={classes.entry}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <NativeSelect
          label="Step"
          value={draft.kind}
          data={teardownKinds.map((kind) => ({ value: kind, label: teardownLabels[kind] }))}
          onChange={(event) => {
            const kind = event.currentTarget.value as TeardownKind;
            set({ kind, count: usualCount(kind), size: null });
          }}
        />
        <NumberInput
          label="How many out"
          min={1}
          max={200}
          allowDecimal={false}
          clampBehavior="blur"
          value={draft.count ?? ""}
          onFocus={(event) => event.currentTarget.select()}
          onChange={(count) => set({ count: typeof count === "number" && count >= 1 ? count : null })}
        />
        <TextInput
          label="Size"
          placeholder="M3 x 8"
          maxLength={40}
          value={draft.size ?? ""}
          onChange={(event) => set({ size: event.currentTarget.value || null })}
        />
        <TextInput
          label="Where"
          placeholder="back, under the foot"
          maxLength={120}
          value={draft.place ?? ""}
          onChange={(event) => set({ place: event.currentTarget.value || null })}
        />
        <NativeSelect
          label="Photo of it"
          value={draft.photoId ?? ""}
          data={[
            { value: "", label: "none" },
            ...photos.map((photo, index) => ({
              value: photo.id,
              label: `${index + 1}: ${photo.caption ?? photoKindLabels[photo.kind]}`,
            })),
          ]}
          onChange={(event) => set({ photoId: event.currentTarget.value || null })}
        />
        <Button type="submit" variant="filled" disabled={draft.count === null}>
          Log step
        </Button>
      </form>
      {draft.kind === "cable" && draft.photoId === null && (
        <p className={text.softLine}>
          Before a connector is pulled: a photo of them all. Which goes where, and which way round, stands nowhere else.
        </p>
      )}
      <ProblemNote problem={problem} />
    </Part>
  );
}

import { Button, Chip } from "@mantine/core";
import { type ComebackKind, comebackKinds, type FormerJob, type JobAlike, type Problem } from "@pale-cap/contract";
import { warrantyState } from "@pale-cap/core";
import { comebackLabels, dayText, outcomeLabels, warrantyWords } from "@pale-cap/wording";
import dayjs from "dayjs";
import { useState } from "react";
import { Link } from "react-router";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { useEditComebackMutation, useFormerJobsQuery } from "../../job/returnApi";
import { useInTurn } from "../../job/useInTurn";
import { EntryFieldset } from "../../ui/closedEntry";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";

/** What the unit was here for before: read, promised, left open; and whether it is the same unit at all. */
export function FormerJobCard() {
  const { detail } = useJob();
  const { id: jobId, version } = detail.job;
  const { data } = useFormerJobsQuery({ jobId, version }, { refetchOnMountOrArgChange: true });
  const [edit] = useEditComebackMutation();
  const inTurn = useInTurn();
  const [problem, setProblem] = useState<Problem>();
  const store = (comebackOf: string | null, kind: ComebackKind | null) =>
    void inTurn(
      async ({ job }) => {
        const body = { writeId: newId(), version: job.version, comebackOf, kind };
        setProblem(asProblem((await edit({ jobId, body })).error));
      },
      (unsent) => setProblem(unsent),
    );
  if (!data || (data.linked === null && data.alike.length === 0)) return null;
  return (
    <Part title={data.linked ? "It was here before" : "Was it here before?"}>
      <ProblemNote problem={problem} />
      <EntryFieldset>
        {data.linked ? (
          <Linked former={data.linked} onStore={store} />
        ) : (
          data.alike.map((one) => <Alike key={one.id} job={one} onLink={() => store(one.id, null)} />)
        )}
      </EntryFieldset>
    </Part>
  );
}

const numberText = (number: number) => String(number).padStart(4, "0");

function Alike({ job, onLink }: { readonly job: JobAlike; readonly onLink: () => void }) {
  return (
    <div className={classes.alike}>
      <span>
        Job <Link to={`/jobs/${job.id}/report`}>{numberText(job.number)}</Link>, out {dayText(job.handedOverAt)}:{" "}
        {job.isSameSerial ? "the same serial" : "the same customer"}
      </span>
      <Button size="compact-sm" onClick={onLink}>
        It is that unit
      </Button>
    </div>
  );
}

function Linked(props: {
  readonly former: FormerJob;
  readonly onStore: (comebackOf: string | null, kind: ComebackKind | null) => void;
}) {
  const { former, onStore } = props;
  const { job } = useJob().detail;
  const cameInOn = dayjs(job.createdAt).format("YYYY-MM-DD");
  const state = warrantyState(former.warrantyUntil, cameInOn, job.comebackKind ?? "unknown");
  const lines: readonly (readonly [string, readonly string[]])[] = [
    ["Complaint then", [former.complaint ?? "none noted"]],
    ["Found", former.summary === null ? former.bad : [former.summary, ...former.bad]],
    ["Went in", former.replaced],
    ["Proved", former.proved],
    ["Left open", former.left],
  ];
  return (
    <>
      <p>
        Job <Link to={`/jobs/${former.id}/report?for=record`}>{numberText(former.number)}</Link>, out{" "}
        {dayText(former.handedOverAt)}, {outcomeLabels[former.outcome]}. {warrantyWords(state, former)}
      </p>
      <Chip.Group value={job.comebackKind ?? ""} onChange={(kind) => onStore(former.id, kind as ComebackKind)}>
        <div className={classes.chips} role="group" aria-label="Why it is back">
          {comebackKinds.map((kind) => (
            <Chip key={kind} value={kind} size="sm" radius={3} variant="outline">
              {comebackLabels[kind]}
            </Chip>
          ))}
        </div>
      </Chip.Group>
      <dl className={classes.former}>
        {lines.map(
          ([name, said]) =>
            said.length > 0 && (
              <div key={name}>
                <dt className={text.soft}>{name}</dt>
                <dd>{said.map((one) => one.replace(/\.$/, "")).join("; ")}</dd>
              </div>
            ),
        )}
      </dl>
      <Button size="compact-sm" onClick={() => onStore(null, null)}>
        It is another unit
      </Button>
    </>
  );
}

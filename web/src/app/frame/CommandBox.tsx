import { lenses } from "@pale-cap/core";
import { lensLabels } from "@pale-cap/wording";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useJobQuery } from "../../job/jobApi";
import { useBenchQuery, useLazyBenchQuery } from "../../job/jobListApi";
import { targetSelected } from "../../job/workplaceSlice";
import { useKeys } from "../../ui/useKeys";
import { useAppDispatch } from "../store/hooks";
import classes from "./frame.module.css";

/** One line to go anywhere: a job's number, a lens, a part's designator. */
export function CommandBox({ jobId }: { readonly jobId: string | undefined }) {
  const [text, setText] = useState("");
  const [isLost, setLost] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const lines = useBenchQuery(undefined).data?.lines ?? [];
  const [findJobs] = useLazyBenchQuery();
  const { data: detail } = useJobQuery(jobId ?? "", { skip: !jobId });
  useKeys("Everywhere", [{ key: "g", label: "go to a job, lens or part", action: () => input.current?.focus() }]);

  /** A job that is not among the newest open ones, by its number. */
  async function findByNumber(number: number) {
    for (const state of ["open", "closed"] as const) {
      const { data } = await findJobs({ state, search: String(number).padStart(4, "0"), below: null });
      const found = data?.lines.find((one) => one.number === number);
      if (found) return found;
    }
    return undefined;
  }

  async function go() {
    const wanted = text.trim().toLowerCase();
    if (!wanted) return;
    const lens = lenses.find((one) => jobId && lensLabels[one].toLowerCase().startsWith(wanted));
    const position = detail?.positions.find((one) => one.designator.toLowerCase() === wanted);
    const number = Number(wanted);
    const line = Number.isInteger(number)
      ? (lines.find((one) => number === one.number) ?? (await findByNumber(number)))
      : undefined;
    if (position && jobId) dispatch(targetSelected({ jobId, target: { kind: "part", id: position.id } }));
    else if (line) navigate(`/jobs/${line.id}`);
    else if (lens) navigate(`/jobs/${jobId}/${lens}`);
    else {
      setLost(true);
      return;
    }
    setText("");
    input.current?.blur();
  }

  return (
    <form
      className={classes.command}
      onSubmit={(event) => {
        event.preventDefault();
        void go();
      }}
    >
      <input
        ref={input}
        value={text}
        aria-label="Go to a job, lens or part"
        aria-invalid={isLost}
        placeholder={jobId ? "Part, lens or job number" : "Job number"}
        onChange={(event) => {
          setText(event.currentTarget.value);
          setLost(false);
        }}
        onKeyDown={(event) => event.key === "Escape" && input.current?.blur()}
      />
      {isLost && (
        <span role="status" className={classes.lostHint}>
          not found
        </span>
      )}
    </form>
  );
}

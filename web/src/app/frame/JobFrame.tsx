import { Loader } from "@mantine/core";
import type { Right } from "@pale-cap/contract";
import { dayText } from "@pale-cap/wording";
import { useEffect } from "react";
import { Link, Outlet, useLocation, useParams } from "react-router";
import { Allowed } from "../../job/Allowed";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { JobProvider } from "../../job/JobContext";
import { useJobQuery } from "../../job/jobApi";
import { useJobStream } from "../../job/live/useJobStream";
import { useLieHere } from "../../job/live/useLieHere";
import { useMay } from "../../job/useMay";
import { jobClosed, jobOpened } from "../../job/workplaceSlice";
import { ClosedEntryProvider } from "../../ui/closedEntry";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { DraftScope } from "../../ui/QuantityInput";
import { useAppDispatch } from "../store/hooks";
import classes from "./frame.module.css";
import { KeysHelp } from "./KeysHelp";
import { Ladder } from "./Ladder";
import { TopStrip } from "./TopStrip";

/** The frame of a job: strip, ladder of lenses, and the lens itself. */
export function JobFrame() {
  const { jobId = "" } = useParams();
  const job = useJobQuery(jobId);
  const rules = useHouseRulesQuery();
  const dispatch = useAppDispatch();
  const problem = asProblem(job.error) ?? asProblem(rules.error);
  const isMissing = problem?.code === "not_found";
  const loadedId = job.data?.job.id;
  const people = useJobStream(loadedId ?? "");
  useLieHere(jobId, loadedId !== undefined && job.data?.job.handedOverAt === null && job.data.job.realm !== "practice");
  useEffect(() => {
    if (loadedId) dispatch(jobOpened(loadedId));
    if (isMissing) dispatch(jobClosed(jobId));
  }, [dispatch, loadedId, isMissing, jobId]);
  if (problem) {
    return (
      <div className={classes.page}>
        <TopStrip />
        <main className={classes.lost}>
          <ProblemNote problem={problem} />
          <Link to="/">To the bench</Link>
        </main>
      </div>
    );
  }
  if (!job.data || !rules.data) {
    return (
      <div className={classes.lost}>
        <Loader size="sm" aria-label="Loading the job" />
      </div>
    );
  }
  return (
    <JobProvider detail={job.data} houseRules={rules.data}>
      <div className={classes.job}>
        <TopStrip jobId={jobId} people={people} />
        <Ladder />
        <main className={classes.lens}>
          <LensOfJob jobId={jobId} handedOverAt={job.data.job.handedOverAt} />
        </main>
        <KeysHelp />
      </div>
    </JobProvider>
  );
}

/** What a lens is worked with; where somebody may not, it is read. */
const rightOfLens: Readonly<Record<string, Right>> = {
  ...{ intake: "take_in", "make-safe": "measure", inspect: "edit_board", measure: "measure", judge: "measure" },
  ...{ ripple: "measure", choose: "rework", rework: "rework", prove: "measure" },
};

/** The lens. On a closed job nothing is entered; in Hand over it can be opened again. */
function LensOfJob({ jobId, handedOverAt }: { readonly jobId: string; readonly handedOverAt: string | null }) {
  const { pathname } = useLocation();
  const isClosed = handedOverAt !== null;
  const right = rightOfLens[pathname.split("/")[3] ?? ""] ?? "read";
  const isMine = useMay(right);
  return (
    <ClosedEntryProvider value={isClosed || !isMine}>
      {!isMine && (
        <div className={classes.closedNote}>
          <Allowed right={right}>{null}</Allowed>
        </div>
      )}
      {isClosed && !/\/(hand-over|report)$/.test(pathname) && (
        <div className={classes.closedNote} role="status">
          <span>Handed over {dayText(handedOverAt)}: nothing is entered on a closed job.</span>
          <Link to={`/jobs/${jobId}/hand-over`}>Open it again in Hand over</Link>
        </div>
      )}
      <DraftScope value={`${jobId} ${pathname.split("/")[3] ?? ""}`}>
        <Outlet key={jobId} />
      </DraftScope>
    </ClosedEntryProvider>
  );
}
